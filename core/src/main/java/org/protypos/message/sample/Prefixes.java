package org.protypos.message.sample;

import java.util.LinkedHashMap;
import java.util.Map;
import org.protypos.source.Documents;
import org.protypos.source.Xml;

/** The prefixes of one sample: those that the contract itself uses where it can be told. */
final class Prefixes {
    /** What everybody calls the namespaces that the standards fix. */
    private static final Map<String, String> CUSTOMARY = Map.of(
            Xml.XSI,
            "xsi",
            "http://www.w3.org/2001/XMLSchema",
            "xs",
            "http://schemas.xmlsoap.org/soap/envelope/",
            "soap",
            "http://www.w3.org/2003/05/soap-envelope",
            "soap");

    private final Documents documents;
    private final Map<String, String> byNamespace = new LinkedHashMap<>();

    Prefixes(Documents documents) {
        this.documents = documents;
    }

    /** The prefix of a namespace; the empty namespace has none. */
    String of(String namespace) {
        if (namespace.isEmpty() || namespace.equals(Xml.XML)) {
            return namespace.isEmpty() ? "" : "xml";
        }
        String known = byNamespace.get(namespace);
        if (known == null) {
            known = free(namespace);
            byNamespace.put(namespace, known);
        }
        return known;
    }

    /** A name as text that uses its prefix. */
    String name(String namespace, String local) {
        String prefix = of(namespace);
        return prefix.isEmpty() ? local : prefix + ":" + local;
    }

    private String free(String namespace) {
        String customary = CUSTOMARY.get(namespace);
        if (customary != null && !byNamespace.containsValue(customary)) {
            return customary;
        }
        return documents
                .prefixes(namespace)
                .filter(prefix -> !byNamespace.containsValue(prefix))
                .findFirst()
                .orElseGet(this::made);
    }

    private String made() {
        int number = 1;
        while (byNamespace.containsValue("ns" + number)) {
            number++;
        }
        return "ns" + number;
    }

    /** All of them, namespace by prefix. */
    Map<String, String> declarations() {
        Map<String, String> declarations = new LinkedHashMap<>();
        byNamespace.forEach((namespace, prefix) -> declarations.put(prefix, namespace));
        return declarations;
    }
}
