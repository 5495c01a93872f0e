package org.protypos.infer.loosen;

import java.io.ByteArrayInputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.authoring.DraftParticle;
import org.protypos.authoring.DraftSchema;
import org.protypos.authoring.DraftValue;
import org.protypos.authoring.Markup;
import org.protypos.authoring.SchemaText;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.infer.Decisions;
import org.protypos.infer.Inference;
import org.protypos.infer.Inferred;
import org.protypos.infer.InlineTypes;
import org.protypos.infer.ValueKind;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.ToldLength;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageText;
import org.protypos.schema.BuiltIn;
import org.protypos.schema.facet.FacetKind;
import org.protypos.schema.facet.FacetStep;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Finds where in the text of schemas something has to be said otherwise so that a document fits. */
final class SchemaLoosening {
    /** Of an element that is new so many are looked at. */
    private static final int MOST_EXAMPLES = 200;

    /** Envelope, Body, Fault and detail stand around what is new. */
    private static final int MOST_AROUND = 4;

    private static final Set<FacetKind> LENGTHS = Set.of(FacetKind.LENGTH, FacetKind.MIN_LENGTH, FacetKind.MAX_LENGTH);

    private static final String VALUE = "value";
    private static final Set<String> MODELS = Set.of("sequence", "choice", "all");
    private static final Set<String> PARTICLES = Set.of("element", "sequence", "choice", "all", "group", "any");

    private final SchemaFinder finder;
    private final SchemaEdits edits;
    private final SchemaReferences references;
    private final AttributeLoosening attributes;
    private final TypeLoosening types;
    private final Map<String, Added> added = new LinkedHashMap<>();

    /** What comes to stand where there were no elements before. */
    private final Map<Element, StringBuilder> inEmpty = new LinkedHashMap<>();

    /** An element that a type has not, with what it was like. */
    private record Added(Element type, Element before, List<String> examples, QName name, boolean[] several) {}

    SchemaLoosening(Contract contract, SchemaEdits edits) {
        this.finder = new SchemaFinder(contract);
        this.edits = edits;
        this.references = new SchemaReferences(finder, edits);
        this.attributes = new AttributeLoosening(finder, edits, references);
        this.types = new TypeLoosening(finder, edits, references);
    }

