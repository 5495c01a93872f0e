package org.protypos.cli.exchange;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.concurrent.Semaphore;
import org.protypos.cli.terminal.Terminal;
import org.protypos.exchange.bridge.RecordBridge;

/** Carries the records of programs that connect to a port of this machine. */
final class ListeningBridge {
    private static final int MOST_CONNECTIONS = 64;
    private static final int PATIENCE = 300_000;

    private final Terminal terminal;
    private final RecordBridge bridge;

    ListeningBridge(Terminal terminal, RecordBridge bridge) {
        this.terminal = terminal;
        this.bridge = bridge;
    }

    /** Answers until it is ended from outside. */
    int listen(int port) throws IOException {
        Semaphore free = new Semaphore(MOST_CONNECTIONS);
        try (ServerSocket server = new ServerSocket(port, MOST_CONNECTIONS, InetAddress.getLoopbackAddress())) {
            terminal.out().println("records are carried at localhost:" + server.getLocalPort() + "; Ctrl-C ends");
            terminal.out().flush();
            while (true) {
                Socket connection = server.accept();
                free.acquireUninterruptibly();
                Thread thread = new Thread(
                        () -> {
                            try {
                                answer(connection);
                            } finally {
                                free.release();
                            }
                        },
                        "bridge");
                thread.setDaemon(true);
                thread.start();
            }
        }
    }

    private void answer(Socket connection) {
        try (connection;
                InputStream in = new BufferedInputStream(connection.getInputStream());
                OutputStream out = new BufferedOutputStream(connection.getOutputStream())) {
            connection.setSoTimeout(PATIENCE);
            bridge.carry(in, out, terminal::line);
        } catch (IOException e) {
            terminal.line("a connection ended", String.valueOf(e.getMessage()));
        }
    }
}
