package org.protypos.infer;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.authoring.DraftAttribute;
import org.protypos.authoring.DraftParticle;
import org.protypos.authoring.DraftSchema;
import org.protypos.authoring.DraftType;
import org.protypos.authoring.DraftValue;
import org.protypos.authoring.SchemaFiles;
import org.protypos.schema.BuiltIn;
import org.protypos.source.Xml;

/** Makes schemas of what has been observed. */
final class SchemaDrafts {
    /** Of fewer examples one cannot tell what is always there. */
    private static final int FEW = 3;

    private final Observations seen;
    private final Decisions decisions;
    private final Set<Remark> remarks;
    private final TypeNames names = new TypeNames();
    private final Map<Structure, QName> named = new LinkedHashMap<>();
    private final Deque<Structure> todo = new ArrayDeque<>();
    private final Set<Structure> drafted = new HashSet<>();
    private final Map<Enumeration, QName> enumerations = new HashMap<>();
    private final Map<String, Home> homes = new LinkedHashMap<>();
    private final Set<String> places = new LinkedHashSet<>();

    SchemaDrafts(Observations seen, Decisions decisions, Set<Remark> remarks) {
        this.seen = seen;
        this.decisions = decisions;
        this.remarks = remarks;
    }

    private record Enumeration(String home, String name, BuiltIn base, List<String> values) {}

    /** What one schema will hold. */
    private static final class Home {
        final List<DraftParticle.Element> elements = new ArrayList<>();
        final List<DraftAttribute> attributes = new ArrayList<>();
        final List<DraftType> types = new ArrayList<>();
        int qualified;
        int unqualified;
    }

    List<DraftSchema> drafted() {
        seen.types.forEach((name, type) -> named.put(type, names.fixed(name.getNamespaceURI(), name.getLocalPart())));
        seen.globals.values().forEach(global -> {
            QName name = global.name;
            home(name.getNamespaceURI())
                    .elements
                    .add(DraftParticle.Element.global(name, type(global), global.isNillable, null));
            finish();
        });
        seen.types.values().forEach(todo::add);
        finish();
        seen.attributes.forEach((name, values) -> {
            Home home = home(name.getNamespaceURI());
            home.attributes.add(new DraftAttribute(
                    name,
                    value(values, List.of("@" + name.getLocalPart()), name.getNamespaceURI(), name),
                    false,
                    null));
        });
        decisions.tellUnmet(places);
        SchemaFiles files = new SchemaFiles(decisions.files());
        List<DraftSchema> schemas = new ArrayList<>();
        homes.forEach((namespace, home) -> schemas.add(new DraftSchema(
                namespace,
                files.of(
                        namespace,
                        home.elements.isEmpty()
                                ? ""
                                : home.elements.get(0).name().getLocalPart()),
                !namespace.isEmpty() && home.qualified >= home.unqualified,
                home.elements,
                home.attributes,
                home.types)));
        return schemas;
    }

    private Home home(String namespace) {
        return homes.computeIfAbsent(namespace, none -> new Home());
    }

    private void finish() {
        while (!todo.isEmpty()) {
            Structure structure = todo.poll();
            if (drafted.add(structure)) {
                Home home = home(structure.home);
                // The enumerations that it needs come behind it.
                int at = home.types.size();
                home.types.add(at, complex(structure));
            }
        }
    }

    /** The type of a declaration. */
    private DraftValue type(Declaration declaration) {
        if (Families.isAnything(declaration)) {
            boolean simple = declaration.types.stream().allMatch(Families::isBuiltIn)
                    && (!declaration.isPlain || declaration.plain().isValue());
            return builtIn(simple ? "anySimpleType" : "anyType");
        }
        if (declaration.types.size() == 1 && !declaration.isPlain) {
            QName type = declaration.types.iterator().next();
            return Families.isBuiltIn(type) ? DraftValue.of(type) : DraftValue.of(named(seen.types.get(type)));
        }
        Structure plain = declaration.plain();
        return plain.isValue() ? value(plain.text, plain.at, plain.home, plain.name) : DraftValue.of(named(plain));
    }

    private static DraftValue builtIn(String local) {
        return DraftValue.of(new QName(Xml.XSD, local));
    }

    private QName named(Structure structure) {
        QName name = named.get(structure);
        if (name == null) {
            Decision decision = decided(structure.at);
            String at = structure.at.iterator().next();
            name = decision != null && decision.name() != null
                    ? names.given(structure.home, List.of(decision.name()), at)
                    : names.given(structure.home, structure.names, at);
            named.put(structure, name);
        }
        todo.add(structure);
        return name;
    }

