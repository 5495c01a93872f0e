package org.protypos.infer;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.authoring.DocumentEdit;
import org.protypos.authoring.DraftParticle;
import org.protypos.authoring.DraftSchema;
import org.protypos.authoring.DraftValue;
import org.protypos.authoring.SchemaText;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.Deviation;
import org.protypos.message.model.TypeModel;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageText;
import org.protypos.schema.BuiltIn;
import org.protypos.source.Document;
import org.protypos.source.Element;
import org.protypos.source.Xml;
import org.protypos.source.XmlText;

/** Finds where in the text of schemas something has to be said otherwise so that a document fits. */
final class SchemaLoosening {
    /** Of an element that is new so many are looked at. */
    private static final int MOST_EXAMPLES = 200;

    /** Envelope, Body, Fault and detail stand around what is new. */
    private static final int MOST_AROUND = 4;

    private static final Set<String> MODELS = Set.of("sequence", "choice", "all");

    private final SchemaFinder finder;
    private final Map<Document, DocumentEdit> edits;
    private final Set<String> done = new HashSet<>();
    private final Map<String, Added> added = new LinkedHashMap<>();

    /** What comes to stand where there were no elements before. */
    private final Map<Element, StringBuilder> inEmpty = new LinkedHashMap<>();

    /** An element that a type has not, with what it was like. */
    private record Added(Element type, MessageElement before, List<String> examples, QName name, boolean[] several) {}

    SchemaLoosening(Contract contract, Map<Document, DocumentEdit> edits) {
        this.finder = new SchemaFinder(contract);
        this.edits = edits;
    }

    private DocumentEdit edit(Element element) {
        return edits.computeIfAbsent(element.document(), DocumentEdit::new);
    }

    /** Says something otherwise, once. */
    private boolean set(Element element, String attribute, String value) {
        if (element == null) {
            return false;
        }
        if (done.add(element.place() + " " + attribute)) {
            edit(element).set(element, attribute, value);
        }
        return true;
    }

    /**
     * Loosens what a document deviates from.
     *
     * @param root the root of the document
     * @return whether that can be
     */
    boolean loosen(Deviation deviation, CheckedMessage checked, MessageElement root) {
        Deviation.Cause cause = deviation.cause();
        if (cause == null) {
            return switch (deviation.code()) {
                case "unexpected-element" -> reordered(deviation, checked);
                case "unexpected-text" -> mixed(finder.at(deviation.contract()));
                case "unknown-element" -> newRoot(deviation, root);
                default -> false;
            };
        }
        return switch (cause.lack()) {
            case MISSING -> set(member(cause, checked, "element"), "minOccurs", "0");
            case REPEATED -> set(member(cause, checked, "element"), "maxOccurs", "unbounded");
            case NIL -> set(finder.at(deviation.contract()), "nillable", "true");
            case MISSING_ATTRIBUTE -> set(member(cause, checked, "attribute"), "use", "optional");
            case UNKNOWN -> unknown(cause, checked);
            case UNKNOWN_ATTRIBUTE -> unknownAttribute(cause, checked);
            case VALUE, ATTRIBUTE_VALUE -> value(deviation, cause, checked);
            case NAMESPACE -> false;
        };
    }

    /** An element that no schema knows becomes a global one of the schema of its namespace. */
    private boolean newRoot(Deviation deviation, MessageElement root) {
        MessageElement came = at(root, deviation.place(), 0);
        if (came == null || finder.global("element", came.name()) != null) {
            return false;
        }
        List<Element> schemas = finder.schemas(came.name().getNamespaceURI());
        if (schemas.isEmpty()) {
            return false;
        }
        example(schemas.get(0), null, came);
        return true;
    }

    /** Keeps what an element is like that a type, or a schema, has not. */
    private Added example(Element type, MessageElement before, MessageElement came) {
        Added one = added.computeIfAbsent(
                type.place() + " " + came.name(),
                none -> new Added(type, before, new ArrayList<>(), came.name(), new boolean[1]));
        if (one.examples().size() < MOST_EXAMPLES) {
            one.examples().add(MessageText.compact(came));
        }
        return one;
    }

    /** The document, or what an envelope carries. */
    private static MessageElement at(MessageElement element, Place place, int depth) {
        if (element.place().equals(place)) {
            return element;
        }
        for (MessageElement child : depth > MOST_AROUND ? List.<MessageElement>of() : element.children()) {
            MessageElement found = at(child, place, depth + 1);
            if (found != null) {
                return found;
            }
        }
        return null;
    }

    private boolean mixed(Element type) {
        return type != null
                && type.is(Xml.XSD, "complexType")
                && type.child(Xml.XSD, "complexContent") == null
                && set(type, "mixed", "true");
    }

    /** The complex type of an element of a document, as a schema writes it. */
    private Element type(MessageElement element, CheckedMessage checked) {
        TypeModel type = element == null ? null : checked.types().get(element);
        return type == null || type.place() == null ? null : finder.at(type.place());
    }

    private Element member(Deviation.Cause cause, CheckedMessage checked, String kind) {
        Element type = type(cause.around(), checked);
        return type == null ? finder.global(kind, cause.name()) : finder.member(type, cause.name(), kind);
    }

