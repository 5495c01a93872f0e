package org.protypos.change;

import java.util.EnumSet;
import java.util.Set;

/**
 * Says for whom a difference of services, ports and operations breaks something on the wire. What a difference of types does is decided
 * by the messages that they allow.
 */
final class Verdict {
    private static final Set<Reader> NOBODY = Set.of();
    private static final Set<Reader> BOTH = EnumSet.of(Reader.OLD_CLIENTS, Reader.OLD_SERVERS);

    private Verdict() {}

    /** Of a component that came or went. */
    static Set<Reader> presence(Item item, boolean added) {
        return switch (item.kind()) {
            case OPERATION, PORT -> added ? NOBODY : EnumSet.of(Reader.OLD_CLIENTS);
            case HEADER -> header(item, added);
            case MESSAGE -> BOTH;
            default -> NOBODY;
        };
    }

    /** A header block in a request is demanded by the server that knows it; one in an answer is passed over by who does not. */
    private static Set<Reader> header(Item item, boolean added) {
        if (!item.designator().contains(" input ")) {
            return NOBODY;
        }
        return EnumSet.of(added ? Reader.OLD_CLIENTS : Reader.OLD_SERVERS);
    }

    /**
     * Of a component that is described otherwise.
     *
     * @param old what was said of it, or null
     * @param now what is said of it, or null
     */
    static Set<Reader> change(Item item, String fact, String old, String now) {
        if (fact.equals("documentation") || fact.equals("parameter order") || fact.startsWith("optional policy")) {
            return NOBODY;
        }
        if (fact.startsWith("policy") && fact.contains("Addressing")) {
            return old != null && now != null
                    ? BOTH
                    : EnumSet.of(old == null ? Reader.OLD_CLIENTS : Reader.OLD_SERVERS);
        }
        return switch (item.kind()) {
            case PORT -> fact.equals("address") ? EnumSet.of(Reader.OLD_CLIENTS) : BOTH;
            case OPERATION, FAULT -> BOTH;
            case MESSAGE -> fact.startsWith("type of part") ? NOBODY : BOTH;
            case HEADER -> header(item, now == null);
            default -> NOBODY;
        };
    }

    /** Why no one message shows what a difference breaks. */
    static String reason(Item item, String fact, boolean gone) {
        return switch (item.kind()) {
            case PORT ->
                gone || fact.equals("address")
                        ? "nobody may answer there any more"
                        : "messages travel otherwise: " + fact;
            case OPERATION ->
                gone ? "there is no such operation any more" : "the operation is known by another " + fact;
            case MESSAGE -> "other messages are sent: " + (fact.isEmpty() ? "the message itself" : fact);
            case HEADER -> "a header block is expected that does not come, or comes that is not known";
            default -> "it is not a matter of what a message holds";
        };
    }
}
