package org.protypos.source;

import java.net.URI;
import org.protypos.diagnostic.SourceText;

/** One document of a contract: where it came from, what it holds. */
public final class Document {
    private final URI location;
    private final String name;
    private final byte[] bytes;
    private final SourceText text;
    private Element root;
    private boolean bound;

    Document(URI location, String name, byte[] bytes, SourceText text) {
        this.location = location;
        this.name = name;
        this.bytes = bytes;
        this.text = text;
    }

    void setRoot(Element element) {
        root = element;
    }

    void setBound() {
        bound = true;
    }

    /** Whether it declares a namespace of binding declarations anywhere, and so may hold some. */
    public boolean isBound() {
        return bound;
    }

    /** The absolute address it was read from. */
    public URI location() {
        return location;
    }

    /** Its name within the contract: relative to the folder of the first entry document where that is possible. */
    public String name() {
        return name;
    }

    /** Its text. */
    public SourceText text() {
        return text;
    }

    /** Its root element, or null when it is not well-formed. */
    public Element root() {
        return root;
    }

    /** Its bytes, as they were read. */
    public byte[] bytes() {
        return bytes.clone();
    }

    /** Its size in bytes. */
    public int size() {
        return bytes.length;
    }

    /** The SHA-256 hash of its bytes, in hexadecimal. */
    public String hash() {
        return FileHash.of(bytes);
    }
}