    /** What comes in another order may come in any: the sequence that it is in becomes a choice that repeats. */
    private boolean reordered(Deviation deviation, CheckedMessage checked) {
        MessageElement parent = null;
        for (MessageElement element : checked.types().keySet()) {
            for (MessageElement child : element.children()) {
                parent = child.place().equals(deviation.place()) ? element : parent;
            }
        }
        Element type = type(parent, checked);
        Element sequence = type == null ? null : sequence(type);
        if (sequence == null) {
            return false;
        }
        if (done.add(sequence.place() + " order")) {
            edit(sequence).rename(sequence, "choice");
            edit(sequence).set(sequence, "minOccurs", "0");
            edit(sequence).set(sequence, "maxOccurs", "unbounded");
        }
        return true;
    }

    /** The content model of a type, where it is a sequence. */
    private static Element sequence(Element type) {
        for (Element child : type.children()) {
            if (child.is(Xml.XSD, "sequence")) {
                return child;
            }
            if (child.is(Xml.XSD, "complexContent") || child.is(Xml.XSD, "extension")) {
                return sequence(child);
            }
        }
        return null;
    }

    private boolean unknown(Deviation.Cause cause, CheckedMessage checked) {
        Element type = type(cause.around(), checked);
        QName name = cause.came().name();
        if (type == null
                || !type.is(Xml.XSD, "complexType")
                || type.child(Xml.XSD, "simpleContent") != null
                || derivationOrSelf(type).child(Xml.XSD, "group") != null
                || !isOf(type, name)) {
            return false;
        }
        MessageElement before = null;
        int times = 0;
        boolean reached = false;
        for (MessageElement sibling : cause.around().children()) {
            reached |= sibling == cause.came();
            boolean same = sibling.name().equals(name);
            times += same ? 1 : 0;
            before = !reached && !same ? sibling : before;
        }
        example(type, before, cause.came()).several()[0] |= times > 1;
        return true;
    }

    /** Whether a name can be that of a local element of the schema around a type. */
    private static boolean isOf(Element type, QName name) {
        String target = SchemaFinder.target(type.document().root());
        return name.getNamespaceURI().isEmpty() || name.getNamespaceURI().equals(target);
    }

    private boolean unknownAttribute(Deviation.Cause cause, CheckedMessage checked) {
        Element type = type(cause.around(), checked);
        if (type == null
                || !type.is(Xml.XSD, "complexType")
                || !cause.name().getNamespaceURI().isEmpty()) {
            return false;
        }
        if (done.add(type.place() + " @" + cause.name())) {
            ObservedValue value = new ObservedValue();
            value.add(cause.text());
            Element into = type;
            for (Element child = type; child != null; child = derivation(into)) {
                into = child;
            }
            String lines =
                    "<" + tag(type, "attribute") + " name=\"" + cause.name().getLocalPart() + "\" type=\""
                            + tag(type, value.kind().type().local()) + "\"/>\n";
            Element any = into.child(Xml.XSD, "anyAttribute");
            if (any == null) {
                edit(into).append(into, lines);
            } else {
                edit(into).before(any, lines);
            }
        }
        return true;
    }

    private static Element derivation(Element type) {
        for (String inside : List.of("complexContent", "simpleContent", "extension", "restriction")) {
            Element child = type.child(Xml.XSD, inside);
            if (child != null) {
                return child;
            }
        }
        return null;
    }

    /** A name of XML Schema as the document writes it. */
    private static String tag(Element around, String local) {
        String prefix = around.prefixOf(Xml.XSD);
        return prefix == null || prefix.isEmpty() ? local : prefix + ":" + local;
    }

    private boolean value(Deviation deviation, Deviation.Cause cause, CheckedMessage checked) {
        Element told = finder.at(deviation.contract());
        if (told == null) {
            return false;
        }
        String text = cause.text();
        switch (told.name()) {
            case "enumeration", "pattern" -> {
                if (done.add(told.place() + " " + text)) {
                    boolean pattern = told.name().equals("pattern");
                    edit(told)
                            .after(
                                    told,
                                    "<" + tag(told, told.name()) + " value=\""
                                            + XmlText.escaped(pattern ? literal(text) : text.strip(), true)
                                            + "\"/>\n");
                }
                return true;
            }
            case "minLength", "maxLength" -> {
                int length = text.codePointCount(0, text.length());
                return set(told, "value", String.valueOf(length));
            }
            case "minInclusive", "maxInclusive" -> {
                return set(told, "value", text.strip());
            }
            default -> {
                return wider(told, cause, checked);
            }
        }
    }

    private static String literal(String text) {
        return text.strip().replaceAll("[\\\\.?*+{}()\\[\\]|^$-]", "\\\\$0");
    }

