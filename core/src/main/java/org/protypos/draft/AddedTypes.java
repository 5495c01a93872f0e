package org.protypos.draft;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.function.Function;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.authoring.DocumentEdit;
import org.protypos.authoring.DraftParticle;
import org.protypos.authoring.DraftSchema;
import org.protypos.authoring.DraftType;
import org.protypos.authoring.DraftValue;
import org.protypos.authoring.SchemaText;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.NearestName;
import org.protypos.draft.Sketch.SketchOperation;
import org.protypos.schema.BuiltIn;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** The types that the contract has, and where elements are added. */
final class AddedTypes {
    private final Contract contract;
    private final String namespace;
    private final BiConsumer<String, String> wrong;
    private final Function<Element, DocumentEdit> edit;
    private final Set<String> namespaces = new LinkedHashSet<>();

    /**
     * Begins.
     *
     * @param namespace the namespace of the port type
     * @param wrong takes what cannot be, and its cure
     * @param edit gives what changes the document of an element
     */
    AddedTypes(
            Contract contract,
            String namespace,
            BiConsumer<String, String> wrong,
            Function<Element, DocumentEdit> edit) {
        this.contract = contract;
        this.namespace = namespace;
        this.wrong = wrong;
        this.edit = edit;
    }

    String namespace() {
        return namespace;
    }

    /** The namespaces of the types that were spoken of. */
    Set<String> namespaces() {
        return namespaces;
    }

    /** A type of the contract by its local name, or a built-in one. */
    QName named(String name) {
        List<QName> found = contract.schema().types().keySet().stream()
                .filter(type -> type.getLocalPart().equals(name)
                        && !type.getNamespaceURI().equals(Xml.XSD))
                .toList();
        QName own = new QName(namespace, name);
        if (found.contains(own) || found.size() == 1) {
            QName type = found.contains(own) ? own : found.get(0);
            namespaces.add(type.getNamespaceURI());
            return type;
        }
        if (BuiltIn.of(name) == null || found.size() > 1) {
            wrong.accept(
                    found.isEmpty() ? "there is no type " + name : "there are several types " + name,
                    "use a built-in type such as string, or one of the contract's own");
        }
        return new QName(Xml.XSD, name);
    }

    /** A global element of the contract by its local name. */
    QName element(String name) {
        List<QName> found = contract.schema().elements().keySet().stream()
                .filter(element -> element.getLocalPart().equals(name))
                .toList();
        QName own = new QName(namespace, name);
        if (found.isEmpty() || found.size() > 1 && !found.contains(own)) {
            wrong.accept(
                    found.isEmpty() ? "there is no element " + name : "there are several elements " + name,
                    NearestName.of(
                                    name,
                                    contract.schema().elements().keySet().stream()
                                            .map(QName::getLocalPart)
                                            .toList())
                            .filter(near -> found.isEmpty())
                            .map(near -> "perhaps " + near)
                            .orElse("name a global element of the contract"));
            return own;
        }
        return found.contains(own) ? own : found.get(0);
    }

    /** Adds the elements of an operation to the schema of the namespace. */
    void elements(SketchOperation said) {
        Element schema = schema();
        if (schema == null) {
            wrong.accept(
                    "there is no schema of the namespace " + namespace,
                    "add one, with elementFormDefault=\"qualified\", below wsdl:types");
            return;
        }
        wrapper(schema, said.name(), said.in());
        if (said.out() != null) {
            wrapper(schema, said.name() + "Response", said.out());
        }
    }

    private Element schema() {
        return contract.documents().schemas().stream()
                .filter(schema -> isNamed(schema, namespace))
                .findFirst()
                .orElse(null);
    }

    private static boolean isNamed(Element schema, String namespace) {
        String target = schema.attribute("targetNamespace");
        return target != null && namespace.equals(target.strip());
    }

    private static boolean isQualified(Element schema) {
        String form = schema.attribute("elementFormDefault");
        return form != null && form.strip().equals("qualified");
    }

    private void wrapper(Element schema, String name, Sketch.Content content) {
        QName qualified = new QName(namespace, name);
        if (contract.schema().elements().containsKey(qualified)) {
            wrong.accept("there is an element " + name + " already", "call the operation otherwise");
            return;
        }
        boolean form = isQualified(schema);
        Map<String, String> wanted = new LinkedHashMap<>();
        wanted.put(Xml.XSD, "xs");
        List<DraftParticle> particles = new ArrayList<>();
        for (SketchMember member : content.members()) {
            SketchMember.Named named = (SketchMember.Named) member;
            TypeTerm term = named.term();
            QName type = named(term.type());
            List<QName> others = term.others().stream().map(this::named).toList();
            Stream.concat(Stream.of(type), others.stream())
                    .map(QName::getNamespaceURI)
                    .forEach(of -> wanted.putIfAbsent(of, of.equals(namespace) ? "tns" : "n" + wanted.size()));
            BuiltIn builtIn = BuiltIn.of(type.getLocalPart());
            particles.add(new DraftParticle.Element(
                    form ? new QName(namespace, named.name()) : new QName(named.name()),
                    new DraftValue(
                            type,
                            others,
                            term.isList(),
                            term.values(),
                            term.facets(
                                    builtIn != null && type.getNamespaceURI().equals(Xml.XSD) && builtIn.isNumber())),
                    term.least(),
                    term.most(),
                    term.isNillable(),
                    false,
                    term.preset(),
                    null));
        }
        Speech speech = new Speech(schema, wanted);
        String lines = SchemaText.element(
                new DraftSchema(namespace, "", form, List.of(), List.of(), List.of()),
                DraftParticle.Element.inline(
                        qualified,
                        new DraftType.Complex(
                                null,
                                null,
                                false,
                                false,
                                null,
                                particles.isEmpty() ? null : DraftParticle.Group.sequence(particles),
                                false,
                                List.of(),
                                null)),
                speech.prefixes);
        edit.apply(schema).append(schema, speech.said(lines));
    }
}
