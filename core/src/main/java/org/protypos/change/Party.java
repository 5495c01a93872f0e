package org.protypos.change;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/** On which side of a contract somebody stands. */
public enum Party {
    /** Who calls. */
    CLIENT(EnumSet.of(Reader.OLD_CLIENTS, Reader.CLIENT_CODE)),
    /** Who serves. */
    SERVER(EnumSet.of(Reader.OLD_SERVERS, Reader.SERVER_CODE)),
    /** Who does both, or either. */
    BOTH(EnumSet.allOf(Reader.class));

    private final Set<Reader> readers;

    Party(Set<Reader> readers) {
        this.readers = readers;
    }

    /** Whom a difference must break something for to be of interest. */
    public Set<Reader> readers() {
        return readers;
    }

    /** On which side a project stands that produces some things. */
    public static Party of(List<String> produce) {
        boolean client = produce.contains("client");
        boolean server = produce.contains("server");
        return client == server ? BOTH : client ? CLIENT : SERVER;
    }
}