    /** A value that the type has no place for: it gets a wider one. */
    private boolean wider(Element told, Deviation.Cause cause, CheckedMessage checked) {
        String kind = cause.lack() == Deviation.Lack.VALUE ? "element" : "attribute";
        Element declared = told.name().equals(kind) ? told : member(cause, checked, kind);
        if (declared == null || declared.attribute("type") == null) {
            return false;
        }
        QName type = declared.resolve(declared.attribute("type").strip());
        Element complex = type == null ? null : finder.global("complexType", type);
        Element content = complex == null ? null : complex.child(Xml.XSD, "simpleContent");
        Element extension = content == null ? null : content.child(Xml.XSD, "extension");
        if (extension != null) {
            return set(extension, "base", wider(extension, extension.attribute("base"), cause.text()));
        }
        return complex == null && set(declared, "type", wider(declared, declared.attribute("type"), cause.text()));
    }

    /** A built-in type that has a place for a value too. */
    private static String wider(Element at, String type, String text) {
        QName named = type == null ? null : at.resolve(type.strip());
        BuiltIn old =
                named == null || !named.getNamespaceURI().equals(Xml.XSD) ? null : BuiltIn.of(named.getLocalPart());
        ObservedValue value = new ObservedValue();
        value.add(text);
        ValueKind kind = value.kind();
        if (old == null || !old.isNumber() || !kind.isNumber()) {
            return tag(at, "string");
        }
        String wider = old.isWhole() && kind.type().isWhole()
                ? "integer"
                : kind == ValueKind.DOUBLE || old == BuiltIn.FLOAT || old == BuiltIn.DOUBLE ? "double" : "decimal";
        return tag(at, wider.equals(old.local()) ? "string" : wider);
    }

    /** Adds the elements that types have not: after all documents were seen, so that each is of a type that fits all. */
    void finish() {
        added.values().forEach(this::add);
        inEmpty.forEach((into, lines) -> {
            String sequence = tag(into, "sequence");
            String whole = "<" + sequence + ">\n  "
                    + lines.toString().replace("\n", "\n  ").stripTrailing() + "\n</" + sequence + ">\n";
            Element first = into.children().stream()
                    .filter(child -> !child.is(Xml.XSD, "annotation"))
                    .findFirst()
                    .orElse(null);
            if (first == null) {
                edit(into).append(into, whole);
            } else {
                edit(first).before(first, whole);
            }
        });
    }

    private void add(Added one) {
        Findings none = new Findings();
        Inference inference = new Inference(Decisions.none(none), none);
        one.examples()
                .forEach(example ->
                        inference.read("example", new ByteArrayInputStream(example.getBytes(StandardCharsets.UTF_8))));
        Inferred inferred = inference.inferred();
        Element schema = one.type().document().root();
        boolean qualified = "qualified".equals(schema.attribute("elementFormDefault"));
        Map<String, String> prefixes = new LinkedHashMap<>();
        prefixes.put(Xml.XSD, String.valueOf(schema.prefixOf(Xml.XSD)).replace("null", ""));
        prefixes.put(SchemaFinder.target(schema), "");
        DraftParticle.Element element = element(inferred, one);
        String lines = SchemaText.local(
                new DraftSchema(SchemaFinder.target(schema), "", qualified, List.of(), List.of(), List.of()),
                element,
                prefixes);
        if (one.type().is(Xml.XSD, "schema")) {
            DraftSchema own =
                    new DraftSchema(SchemaFinder.target(schema), "", qualified, List.of(), List.of(), List.of());
            DraftParticle.Element alone = new DraftParticle.Element(
                    element.name(), element.value(), 1, 1, element.isNillable(), false, null, null, element.inline());
            edit(schema).append(schema, SchemaText.element(own, alone, prefixes));
            return;
        }
        Element before = one.before() == null
                ? null
                : finder.member(one.type(), one.before().name(), "element");
        if (before != null && before.document() == one.type().document()) {
            edit(before).after(before, lines);
            return;
        }
        Element model = model(one.type());
        if (model == null) {
            Element into = derivationOrSelf(one.type());
            inEmpty.computeIfAbsent(into, nothing -> new StringBuilder()).append(lines);
        } else {
            edit(model).append(model, lines);
        }
    }

    private static Element derivationOrSelf(Element type) {
        Element content = type.child(Xml.XSD, "complexContent");
        Element derivation = content == null ? null : derivation(content);
        return derivation == null ? type : derivation;
    }

    private static Element model(Element type) {
        Element around = derivationOrSelf(type);
        return around.children().stream()
                .filter(child -> child.namespace().equals(Xml.XSD) && MODELS.contains(child.name()))
                .findFirst()
                .orElse(null);
    }

    private static DraftParticle.Element element(Inferred inferred, Added one) {
        int most = one.several()[0] ? DraftParticle.UNBOUNDED : 1;
        if (inferred.schemas().size() == 1) {
            DraftSchema schema = inferred.schemas().get(0);
            DraftParticle.Element global = schema.elements().get(0);
            DraftParticle.Element made = InlineTypes.of(schema, global);
            if (made != null) {
                return new DraftParticle.Element(
                        one.name(), made.value(), 0, most, global.isNillable(), false, null, null, made.inline());
            }
        }
        return new DraftParticle.Element(
                one.name(), DraftValue.of(new QName(Xml.XSD, "anyType")), 0, most, false, false, null, null);
    }
}