    /**
     * Loosens what a document deviates from.
     *
     * @param root the root of the document
     * @return whether that can be
     */
    boolean loosen(Deviation deviation, CheckedMessage checked, MessageElement root) {
        Deviation.Cause cause = deviation.cause();
        if (cause != null && finder.isOfUnknownType(cause.around())) {
            // In the next round its type is known, and what it lacks is added there.
            return true;
        }
        if (cause == null) {
            return switch (deviation.code()) {
                case "unexpected-element" -> reordered(deviation, checked);
                case "missing-element" -> emptied(finder.at(deviation.contract()));
                case "unexpected-text" -> mixed(finder.at(deviation.contract()));
                case "unknown-element" -> newRoot(deviation, root);
                case "unknown-type" -> types.add(deviation, checked);
                default -> false;
            };
        }
        return switch (cause.lack()) {
            case MISSING -> edits.set(member(cause, checked, "element"), "minOccurs", "0");
            case REPEATED -> repeated(member(cause, checked, "element"), finder.type(cause.around(), checked));
            case NIL -> edits.set(finder.at(deviation.contract()), "nillable", "true");
            case MISSING_ATTRIBUTE -> edits.set(member(cause, checked, "attribute"), "use", "optional");
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
    private Added example(Element type, MessageElement around, MessageElement came) {
        Added one = added.computeIfAbsent(
                type.place() + " " + came.name(),
                none -> new Added(
                        type,
                        around == null ? null : before(type, around, came),
                        new ArrayList<>(),
                        came.name(),
                        new boolean[1]));
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

    /** Of what comes next one thing may be absent, so that all may. */
    private boolean emptied(Element particle) {
        return particle != null
                && particle.namespace().equals(Xml.XSD)
                && PARTICLES.contains(particle.name())
                && !particle.document().root().children().contains(particle)
                && edits.set(particle, "minOccurs", "0");
    }

    private boolean mixed(Element type) {
        return type != null
                && type.is(Xml.XSD, "complexType")
                && type.child(Xml.XSD, "complexContent") == null
                && edits.set(type, "mixed", "true");
    }

    private Element member(Deviation.Cause cause, CheckedMessage checked, String kind) {
        Element type = finder.type(cause.around(), checked);
        return type == null ? finder.global(kind, cause.name()) : finder.member(type, cause.name(), kind);
    }

    /** What comes in another order may come in any: the sequence that it is declared in becomes a choice that repeats. */
    private boolean reordered(Deviation deviation, CheckedMessage checked) {
        MessageElement parent = null;
        QName came = null;
        for (MessageElement element : checked.types().keySet()) {
            for (MessageElement child : element.children()) {
                boolean meant = child.place().equals(deviation.place());
                parent = meant ? element : parent;
                came = meant ? child.name() : came;
            }
        }
        if (finder.isOfUnknownType(parent)) {
            return true;
        }
        Element type = finder.type(parent, checked);
        Element inherited =
                type == null || finder.own(type, came) != null ? null : finder.member(type, came, "element");
        Element home = inherited == null ? type : SchemaFinder.home(inherited);
        // The model of a group has no occurrences of its own (XML Schema Part 1, section 3.7.2).
        Element model = home == null || home.name().equals("group") ? null : model(home);
        return model != null && inAnyOrder(model);
    }

    /** What is in a model may come in any order and again. */
    private boolean inAnyOrder(Element model) {
        if (model.name().equals("choice") && "unbounded".equals(model.attribute("maxOccurs"))) {
            return false;
        }
        if (edits.once(model, "order")) {
            if (!model.name().equals("choice")) {
                edits.of(model).rename(model, "choice");
                edits.of(model).set(model, "minOccurs", "0");
            }
            edits.of(model).set(model, "maxOccurs", "unbounded");
        }
        return true;
    }

    /** An element may come again; where all come in any order, each once, that is said of all. */
    private boolean repeated(Element member, Element type) {
        Element model = member == null || type == null ? null : model(type);
        return model != null && model.name().equals("all") && model.children().contains(member)
                ? inAnyOrder(model)
                : edits.set(member, "maxOccurs", "unbounded");
    }

    private boolean unknown(Deviation.Cause cause, CheckedMessage checked) {
        Element type = finder.type(cause.around(), checked);
        QName name = cause.came().name();
        if (type == null
                || !type.is(Xml.XSD, "complexType")
                || type.child(Xml.XSD, "simpleContent") != null
                || derivationOrSelf(type).child(Xml.XSD, "group") != null) {
            return false;
        }
        if (!isOf(type, name)) {
            Element schema = type.document().root();
            Element global = finder.global("element", name);
            Element home = global == null ? references.schema(name.getNamespaceURI(), schema) : null;
            if (home != null) {
                example(home, null, cause.came());
            }
            if (global == null) {
                return true;
            }
            references.imports(schema, global.document().root());
        }
        long times = cause.around().children().stream()
                .filter(sibling -> sibling.name().equals(name))
                .count();
        example(type, cause.around(), cause.came()).several()[0] |= times > 1;
        return true;
    }

    /** What declares the last of those that stood before an element and that a type has itself, or null. */
    private Element before(Element type, MessageElement around, MessageElement came) {
        Element before = null;
        for (MessageElement sibling : around.children()) {
            if (sibling == came) {
                break;
            }
            Element declared = finder.own(type, sibling.name());
            before = declared == null ? before : declared;
        }
        return before;
    }

    /** Whether a name can be that of a local element of the schema around a type. */
    private boolean isOf(Element type, QName name) {
        String target = finder.target(type.document().root());
        return name.getNamespaceURI().isEmpty() || name.getNamespaceURI().equals(target);
    }

    private boolean unknownAttribute(Deviation.Cause cause, CheckedMessage checked) {
        Element type = finder.type(cause.around(), checked);
        return attributes.add(cause, type != null && type.is(Xml.XSD, "complexType") ? type : null, checked);
    }

    private boolean value(Deviation deviation, Deviation.Cause cause, CheckedMessage checked) {
        Element told = finder.at(deviation.contract());
        if (told == null) {
            return false;
        }
        String text = cause.text();
        FacetKind kind = told.namespace().equals(Xml.XSD) ? FacetKind.of(told.name()) : null;
        if (kind == null) {
            return wider(told, cause, checked);
        }
        int length = ToldLength.in(deviation.came());
        if (length < 0 && LENGTHS.contains(kind)) {
            return false;
        }
        return switch (kind) {
            case ENUMERATION -> beside(told, text, text.strip());
            case PATTERN -> beside(told, text, literal(text));
            case MIN_LENGTH, MAX_LENGTH -> edits.set(told, VALUE, String.valueOf(length));
            case LENGTH -> {
                boolean longer = Integer.parseInt(told.attribute(VALUE).strip()) < length;
                yield instead(told, longer ? FacetKind.MAX_LENGTH : FacetKind.MIN_LENGTH, String.valueOf(length));
            }
            case MIN_INCLUSIVE, MAX_INCLUSIVE -> edits.set(told, VALUE, text.strip());
            case MIN_EXCLUSIVE -> instead(told, FacetKind.MIN_INCLUSIVE, text.strip());
            case MAX_EXCLUSIVE -> instead(told, FacetKind.MAX_INCLUSIVE, text.strip());
            case TOTAL_DIGITS ->
                edits.set(told, VALUE, String.valueOf(digits(text).total()));
            case FRACTION_DIGITS ->
                edits.set(told, VALUE, String.valueOf(digits(text).fraction()));
            case WHITE_SPACE -> false;
        };
    }

    private static FacetStep.Digits digits(String text) {
        return FacetStep.Digits.of(new BigDecimal(text.strip()));
    }

    /** One more facet of the same kind beside one, which lets a value pass too. */
    private boolean beside(Element told, String text, String value) {
        if (edits.once(told, text)) {
            edits.of(told)
                    .after(
                            told,
                            Markup.fragment()
                                    .empty(SchemaEdits.tag(told, told.name()), VALUE, value)
                                    .toString());
        }
        return true;
    }

    /** Another facet in the place of one, which lets more values pass. */
    private boolean instead(Element told, FacetKind kind, String value) {
        if (edits.once(told, VALUE)) {
            edits.of(told).rename(told, kind.local());
            edits.of(told).set(told, VALUE, value);
        }
        return true;
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
            return edits.set(extension, "base", wider(extension, extension.attribute("base"), cause.text()));
        }
        return complex == null
                && edits.set(declared, "type", wider(declared, declared.attribute("type"), cause.text()));
    }

    /** A built-in type that has a place for a value too. */
    private static String wider(Element at, String type, String text) {
        QName named = type == null ? null : at.resolve(type.strip());
        BuiltIn old =
                named == null || !named.getNamespaceURI().equals(Xml.XSD) ? null : BuiltIn.of(named.getLocalPart());
        ValueKind kind = ValueKind.of(text);
        if (old == null || !old.isNumber() || !kind.isNumber()) {
            return SchemaEdits.tag(at, "string");
        }
        String wider = old.isWhole() && kind.type().isWhole()
                ? "integer"
                : kind == ValueKind.DOUBLE || old == BuiltIn.FLOAT || old == BuiltIn.DOUBLE ? "double" : "decimal";
        return SchemaEdits.tag(at, wider.equals(old.local()) ? "string" : wider);
    }

    /** Adds the elements that types have not: after all documents were seen, so that each is of a type that fits all. */
    void finish() {
        attributes.finish();
        added.values().forEach(this::add);
        inEmpty.forEach((into, lines) -> {
            String sequence = SchemaEdits.tag(into, "sequence");
            String whole = "<" + sequence + ">\n  "
                    + lines.toString().replace("\n", "\n  ").stripTrailing() + "\n</" + sequence + ">\n";
            Element first = SchemaFinder.first(into);
            if (first == null) {
                edits.of(into).appendFirst(into, whole);
            } else {
                edits.of(first).before(first, whole);
            }
        });
    }

    private void add(Added one) {
        boolean global = one.type().is(Xml.XSD, "schema");
        if (!global && !isOf(one.type(), one.name())) {
            reference(one);
            return;
        }
        Findings none = new Findings();
        Inference inference = new Inference(Decisions.none(none), none);
        one.examples()
                .forEach(example ->
                        inference.read("example", new ByteArrayInputStream(example.getBytes(StandardCharsets.UTF_8))));
        DraftParticle.Element element = element(inference.inferred(), one);
        Element schema = one.type().document().root();
        String target = finder.target(schema);
        boolean qualified = "qualified".equals(schema.attribute("elementFormDefault"));
        DraftSchema own = new DraftSchema(target, "", qualified, List.of(), List.of(), List.of());
        Map<String, String> prefixes = new LinkedHashMap<>();
        prefixes.put(Xml.XSD, String.valueOf(schema.prefixOf(Xml.XSD)).replace("null", ""));
        prefixes.put(target, "");
        if (global) {
            DraftParticle.Element alone = new DraftParticle.Element(
                    element.name(), element.value(), 1, 1, element.isNillable(), false, null, null, element.inline());
            edits.of(schema).append(schema, SchemaText.element(own, alone, prefixes));
        } else {
            put(one, SchemaText.local(own, element, prefixes));
        }
    }

    /** What another schema declares is referred to. */
    private void reference(Added one) {
        List<String> attributes = new ArrayList<>(List.of(SchemaReferences.reference(one.type(), "ref", one.name())));
        attributes.addAll(List.of("minOccurs", "0"));
        if (one.several()[0]) {
            attributes.addAll(List.of("maxOccurs", "unbounded"));
        }
        put(
                one,
                Markup.fragment()
                        .empty(SchemaEdits.tag(one.type(), "element"), attributes.toArray(String[]::new))
                        .toString());
    }

    /** Puts an element where it stood in documents. */
    private void put(Added one, String lines) {
        if (one.before() != null) {
            edits.of(one.before()).after(one.before(), lines);
            return;
        }
        Element model = model(one.type());
        if (model == null) {
            Element into = derivationOrSelf(one.type());
            inEmpty.computeIfAbsent(into, nothing -> new StringBuilder()).append(lines);
            return;
        }
        Element first = SchemaFinder.first(model);
        if (first == null) {
            edits.of(model).append(model, lines);
        } else {
            edits.of(first).before(first, lines);
        }
    }

    private static Element derivationOrSelf(Element type) {
        Element content = type.child(Xml.XSD, "complexContent");
        Element derivation = content == null ? null : SchemaFinder.derivation(content);
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
