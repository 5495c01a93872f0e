package org.protypos.runtime.http;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;

/** The body of a request: so many bytes, or chunks to the last (RFC 9112, sections 6 and 7.1). */
final class RequestBody extends InputStream {
    private static final int LONGEST_LINE = 8 * 1024;
    private static final byte[] GO_ON = "HTTP/1.1 100 Continue\r\n\r\n".getBytes(StandardCharsets.US_ASCII);

    private final Peer peer;
    private final Progress progress;
    private final boolean chunked;
    private boolean awaited;
    private long left;
    private boolean ended;
    private boolean first = true;

    RequestBody(Peer peer, Progress progress) {
        this.peer = peer;
        this.progress = progress;
        chunked = peer.head.length() < 0;
        awaited = peer.head.isAwaiting();
        left = chunked ? 0 : peer.head.length();
        ended = left == 0 && !chunked;
        if (!ended) {
            progress.start();
        }
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] into, int offset, int length) throws IOException {
        if (length == 0) {
            return 0;
        }
        if (!ended && left == 0) {
            nextChunk();
        }
        if (ended) {
            progress.stop();
            return -1;
        }
        fill();
        int count = peer.take(into, offset, (int) Math.min(length, left));
        progress.count(count);
        left -= count;
        ended = left == 0 && !chunked;
        return count;
    }

    /** Makes sure that something is there to be taken. */
    private void fill() throws IOException {
        while (peer.available() == 0) {
            if (awaited) {
                awaited = false;
                peer.send(GO_ON, 0, GO_ON.length);
            }
            if (peer.fill() < 0) {
                throw new EOFException("the connection ended before the request did");
            }
        }
    }

    private void nextChunk() throws IOException {
        if (!first && !line().isEmpty()) {
            throw new IOException("a chunk of the body is longer than it says");
        }
        first = false;
        String size = line().split(";", 2)[0].strip();
        if (!size.matches("[0-9A-Fa-f]{1,15}")) {
            throw new IOException("a chunk of the body does not say how long it is");
        }
        left = Long.parseLong(size, 16);
        if (left == 0) {
            int fields = 0;
            while (!line().isEmpty()) {
                if (++fields > LONGEST_LINE / 64) {
                    throw new IOException("there are too many fields behind the body");
                }
            }
            ended = true;
        }
    }

    private String line() throws IOException {
        StringBuilder line = new StringBuilder();
        byte[] one = new byte[1];
        while (true) {
            fill();
            peer.take(one, 0, 1);
            progress.count(1);
            if (one[0] == '\n') {
                int last = line.length() - 1;
                return last >= 0 && line.charAt(last) == '\r' ? line.substring(0, last) : line.toString();
            }
            if (line.length() == LONGEST_LINE) {
                throw new IOException("a line between the chunks of the body is too long");
            }
            line.append((char) (one[0] & 0xFF));
        }
    }

    /** Passes over what is there already of the rest; tells whether that was all of it. */
    boolean isOver() {
        progress.stop();
        if (!chunked) {
            byte[] rest = new byte[512];
            while (left > 0 && peer.available() > 0) {
                left -= peer.take(rest, 0, (int) Math.min(rest.length, left));
            }
            ended = left == 0;
        }
        return ended;
    }
}