    private Decision decided(Iterable<String> at) {
        at.forEach(places::add);
        return decisions.of(at);
    }

    private DraftValue value(ObservedValue values, Iterable<String> at, String home, QName of) {
        Decision decision = decided(at);
        String place = at.iterator().next();
        BuiltIn type = decision != null && decision.type() != null
                ? decision.type()
                : values.isFilled() ? values.kind().type() : BuiltIn.STRING;
        List<String> allowed = decision != null && decision.values() != null
                ? decision.values()
                : decision != null && decision.type() != null ? List.of() : values.enumeration();
        boolean undecided = decision == null || decision.type() == null && decision.values() == null;
        if (!allowed.isEmpty()) {
            if (undecided) {
                remarks.add(new Remark(
                        Remark.Kind.VALUES,
                        place,
                        "one of " + String.join(", ", allowed),
                        values.count() + " values",
                        values.isThinEnumeration()));
            }
            String wanted = decision != null && decision.name() != null ? decision.name() : of.getLocalPart();
            return DraftValue.of(enumeration(home, wanted, type, allowed, place));
        }
        if (undecided && values.count() > 0) {
            boolean empty = !values.isFilled();
            remarks.add(new Remark(
                    Remark.Kind.VALUE,
                    place,
                    type.local(),
                    values.count() + (values.count() == 1 ? " value" : " values") + (empty ? ", all empty" : ""),
                    empty || values.isThin()));
        }
        return builtIn(type.local());
    }

    private QName enumeration(String home, String wanted, BuiltIn base, List<String> values, String at) {
        return enumerations.computeIfAbsent(new Enumeration(home, wanted, base, values), none -> {
            QName name = names.given(home, List.of(wanted), at);
            home(home)
                    .types
                    .add(new DraftType.Simple(name, DraftValue.oneOf(new QName(Xml.XSD, base.local()), values), null));
            return name;
        });
    }

    private DraftType.Complex complex(Structure structure) {
        QName name = named(structure);
        String at = structure.at.iterator().next();
        boolean simple = !structure.hasElements() && structure.text.isFilled() && !structure.isMixed;
        if (simple && structure.base != null) {
            simple = !structure.base.hasElements() && !structure.base.isMixed;
        }
        DraftValue text = simple ? value(structure.text, structure.at, structure.home, structure.name) : null;
        DraftParticle.Group content = simple ? null : content(structure, at);
        List<DraftAttribute> attributes = new ArrayList<>();
        structure.attributes.forEach(
                (attribute, observed) -> attributes.add(attribute(structure, attribute, observed)));
        if (structure.filled > 0 && structure.filled < FEW && !(content == null && attributes.isEmpty())) {
            remarks.add(new Remark(
                    Remark.Kind.REQUIRED,
                    at,
                    "what is always there is required",
                    structure.filled + (structure.filled == 1 ? " example" : " examples"),
                    true));
        }
        return new DraftType.Complex(
                name,
                structure.base == null ? null : named(structure.base),
                structure.isAbstract,
                structure.mixes(),
                text,
                content,
                structure.hasOpenAttributes,
                attributes,
                null);
    }

    private DraftAttribute attribute(Structure structure, QName name, Structure.ObservedAttribute observed) {
        List<String> at = new ArrayList<>();
        structure.names.forEach(owner -> at.add(owner + "/@" + name.getLocalPart()));
        Decision decision = decided(at);
        boolean always = observed.present == structure.count;
        boolean required = always;
        if (decision != null && decision.isOptional() != null) {
            if (!decision.isOptional() && !always) {
                decisions.contradicted(decision, "is not always there");
            }
            required = !decision.isOptional();
        }
        boolean foreign = Observations.isForeign(structure, name.getNamespaceURI());
        DraftValue value = foreign ? builtIn("string") : value(observed.values, at, structure.home, name);
        return new DraftAttribute(name, value, required, null);
    }

