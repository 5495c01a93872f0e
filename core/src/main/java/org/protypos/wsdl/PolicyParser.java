package org.protypos.wsdl;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.source.Documents;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Reads the policies that are attached to components (Web Services Policy 1.5 Attachment, section 4). */
final class PolicyParser {
    /** Policies that refer to each other could multiply without end. */
    private static final int MOST_STEPS = 20_000;

    private static final String UTILITY =
            "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-utility-1.0.xsd";

    private final Documents documents;
    private final Findings findings;
    private Map<String, Element> named;
    private int left;

    PolicyParser(Documents documents, Findings findings) {
        this.documents = documents;
        this.findings = findings;
    }

    private static boolean isPolicy(Element element, String name) {
        return element.name().equals(name) && Xml.POLICY.contains(element.namespace());
    }

    /** What the policies attached to a component ask for; for an operation of a binding those of its messages too. */
    List<PolicyAssertion> of(Element component) {
        left = MOST_STEPS;
        List<PolicyAssertion> assertions = new ArrayList<>();
        attached(component, assertions, new HashSet<>());
        for (String message : List.of("input", "output", "fault")) {
            component.children(Xml.WSDL, message).forEach(child -> attached(child, assertions, new HashSet<>()));
        }
        return PolicyAssertion.joined(List.of(), assertions);
    }

    private void attached(Element component, List<PolicyAssertion> to, Set<Element> within) {
        for (String namespace : Xml.POLICY) {
            String uris = component.attribute(namespace, "PolicyURIs");
            if (uris != null && !uris.isBlank()) {
                for (String uri : uris.strip().split("\\s+")) {
                    follow(component, uri, false, to, within);
                }
            }
        }
        for (Element child : component.children()) {
            if (isPolicy(child, "Policy") || isPolicy(child, "PolicyReference")) {
                read(child, false, to, within);
            } else if (child.is(Xml.ADDRESSING_DRAFT, "UsingAddressing")) {
                boolean optional = !"true".equals(child.attribute(Xml.WSDL, "required"));
                to.add(assertion(child, optional, within));
            }
        }
    }

    private void read(Element element, boolean optional, List<PolicyAssertion> to, Set<Element> within) {
        if (--left < 0) {
            return;
        }
        if (isPolicy(element, "PolicyReference")) {
            follow(element, String.valueOf(element.attribute("URI")).strip(), optional, to, within);
        } else if (isPolicy(element, "ExactlyOne")) {
            boolean choice = element.children().size() > 1;
            element.children().forEach(child -> read(child, optional || choice, to, within));
        } else if (isPolicy(element, "Policy") || isPolicy(element, "All")) {
            if (within.add(element)) {
                element.children().forEach(child -> read(child, optional, to, within));
                within.remove(element);
            }
        } else {
            to.add(assertion(element, optional || isOptional(element), within));
        }
    }

    private static boolean isOptional(Element assertion) {
        return Xml.POLICY.stream()
                .map(namespace -> assertion.attribute(namespace, "Optional"))
                .anyMatch(flag -> "true".equals(flag) || "1".equals(flag));
    }

    private PolicyAssertion assertion(Element element, boolean optional, Set<Element> within) {
        List<PolicyAssertion> nested = new ArrayList<>();
        element.children().forEach(child -> read(child, false, nested, within));
        String detail = element.attribute("Name") == null ? "" : element.attribute("Name");
        return new PolicyAssertion(
                new QName(element.namespace(), element.name()), optional, List.copyOf(nested), detail, element.place());
    }

    private void follow(Element from, String uri, boolean optional, List<PolicyAssertion> to, Set<Element> within) {
        Element policy = named().get(uri.startsWith("#") ? from.document().name() + uri : uri);
        if (policy == null) {
            policy = named().get(uri);
        }
        if (policy == null) {
            findings.warning(
                    "policy-unresolved",
                    isPolicy(from, "PolicyReference") ? from.place("URI") : from.place(),
                    "no policy of the contract is called \"" + uri + "\": what it asks for is not known",
                    "add the policy to the contract, or correct the reference");
            return;
        }
        read(policy, optional, to, within);
    }

    /** The policies by what references call them: document and identifier, identifier alone, name. */
    private Map<String, Element> named() {
        if (named == null) {
            named = new LinkedHashMap<>();
            documents.definitions().forEach(this::collect);
        }
        return named;
    }

    private void collect(Element element) {
        if (isPolicy(element, "Policy")) {
            String id = element.attribute(UTILITY, "Id");
            id = id == null ? element.attribute(Xml.XML, "id") : id;
            if (id != null) {
                named.putIfAbsent(element.document().name() + "#" + id.strip(), element);
                named.putIfAbsent("#" + id.strip(), element);
            }
            if (element.attribute("Name") != null) {
                named.putIfAbsent(element.attribute("Name").strip(), element);
            }
        }
        for (Element child : element.children()) {
            if (!child.is(Xml.WSDL, "types")) {
                collect(child);
            }
        }
    }
}
