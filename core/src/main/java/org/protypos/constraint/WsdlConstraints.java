package org.protypos.constraint;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Printable;
import org.protypos.source.Documents;
import org.protypos.source.Element;
import org.protypos.source.Names;
import org.protypos.source.Xml;

/**
 * Whether WSDL documents say what they say as the standard has it (WSDL 1.1, appendix A.4, and the SOAP 1.2 binding for it):
 * attributes that there are, words that they may hold, what may be there once, extensions that must be understood.
 */
final class WsdlConstraints {
    private static final Set<String> USES = Set.of("literal", "encoded");
    private static final Set<String> STYLES = Set.of("document", "rpc");
    private static final Set<String> VERBS = Set.of("GET", "POST");

    /** Namespaces of extensions that are read, or say nothing that a caller has to know. */
    private static final Set<String> KNOWN = Stream.of(
                    List.of(Xml.WSDL_SOAP11, Xml.WSDL_SOAP12, Xml.WSDL_HTTP, Xml.WSDL_MIME, Xml.XSD),
                    Xml.POLICY,
                    Xml.ADDRESSING_METADATA,
                    Xml.XML_BINDING,
                    Xml.WEB_SERVICE_BINDING)
            .flatMap(List::stream)
            .collect(Collectors.toUnmodifiableSet());

    /** The prefixes that the standard writes for them. */
    private static final Map<String, String> PREFIXES = Map.of(
            Xml.WSDL_SOAP11, "soap:", Xml.WSDL_SOAP12, "soap12:", Xml.WSDL_HTTP, "http:", Xml.WSDL_MIME, "mime:");

    private static final Map<String, Form> WSDL = new HashMap<>();
    private static final Map<String, Map<String, String>> EXTENSIONS = new HashMap<>();

    /**
     * What may be in an element of WSDL.
     *
     * @param once those of its children that may be there once
     * @param many those that may be there several times
     */
    private record Form(Set<String> attributes, Set<String> once, Set<String> many) {}

    static {
        form("definitions", "name targetNamespace", "types", "import message portType binding service");
        form("import", "namespace location", "", "");
        form("types", "", "", "");
        form("message", "name", "", "part");
        form("part", "name element type", "", "");
        form("portType", "name", "", "operation");
        form("operation", "name parameterOrder", "input output", "fault");
        form("input", "name message", "", "");
        form("output", "name message", "", "");
        form("fault", "name message", "", "");
        form("binding", "name type", "", "operation");
        form("service", "name", "", "port");
        form("port", "name binding", "", "");
        for (String soap : List.of(Xml.WSDL_SOAP11, Xml.WSDL_SOAP12)) {
            boolean later = soap.equals(Xml.WSDL_SOAP12);
            EXTENSIONS.put(
                    soap,
                    Map.of(
                            "binding", "transport style",
                            "operation", "soapAction style" + (later ? " soapActionRequired" : ""),
                            "body", "parts use encodingStyle namespace",
                            "header", "message part use encodingStyle namespace",
                            "headerfault", "message part use encodingStyle namespace",
                            "fault", "name use encodingStyle namespace",
                            "address", "location"));
        }
        EXTENSIONS.put(
                Xml.WSDL_HTTP,
                Map.of(
                        "binding", "verb",
                        "operation", "location",
                        "address", "location",
                        "urlEncoded", "",
                        "urlReplacement", ""));
        EXTENSIONS.put(
                Xml.WSDL_MIME,
                Map.of("content", "part type", "multipartRelated", "", "part", "name", "mimeXml", "part"));
    }

    private final Findings findings;

    private WsdlConstraints(Findings findings) {
        this.findings = findings;
    }

    private static void form(String name, String attributes, String once, String many) {
        WSDL.put(name, new Form(words(attributes), words(once + " documentation"), words(many)));
    }

    private static Set<String> words(String text) {
        Set<String> words = new HashSet<>(List.of(text.strip().split(" +")));
        words.remove("");
        return words;
    }

    static void check(Documents documents, Findings findings) {
        documents.definitions().forEach(new WsdlConstraints(findings)::check);
    }

