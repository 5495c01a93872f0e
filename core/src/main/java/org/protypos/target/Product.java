package org.protypos.target;

/** What can be produced of a contract. */
public enum Product {
    /** The types of the schemas. */
    TYPES("types"),
    /** What a client needs. */
    CLIENT("a client"),
    /** What a server needs. */
    SERVER("a server"),
    /** What runs a server's endpoints in a servlet container; of targets that know such containers. */
    SERVLET("code for servlet containers"),
    /** Source in free form; of targets whose source has columns. */
    FREE_FORM("source in free form"),
    /** Everything compiled and packed; of targets that know such archives. */
    ARCHIVE("archive of compiled code");

    private final String words;

    Product(String words) {
        this.words = words;
    }

    /** Whether it is asked for when nobody says what to produce. */
    public boolean isAskedByCustom() {
        return this == TYPES || this == CLIENT || this == SERVER;
    }

    /** How people speak of it. */
    public String words() {
        return words;
    }
}
