package org.protypos.runtime.http;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.SelectionKey;
import java.nio.channels.SocketChannel;
import java.util.Arrays;

/** A connection: what came over it and has not been taken, and how far the request is that is coming in. */
final class Peer {
    private static final int FIRST_SIZE = 2 * 1024;
    private static final int BODY_SIZE = 32 * 1024;
    private static final int PIECE = 64 * 1024;

    private final SocketChannel channel;

    /** When it was last heard of, or began to wait. */
    long since;

    /** The head of the request that is coming in, null while that is not there. */
    RequestHead head;

    /** Whether nothing that comes is of interest any more. */
    boolean leaving;

    /** How it is watched while no thread is at work for it. */
    SelectionKey key;

    private byte[] bytes = new byte[FIRST_SIZE];
    private int from;
    private int to;
    private int looked;

    Peer(SocketChannel channel) {
        this.channel = channel;
    }

    SocketChannel channel() {
        return channel;
    }

    /** How much memory it takes. */
    int size() {
        return bytes.length;
    }

    /** How many bytes came and have not been taken. */
    int available() {
        return to - from;
    }

    /** Whether nothing of a next request has come. */
    boolean isSilent() {
        return head == null && available() == 0;
    }

    /** Takes what comes next from the connection; gives how much, or -1 when it ends. */
    int fill() throws IOException {
        if (from == to) {
            from = 0;
            to = 0;
            looked = 0;
            if (head != null && bytes.length < BODY_SIZE) {
                bytes = new byte[BODY_SIZE];
            }
        }
        if (to == bytes.length && from > 0) {
            compact();
        } else if (to == bytes.length) {
            bytes = Arrays.copyOf(bytes, bytes.length * 2);
        }
        int read = channel.read(ByteBuffer.wrap(bytes, to, Math.min(PIECE, bytes.length - to)));
        to += Math.max(0, read);
        return read;
    }

    private void compact() {
        System.arraycopy(bytes, from, bytes, 0, to - from);
        looked -= from;
        to -= from;
        from = 0;
    }

    /** Takes bytes that came; gives how many. */
    int take(byte[] into, int offset, int length) {
        int count = Math.min(length, to - from);
        System.arraycopy(bytes, from, into, offset, count);
        from += count;
        return count;
    }

    /** Forgets what came. */
    void forget() {
        from = to;
    }

    /** Gets ready for the next request. */
    void begin() {
        head = null;
        compact();
        looked = 0;
        if (to == 0 && bytes.length >= BODY_SIZE) {
            bytes = new byte[FIRST_SIZE];
        }
    }

    /** Reads the head when all of it is there. */
    void readHead() throws RequestHead.BadHeadException {
        // An empty line before a request is passed over (RFC 9112, section 2.2).
        while (from < to && (bytes[from] == '\r' || bytes[from] == '\n')) {
            from++;
        }
        if (from > 0) {
            compact();
            looked = 0;
        }
        int end = RequestHead.end(bytes, looked, to);
        looked = Math.max(0, to - 2);
        if (end >= 0) {
            head = RequestHead.read(bytes, end);
            from = end;
        }
    }

    /** Sends bytes, as many as the connection takes at once; when it blocks, all of them. */
    void send(byte[] content, int offset, int length) throws IOException {
        int sent = offset;
        while (sent < offset + length) {
            ByteBuffer piece = ByteBuffer.wrap(content, sent, Math.min(PIECE, offset + length - sent));
            int count = channel.write(piece);
            if (count == 0 && !channel.isBlocking()) {
                return;
            }
            sent += count;
        }
    }

    void close() {
        try {
            channel.close();
        } catch (IOException e) {
            // It is gone one way or the other.
            leaving = true;
        }
    }
}
