package org.protypos.contract;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.source.Document;
import org.protypos.source.Element;
import org.protypos.source.Xml;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.Protocol;
import org.protypos.wsdl.Service;

/**
 * The documents of a contract as a server publishes them: unchanged, but that references between them lead to the server
 * itself and that the address of each port is marked, so that it can be replaced by the one that really answers.
 */
public final class Publication {
    private static final char PORT_TYPE = '\u0001';
    private static final char ADDRESS = '\u0002';
    private static final char END = '\u0003';
    private static final Pattern ENCODING = Pattern.compile("^(<\\?xml[^>]*?encoding\\s*=\\s*[\"'])[^\"']*");

    private final Contract contract;
    private final boolean byPort;
    private final Map<Document, Integer> numbers = new IdentityHashMap<>();

    private Publication(Contract contract, boolean byPort) {
        this.contract = contract;
        this.byPort = byPort;
        for (Document document : contract.documents().all()) {
            numbers.put(document, numbers.size());
        }
    }

    /**
     * Prepares the documents.
     *
     * @return their texts, the one to start from first; an address stands between U+0002 and U+0003, before it behind
     *     U+0001 the name of the port type as {@code {namespace}local}, with " HTTP" for a port that speaks HTTP alone, or
     *     nothing where any port's will do
     */
    public static List<String> of(Contract contract) {
        return new Publication(contract, false).texts();
    }

    /** Prepares them likewise for a server that serves each port by itself: before an address stands what {@link #mark} gives. */
    public static List<String> byPort(Contract contract) {
        return new Publication(contract, true).texts();
    }

    /** What marks the address of a port where each is served by itself. */
    public static String mark(Service.Port port) {
        return mark(port.name(), port.place());
    }

    private static String mark(String name, Place place) {
        return name + " at " + place;
    }

    private List<String> texts() {
        List<String> texts = new ArrayList<>();
        for (Document document : contract.documents().all()) {
            texts.add(text(document));
        }
        return texts;
    }

    private String text(Document document) {
        Map<Integer, Replacement> replacements = new TreeMap<>();
        collect(document.root(), replacements);
        String source = document.text().text();
        StringBuilder text = new StringBuilder(source.length() + 256);
        int from = 0;
        for (Map.Entry<Integer, Replacement> entry : replacements.entrySet()) {
            text.append(source, from, entry.getKey()).append(entry.getValue().text());
            from = entry.getValue().end();
        }
        text.append(source, from, source.length());
        Matcher declared = ENCODING.matcher(source);
        if (declared.find()) {
            text.replace(declared.end(1), declared.end(), "UTF-8");
        }
        return text.toString();
    }

    /** A stretch of text to be replaced: where it ends, and by what. */
    private record Replacement(int end, String text) {}

    private void collect(Element element, Map<Integer, Replacement> replacements) {
        Document target = contract.documents().links().get(element);
        if (target != null) {
            String attribute = element.namespace().equals(Xml.WSDL) ? "location" : "schemaLocation";
            replace(
                    element,
                    attribute,
                    PORT_TYPE + "" + ADDRESS + END + "?document=" + numbers.get(target),
                    replacements);
        }
        if (element.is(Xml.WSDL, "port")) {
            address(element, replacements);
        }
        element.children().forEach(child -> collect(child, replacements));
    }

    private void address(Element port, Map<Integer, Replacement> replacements) {
        QName name = port.attribute("binding") == null
                ? null
                : port.resolve(port.attribute("binding").strip());
        Binding binding = name == null ? null : contract.wsdl().bindings().get(name);
        if (binding == null || binding.protocol() == Protocol.OTHER) {
            return;
        }
        for (Element child : port.children()) {
            String location = child.attribute("location");
            if (child.name().equals("address") && location != null) {
                replace(
                        child,
                        "location",
                        PORT_TYPE
                                + (byPort
                                        ? mark(port.attribute("name"), port.place())
                                        : binding.portType()
                                                + (binding.protocol().isSoap() ? "" : " HTTP"))
                                + ADDRESS
                                + escaped(location)
                                + END,
                        replacements);
            }
        }
    }

    private static String escaped(String value) {
        return value.replace("&", "&amp;").replace("<", "&lt;").replace("\"", "&quot;");
    }

    private static void replace(
            Element element, String attribute, String value, Map<Integer, Replacement> replacements) {
        Place tag = element.place();
        String source = tag.source().text();
        int end = source.indexOf('>', tag.offset());
        Matcher matcher = Pattern.compile("\\s" + attribute + "\\s*=\\s*(\"[^\"]*\"|'[^']*')")
                .matcher(source);
        matcher.region(tag.offset(), Math.max(end, tag.offset()));
        if (matcher.find()) {
            replacements.put(matcher.start(1), new Replacement(matcher.end(1), "\"" + value + "\""));
        }
    }
}
