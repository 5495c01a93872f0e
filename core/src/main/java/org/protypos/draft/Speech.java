package org.protypos.draft;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.source.Element;
import org.protypos.source.Xml;
import org.protypos.source.XmlText;

/** How a document speaks of things at some place; what it has no prefix for is declared with what is added. */
final class Speech {
    private static final Pattern FIRST_TAG = Pattern.compile("^<[^\\s/>]+");

    /** They are spoken of by tags that nobody writes without a prefix. */
    private static final Set<String> EXTENSIONS = Set.of(Xml.WSDL_SOAP11, Xml.WSDL_SOAP12);

    final Map<String, String> prefixes = new HashMap<>();
    final Map<String, String> declarations = new LinkedHashMap<>();
    final String wsdl;

    Speech(Element around, Map<String, String> wanted) {
        String own = around.prefixOf(Xml.WSDL);
        wsdl = own == null ? "" : own;
        wanted.forEach((namespace, prefix) -> {
            String known = around.prefixOf(namespace);
            if (known == null || known.isEmpty() && EXTENSIONS.contains(namespace)) {
                prefixes.put(namespace, prefix);
                declarations.put(prefix, namespace);
            } else {
                prefixes.put(namespace, known);
            }
        });
    }

    WsdlParts.Prefixes all() {
        return new WsdlParts.Prefixes(wsdl, prefixes);
    }

    /** Lines of which the first tag declares what the place around has not. */
    String said(String lines) {
        StringBuilder said = new StringBuilder();
        declarations.forEach((prefix, namespace) -> said.append(" xmlns:")
                .append(prefix)
                .append("=\"")
                .append(XmlText.escaped(namespace, true))
                .append('"'));
        Matcher first = FIRST_TAG.matcher(lines);
        return first.find() ? first.group() + said + lines.substring(first.end()) : lines;
    }
}
