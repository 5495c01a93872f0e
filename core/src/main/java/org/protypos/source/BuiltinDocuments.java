package org.protypos.source;

import java.net.URI;
import java.util.Set;

/** Documents of the standards that every contract may refer to and that need not be fetched: their content is known. */
final class BuiltinDocuments {
    private static final Set<String> KNOWN = Set.of(
            "http://www.w3.org/2001/xml.xsd",
            "https://www.w3.org/2001/xml.xsd",
            "http://www.w3.org/2001/03/xml.xsd",
            "http://www.w3.org/2004/10/xml.xsd",
            "http://www.w3.org/2005/08/xml.xsd",
            "http://www.w3.org/2009/01/xml.xsd",
            "http://www.w3.org/XML/1998/namespace");

    private BuiltinDocuments() {}

    static boolean has(URI location) {
        return KNOWN.contains(location.toString());
    }
}