    private DraftParticle.Group content(Structure structure, String at) {
        if (structure.isOpen) {
            remarks.add(new Remark(
                    Remark.Kind.OPEN,
                    at,
                    "elements of any name",
                    "more than " + Structure.MOST_NAMES + " different names",
                    true));
            return DraftParticle.Group.sequence(List.of(new DraftParticle.Anything(0, DraftParticle.UNBOUNDED, false)));
        }
        List<List<QName>> order = structure.order.ordered();
        if (order.isEmpty()) {
            return null;
        }
        Decision decision = decided(structure.at);
        boolean anyOrder = decision != null && decision.isInAnyOrder();
        if (anyOrder) {
            order = List.of(order.stream().flatMap(List::stream).toList());
        }
        if (order.size() == 1 && order.get(0).size() > 1) {
            boolean once = structure.base == null
                    && !structure.isBase
                    && structure.children.values().stream().allMatch(child -> child.most == 1);
            return once ? inAnyOrder(structure, order.get(0), at) : repeated(structure, order.get(0), at, anyOrder);
        }
        List<DraftParticle> particles = new ArrayList<>();
        for (List<QName> together : order) {
            particles.add(
                    together.size() > 1
                            ? repeated(structure, together, at, anyOrder)
                            : element(structure, structure.children.get(together.get(0))));
        }
        return DraftParticle.Group.sequence(particles);
    }

    private DraftParticle.Group inAnyOrder(Structure structure, List<QName> names, String at) {
        remarks.add(new Remark(
                Remark.Kind.ORDER, at, listed(names) + " in any order", "documents have several orders", false));
        return new DraftParticle.Group(
                DraftParticle.Kind.ALL,
                1,
                1,
                names.stream()
                        .map(name -> (DraftParticle) element(structure, structure.children.get(name)))
                        .toList());
    }

    private DraftParticle.Group repeated(Structure structure, List<QName> names, String at, boolean anyOrder) {
        boolean required = names.stream().anyMatch(name -> structure.isRequired(structure.children.get(name)));
        // Between text elements come as they are needed: that they came in turns is chance.
        Rounds.Round round = anyOrder || structure.mixes() ? null : structure.rounds.of(names);
        if (round != null) {
            return inRounds(structure, round, required, at);
        }
        remarks.add(new Remark(
                Remark.Kind.ORDER,
                at,
                listed(names) + " in any order, repeated",
                anyOrder ? "so it is decided" : "documents have several orders",
                false));
        return new DraftParticle.Group(
                DraftParticle.Kind.CHOICE,
                required ? 1 : 0,
                DraftParticle.UNBOUNDED,
                names.stream()
                        .map(name -> (DraftParticle) element(structure, structure.children.get(name), 1, 1))
                        .toList());
    }

    private DraftParticle.Group inRounds(Structure structure, Rounds.Round round, boolean required, String at) {
        remarks.add(new Remark(
                Remark.Kind.ORDER,
                at,
                listed(round.order()) + " in this order, repeated",
                round.count() + " times",
                round.count() < FEW));
        return new DraftParticle.Group(
                DraftParticle.Kind.SEQUENCE,
                required ? 1 : 0,
                DraftParticle.UNBOUNDED,
                round.order().stream()
                        .map(name -> (DraftParticle) element(
                                structure,
                                structure.children.get(name),
                                round.always().contains(name) ? 1 : 0,
                                round.several().contains(name) ? DraftParticle.UNBOUNDED : 1))
                        .toList());
    }

    private static String listed(List<QName> names) {
        return String.join(", ", names.stream().map(QName::getLocalPart).toList());
    }

    /** An element that stands where it stands by itself: how often it came is how often it may come. */
    private DraftParticle.Element element(Structure structure, Declaration child) {
        int least = structure.isRequired(child) ? 1 : 0;
        int most = child.most > 1 ? DraftParticle.UNBOUNDED : 1;
        List<String> at = new ArrayList<>();
        structure.names.forEach(owner -> at.add(owner + "/" + child.name.getLocalPart()));
        Decision decision = decided(at);
        if (decision != null && decision.isOptional() != null) {
            if (!decision.isOptional() && least == 0) {
                decisions.contradicted(decision, "is not always there");
            } else if (!decision.isRepeated() && most != 1) {
                decisions.contradicted(decision, "comes several times");
            }
            least = decision.isOptional() ? 0 : 1;
            most = decision.isRepeated() ? DraftParticle.UNBOUNDED : 1;
        }
        return element(structure, child, least, most);
    }

    private DraftParticle.Element element(Structure structure, Declaration child, int least, int most) {
        String namespace = child.name.getNamespaceURI();
        boolean foreign = Observations.isForeign(structure, namespace);
        Home home = home(structure.home);
        if (!foreign) {
            if (namespace.isEmpty()) {
                home.unqualified++;
            } else {
                home.qualified++;
            }
        }
        return new DraftParticle.Element(
                child.name, foreign ? null : type(child), least, most, child.isNillable, false, null, null);
    }
}
