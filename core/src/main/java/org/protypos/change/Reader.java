package org.protypos.change;

/** For whom a difference can break something. */
public enum Reader {
    /** Clients of the old contract that meet a server of the new one. */
    OLD_CLIENTS("existing clients", "existing clients, on the wire"),
    /** Servers of the old contract that meet a client of the new one. */
    OLD_SERVERS("existing servers", "existing servers, on the wire"),
    /** Code written against the client that was generated from the old contract. */
    CLIENT_CODE("client code", "code that calls the generated client"),
    /** Code written against the server that was generated from the old contract. */
    SERVER_CODE("server code", "code that implements the generated server");

    private final String brief;
    private final String text;

    Reader(String brief, String text) {
        this.brief = brief;
        this.text = text;
    }

    /** Whether it is somebody at the other end of a message, rather than who writes code. */
    public boolean isOnTheWire() {
        return this == OLD_CLIENTS || this == OLD_SERVERS;
    }

    /** Who it is, in a word or two. */
    public String brief() {
        return brief;
    }

    /** Who it is, for a person. */
    public String text() {
        return text;
    }
}
