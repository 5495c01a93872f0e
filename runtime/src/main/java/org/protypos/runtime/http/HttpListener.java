package org.protypos.runtime.http;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.StandardSocketOptions;
import java.nio.channels.SelectionKey;
import java.nio.channels.Selector;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Iterator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executor;
import java.util.concurrent.RejectedExecutionException;
import java.util.function.Supplier;

/**
 * Listens for HTTP/1.1 and HTTP/1.0 (RFC 9110, RFC 9112). One thread watches all connections on which a request is still
 * coming; the threads of an executor are for those that have said what they want: a head, and the body or the first 64 KiB
 * of it. So nobody who is slow keeps anybody else waiting.
 */
public final class HttpListener implements AutoCloseable {
    private static final int LONGEST_HEAD = 64 * 1024;
    private static final int FIRST_OF_BODY = 64 * 1024;
    private static final int MOST_WAITING = 4_096;
    private static final long MOST_MEMORY = 64L << 20;
    private static final long LOOK = 250;
    private static final Duration IDLE = Duration.ofMinutes(1);
    private static final Duration FAREWELL = Duration.ofSeconds(2);

    private final Selector selector;
    private final ServerSocketChannel server;
    private final Handler handler;
    private final Executor executor;
    private final Supplier<Duration> patience;
    private final Queue<Peer> returned = new ConcurrentLinkedQueue<>();
    private final Set<Exchange> running = ConcurrentHashMap.newKeySet();

    /** In the order in which they began to wait. */
    private final Collection<Peer> waiting = new LinkedHashSet<>();

    private volatile boolean refusing;
    private volatile boolean closed;
    private long memory;
    private long lookedAt;
    private Thread thread;

    /** Answers requests. */
    @FunctionalInterface
    public interface Handler {
        /** Answers a request; when it fails or gives no answer, the connection is closed. */
        void handle(Exchange exchange) throws IOException;
    }

    private HttpListener(
            Selector selector,
            ServerSocketChannel server,
            Handler handler,
            Executor executor,
            Supplier<Duration> patience) {
        this.selector = selector;
        this.server = server;
        this.handler = handler;
        this.executor = executor;
        this.patience = patience;
    }

    /**
     * Begins to listen.
     *
     * @param executor has the threads that answer
     * @param patience how long a request may take to come, and 64 KiB of a longer one or of its answer
     * @throws IOException when the address cannot be had
     */
    public static HttpListener listen(
            InetSocketAddress address, Handler handler, Executor executor, Supplier<Duration> patience)
            throws IOException {
        ServerSocketChannel server = ServerSocketChannel.open();
        try {
            server.setOption(StandardSocketOptions.SO_REUSEADDR, true);
            server.bind(address, MOST_WAITING);
            server.configureBlocking(false);
            HttpListener listener = new HttpListener(Selector.open(), server, handler, executor, patience);
            server.register(listener.selector, SelectionKey.OP_ACCEPT);
            listener.thread = new Thread(listener::run, "http-listener");
            listener.thread.start();
            return listener;
        } catch (IOException | RuntimeException e) {
            server.close();
            throw e;
        }
    }

    /** The port that is listened at. */
    public int port() {
        return server.socket().getLocalPort();
    }

    /** Whether requests are being answered. */
    public boolean isBusy() {
        return !running.isEmpty();
    }

    /** From now on each connection is closed after the answer that is due. */
    public void refuseMore() {
        refusing = true;
    }

