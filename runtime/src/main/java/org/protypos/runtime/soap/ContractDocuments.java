package org.protypos.runtime.soap;

import java.util.List;
import java.util.function.UnaryOperator;

/**
 * The documents of a contract as a server shows them. The first is the one to start from; the others are asked for by
 * their number. Where a document gives the address of a port, it is marked with the port type it belongs to, so that the
 * address can be replaced by the one that really answers. The marks are characters that no XML document can hold.
 */
public final class ContractDocuments {
    /** Begins an address: the name of the port type follows, or nothing where any will do. */
    public static final char PORT_TYPE = '\u0001';

    /** Ends the name of the port type: the address in the contract follows. */
    public static final char ADDRESS = '\u0002';

    /** Ends the address in the contract. */
    public static final char END = '\u0003';

    private final List<String[]> documents;

    private ContractDocuments(List<String[]> documents) {
        this.documents = documents;
    }

    /**
     * Takes the documents.
     *
     * @param documents each in pieces, to be joined
     */
    public static ContractDocuments of(String[]... documents) {
        return new ContractDocuments(List.of(documents));
    }

    /**
     * Gives a document.
     *
     * @param query the query of the request: {@code document=} and a number, anything else for the first
     * @param addresses gives the address to show for the ports of a port type, of an empty name for documents; null for one that is
     *     not served, whose address stays
     * @return the text, or null when there is no such document
     */
    String show(String query, UnaryOperator<String> addresses) {
        int number = 0;
        String prefix = "document=";
        if (query != null && query.startsWith(prefix)) {
            try {
                number = Integer.parseInt(query.substring(prefix.length()));
            } catch (NumberFormatException e) {
                return null;
            }
        }
        return number < 0 || number >= documents.size()
                ? null
                : withAddresses(String.join("", documents.get(number)), addresses);
    }

    private static String withAddresses(String text, UnaryOperator<String> addresses) {
        StringBuilder shown = new StringBuilder(text.length());
        int from = 0;
        for (int mark = text.indexOf(PORT_TYPE); mark >= 0; mark = text.indexOf(PORT_TYPE, from)) {
            int name = text.indexOf(ADDRESS, mark);
            int end = text.indexOf(END, name);
            shown.append(text, from, mark);
            String address = addresses.apply(text.substring(mark + 1, name));
            shown.append(address != null ? address : text.substring(name + 1, end));
            from = end + 1;
        }
        return shown.append(text, from, text.length()).toString();
    }
}