    private void check(Element element) {
        if (element.namespace().equals(Xml.WSDL)) {
            Form form = WSDL.get(element.name());
            if (form == null) {
                return;
            }
            attributes(element, form.attributes(), "wsdl:");
            Told.strayText(findings, element, "wsdl:");
            children(element, form);
            if (!element.name().equals("part")) {
                // Parts of MIME packages are called like files; nothing else goes by their names.
                Names.check(element, false, findings);
            }
        } else {
            extension(element);
        }
        if (!element.namespace().equals(Xml.XSD)) {
            element.children().forEach(this::check);
        }
    }

    private void attributes(Element element, Set<String> known, String prefix) {
        for (String attribute : element.attributeNames()) {
            if (!known.contains(attribute)) {
                findings.warning(
                        "unknown-attribute",
                        element.place(attribute),
                        prefix + element.name() + " has no attribute " + attribute,
                        NearestName.cure(attribute, known, "leave it out"));
            }
        }
    }

    private void children(Element element, Form form) {
        Set<String> there = new HashSet<>();
        Map<String, Element> named = new HashMap<>();
        for (Element child : element.children()) {
            if (!child.namespace().equals(Xml.WSDL)) {
                continue;
            }
            String name = child.name();
            boolean known = form.once().contains(name) || form.many().contains(name);
            if (!known && !element.name().equals("definitions")) {
                findings.warning(
                        "misplaced-element",
                        child.place(),
                        "wsdl:" + name + " says nothing inside wsdl:" + element.name(),
                        NearestName.of(name, form.many().isEmpty() ? form.once() : form.many())
                                .map(near -> "did you mean wsdl:" + near + "?")
                                .orElse("leave it out"));
            } else if (form.once().contains(name) && !name.equals("types") && !there.add(name)) {
                findings.warning(
                        "misplaced-element",
                        child.place(),
                        "there is another wsdl:" + name + " in this wsdl:" + element.name(),
                        "leave one of them out: one is not read");
            }
            boolean unique = Set.of("part", "port", "fault").contains(name);
            Element other = unique ? named.putIfAbsent(name + " " + child.attribute("name"), child) : null;
            if (other != null && child.attribute("name") != null) {
                findings.warning(
                        "declared-twice",
                        child.place("name"),
                        "there is another wsdl:" + name + " called " + Printable.of(child.attribute("name"))
                                + Told.at(other.place(), child.place()),
                        "give each a name of its own");
            }
        }
    }

    private void extension(Element element) {
        Map<String, String> elements = EXTENSIONS.get(element.namespace());
        if (elements != null && elements.containsKey(element.name())) {
            attributes(element, words(elements.get(element.name())), PREFIXES.get(element.namespace()));
            word(element, "use", USES);
            word(element, "style", STYLES);
            word(element, "verb", VERBS);
            if (element.name().equals("address")) {
                address(element);
            }
        } else if (elements != null) {
            findings.warning(
                    "misplaced-element",
                    element.place(),
                    "<" + element.name() + "> is nothing that WSDL knows in the namespace " + element.namespace(),
                    NearestName.cure(element.name(), elements.keySet(), "leave it out"));
        } else if (isRequired(element) && !KNOWN.contains(element.namespace())) {
            findings.warning(
                    "extension-required",
                    element.place(),
                    "<" + element.name() + "> of the namespace " + element.namespace()
                            + " must be understood by who uses the contract, and is not",
                    "ask what it demands of callers: nothing of that is in the code");
        }
    }

    private static boolean isRequired(Element element) {
        String required = element.attribute(Xml.WSDL, "required");
        return required != null && Set.of("true", "1").contains(required.strip());
    }

    private void word(Element element, String attribute, Set<String> allowed) {
        String value = element.attribute(attribute);
        if (value != null && !allowed.contains(value.strip())) {
            Told.noWord(findings, element, attribute, allowed);
        }
    }

    private void address(Element element) {
        String location = element.attribute("location");
        if (location == null || location.isBlank()) {
            return;
        }
        String wrong = null;
        try {
            URI address = new URI(location.strip());
            boolean http =
                    "http".equalsIgnoreCase(address.getScheme()) || "https".equalsIgnoreCase(address.getScheme());
            if (!address.isAbsolute()) {
                wrong = "is relative to nothing";
            } else if (http && address.getHost() == null) {
                wrong = "names no host";
            }
        } catch (URISyntaxException e) {
            wrong = "is none";
        }
        if (wrong != null) {
            findings.warning(
                    "address",
                    element.place("location"),
                    "the address \"" + Printable.of(location) + "\" " + wrong,
                    "write where the service is, or set an address when you connect");
        }
    }
}