    /** Closes the port and all connections, whatever they are at. */
    @Override
    public void close() {
        closed = true;
        selector.wakeup();
        try {
            thread.join(FAREWELL.toMillis());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void run() {
        try (selector;
                server) {
            while (!closed) {
                try {
                    selector.select(LOOK);
                    Iterator<SelectionKey> ready = selector.selectedKeys().iterator();
                    while (ready.hasNext()) {
                        SelectionKey key = ready.next();
                        ready.remove();
                        if (key.attachment() instanceof Peer peer) {
                            read(peer);
                        } else {
                            accept();
                        }
                    }
                    takeBack();
                    look(System.nanoTime());
                } catch (OutOfMemoryError e) {
                    // One connection less; the others are to go on.
                    closeOldest();
                }
            }
        } catch (IOException e) {
            closed = true;
        } finally {
            waiting.forEach(Peer::close);
            running.forEach(Exchange::breakOff);
            returned.forEach(Peer::close);
        }
    }

    private void closeOldest() {
        Iterator<Peer> oldest = waiting.iterator();
        if (oldest.hasNext()) {
            close(oldest.next());
        }
    }

    private void close(Peer peer) {
        waitNoMore(peer);
        peer.close();
    }

    private void waitNoMore(Peer peer) {
        if (waiting.remove(peer)) {
            memory -= peer.size();
        }
    }

    private void accept() {
        try {
            SocketChannel channel = server.accept();
            if (channel == null) {
                return;
            }
            if (waiting.size() >= MOST_WAITING) {
                closeOldest();
            }
            welcome(new Peer(channel));
        } catch (IOException e) {
            // There are no more connections to be had; who has waited longest makes place.
            closeOldest();
        }
    }

    private void welcome(Peer peer) {
        try {
            // Head and body would otherwise wait for each other's acknowledgement.
            peer.channel().setOption(StandardSocketOptions.TCP_NODELAY, true);
        } catch (IOException e) {
            // Some systems say so when the peer has gone already.
            close(peer);
            return;
        }
        watch(peer);
    }

    private void watch(Peer peer) {
        try {
            peer.channel().configureBlocking(false);
            peer.key = peer.channel().register(selector, SelectionKey.OP_READ, peer);
            peer.since = System.nanoTime();
            waiting.add(peer);
            memory += peer.size();
        } catch (IOException e) {
            close(peer);
        }
    }

    /** Takes back the connections whose requests were answered. */
    private void takeBack() throws IOException {
        if (returned.isEmpty()) {
            return;
        }
        List<Peer> back = new ArrayList<>();
        for (Peer peer = returned.poll(); peer != null; peer = returned.poll()) {
            back.add(peer);
        }
        // A connection can be watched again after its last watch has been struck from the list.
        selector.selectNow();
        for (Peer peer : back) {
            if (!peer.leaving) {
                peer.begin();
            }
            watch(peer);
            if (peer.channel().isOpen() && !peer.leaving) {
                advance(peer);
            }
        }
    }

    /** Closes what has been waiting for too long. */
    private void look(long now) {
        long allowed = patience.get().toNanos();
        if (now - lookedAt < Math.min(LOOK * 1_000_000, allowed / 4)) {
            return;
        }
        lookedAt = now;
        for (Peer peer : waiting.toArray(new Peer[0])) {
            boolean silent = peer.isSilent();
            long most = peer.leaving ? FAREWELL.toNanos() : silent ? Math.max(allowed, IDLE.toNanos()) : allowed;
            if (now - peer.since > most) {
                if (peer.leaving || silent) {
                    close(peer);
                } else {
                    refuse(peer, 408, "the request takes too long");
                }
            }
        }
        for (Exchange exchange : running) {
            if (exchange.isStuck(now, allowed)) {
                exchange.breakOff();
            }
        }
    }

    private void read(Peer peer) {
        try {
            if (peer.leaving) {
                peer.forget();
            }
            boolean silent = peer.isSilent();
            int before = peer.size();
            int came = peer.fill();
            memory += peer.size() - before;
            if (came < 0) {
                close(peer);
                return;
            }
            while (memory > MOST_MEMORY) {
                closeOldest();
            }
            if (silent) {
                // From here on a request is coming, which may take its time but not for ever.
                peer.since = peer.leaving ? peer.since : System.nanoTime();
            }
            if (!peer.leaving) {
                advance(peer);
            }
        } catch (IOException e) {
            close(peer);
        }
    }

    /** Hands the connection over when there is enough of its request. */
    private void advance(Peer peer) {
        try {
            if (peer.head == null) {
                peer.readHead();
            }
            if (peer.head == null) {
                if (peer.available() > LONGEST_HEAD) {
                    refuse(peer, 431, "the head of the request is longer than " + LONGEST_HEAD + " bytes");
                }
                return;
            }
        } catch (RequestHead.BadHeadException e) {
            refuse(peer, e.status(), e.getMessage());
            return;
        }
        long wanted = peer.head.isAwaiting() ? 0 : Math.min(FIRST_OF_BODY, Math.max(0, peer.head.length()));
        if (peer.available() >= wanted) {
            dispatch(peer);
        }
    }

    private void dispatch(Peer peer) {
        waitNoMore(peer);
        peer.key.cancel();
        try {
            peer.channel().configureBlocking(true);
            executor.execute(() -> serve(peer));
        } catch (IOException | RejectedExecutionException e) {
            peer.close();
        }
    }

    private void serve(Peer peer) {
        Exchange exchange = new Exchange(peer);
        running.add(exchange);
        boolean reusable = false;
        try {
            if (refusing) {
                exchange.close();
            }
            handler.handle(exchange);
            reusable = exchange.isReusable();
        } catch (IOException e) {
            // The connection is broken, or the answer could not be finished: nobody is there to be told.
            reusable = false;
        } finally {
            running.remove(exchange);
            if (!reusable) {
                leave(peer);
            }
            returned.add(peer);
            selector.wakeup();
        }
    }

    /** Says that nothing more is sent. What the other side still sends is passed over, or it might lose the answer. */
    private static void leave(Peer peer) {
        peer.leaving = true;
        try {
            peer.channel().shutdownOutput();
        } catch (IOException e) {
            peer.close();
        }
    }

    private void refuse(Peer peer, int status, String reason) {
        byte[] answer = Exchange.refusal(status, reason);
        try {
            peer.send(answer, 0, answer.length);
            peer.since = System.nanoTime();
            leave(peer);
        } catch (IOException e) {
            close(peer);
        }
    }
}
