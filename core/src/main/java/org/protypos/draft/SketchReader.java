package org.protypos.draft;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.protypos.authoring.DraftParticle;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.source.Xml;
import org.protypos.source.XmlText;

/** Reads sketches in YAML, and tells all that is wrong with them. */
public final class SketchReader {
    static final String EXTENDS = "extends";
    static final String DOCUMENTATION = "documentation";
    static final Set<String> KEYWORDS = Set.of(EXTENDS, DOCUMENTATION, "abstract", "mixed");
    static final Pattern GROUP =
            Pattern.compile("(either|together|unordered)( [0-9]+)?([?*+]|\\[[0-9]+\\.\\.(?:[0-9]+|\\*)\\])?");
    private static final Pattern REFERENCE = Pattern.compile("element *([?*+]|\\[[0-9]+\\.\\.(?:[0-9]+|\\*)\\])?");
    static final Pattern ANYTHING = Pattern.compile("anything([?*+]|\\[[0-9]+\\.\\.(?:[0-9]+|\\*)\\])?");

    private static final Pattern ONE_LINE = Pattern.compile("(" + XmlText.NAME + ")(?: *: *| +)(.+)", Pattern.DOTALL);

    private static final Set<String> TOP = Set.of(
            "$schema",
            "sketch",
            "namespace",
            DOCUMENTATION,
            "interface",
            "service",
            "style",
            "types",
            "elements",
            "also",
            "operations",
            "ports",
            "form");
    private static final Set<String> OPERATION =
            Set.of(DOCUMENTATION, "in", "out", "faults", "headers", "answerHeaders", "action");
    private static final Set<String> PORT = Set.of("protocol", "address");
    private static final Set<String> SECTION = Set.of("namespace", "types", "elements", "form");
    private static final Set<String> MEMBER = Set.of("type", DOCUMENTATION);

    private static final Set<String> STANDARD =
            Set.of(Xml.XSD, Xml.XSI, Xml.XML, Xml.WSDL, Xml.WSDL_SOAP11, Xml.WSDL_SOAP12, Xml.WSDL_HTTP, Xml.WSDL_MIME);
    private static final String FORM = "form";

    private final Findings findings;

    /** Whether elements inside of types are in the namespace (XML Schema Part 1, section 3.3.2). */
    private enum Form {
        QUALIFIED,
        UNQUALIFIED
    }

    private SketchReader(Findings findings) {
        this.findings = findings;
    }

    /** Reads parts of a sketch. */
    static SketchReader of(Findings findings) {
        return new SketchReader(findings);
    }

    /** Reads a sketch; null when it is none, with the reasons. */
    public static Sketch read(SourceText text, Findings findings) {
        JsonValue value = JsonText.parseYaml(text, findings);
        if (value == null) {
            return null;
        }
        return new SketchReader(findings).sketch(value);
    }

    private void wrong(Place place, String message, String cure) {
        findings.error("sketch", place, message, cure);
    }

    private Sketch sketch(JsonValue value) {
        Map<String, JsonValue> keys = members(value, "a sketch", TOP);
        String namespace = text(keys.get("namespace"));
        if (namespace == null || namespace.isBlank()) {
            wrong(value.place(), "the sketch does not say its namespace", "add \"namespace: http://...\"");
        }
        if (namespace != null && STANDARD.contains(namespace)) {
            wrong(keys.get("namespace").place(), "the namespace is one of a standard", "choose one of your own");
        }
        String name = name(keys.get("sketch"), "Contract");
        List<Sketch.Section> sections = new ArrayList<>();
        sections.add(section("", namespace == null ? "" : namespace, keys));
        each(keys.get("also"), "also", (prefix, section) -> {
            Map<String, JsonValue> inside = members(section, "a section", SECTION);
            String other = text(inside.get("namespace"));
            if (other == null) {
                wrong(section.place(), "the section does not say its namespace", "add \"namespace: http://...\"");
            } else if (STANDARD.contains(other)) {
                wrong(section.place(), "the namespace is one of a standard", "choose one of your own");
            } else {
                sections.add(section(checked(prefix, section.place()), other, inside));
            }
        });
        List<Sketch.SketchOperation> operations = new ArrayList<>();
        each(keys.get("operations"), "operations", (key, given) -> operations.add(operation(key, given)));
        List<Sketch.SketchPort> ports = new ArrayList<>();
        each(keys.get("ports"), "ports", (key, given) -> ports.add(port(key, given)));
        return new Sketch(
                name,
                name(keys.get("interface"), name),
                name(keys.get("service"), name + "Service"),
                text(keys.get(DOCUMENTATION)),
                one(keys.get("style"), "style", Sketch.Style.values(), Sketch.Style.DOCUMENT),
                sections,
                operations,
                ports);
    }

    private Sketch.Section section(String prefix, String namespace, Map<String, JsonValue> keys) {
        Map<String, SketchType> types = new LinkedHashMap<>();
        each(keys.get("types"), "types", (name, given) -> {
            SketchType type = type(given);
            if (type != null) {
                types.put(checked(name, given.place()), type);
            }
        });
        Map<String, SketchMember> elements = new LinkedHashMap<>();
        each(keys.get("elements"), "elements", (name, given) -> {
            SketchMember.Named element = named(name, given);
            if (element != null) {
                elements.put(element.name(), element);
            }
        });
        return new Sketch.Section(
                prefix,
                namespace,
                one(keys.get(FORM), FORM, Form.values(), Form.QUALIFIED) == Form.QUALIFIED,
                types,
                elements);
    }

    private SketchType type(JsonValue value) {
        if (!(value instanceof JsonValue.Members members)) {
            TypeTerm term = term(value);
            return term == null ? null : new SketchType.Values(term, null, value.place());
        }
        Map<String, JsonValue> keys = members.members();
        if (keys.keySet().equals(MEMBER)) {
            TypeTerm term = term(keys.get("type"));
            return term == null ? null : new SketchType.Values(term, text(keys.get(DOCUMENTATION)), value.place());
        }
        return new SketchType.Structure(
                text(keys.get(EXTENDS)),
                isTrue(keys.get("abstract")),
                isTrue(keys.get("mixed")),
                inside(members),
                text(keys.get(DOCUMENTATION)),
                value.place());
    }

    private List<SketchMember> inside(JsonValue.Members members) {
        List<SketchMember> inside = new ArrayList<>();
        members.members().forEach((key, value) -> {
            SketchMember member = KEYWORDS.contains(key) ? null : member(key, value);
            if (member != null) {
                inside.add(member);
            }
        });
        return inside;
    }

    private SketchMember member(String key, JsonValue value) {
        Matcher group = GROUP.matcher(key);
        if (group.matches() && value instanceof JsonValue.Members members) {
            int[] occurs = TypeTerm.occurs(group.group(3));
            if (occurs == null) {
                wrong(value.place(), "\"" + key + "\" cannot stand so often", "write ?, *, + or [2..5]");
                return null;
            }
            return new SketchMember.Group(
                    switch (group.group(1)) {
                        case "either" -> DraftParticle.Kind.CHOICE;
                        case "together" -> DraftParticle.Kind.SEQUENCE;
                        default -> DraftParticle.Kind.ALL;
                    },
                    occurs[0],
                    occurs[1],
                    inside(members),
                    value.place());
        }
        Matcher anything = ANYTHING.matcher(key);
        if (anything.matches() && (value instanceof JsonValue.Nothing || "".equals(text(value)))) {
            int[] occurs = TypeTerm.occurs(anything.group(1));
            return new SketchMember.Anything(occurs[0], occurs[1], value.place());
        }
        String line = text(value);
        Matcher reference = REFERENCE.matcher(line == null ? "" : line.strip());
        if (reference.matches()) {
            String name = unescaped(key);
            int[] occurs = TypeTerm.read(name) == null ? null : TypeTerm.occurs(reference.group(1));
            if (occurs == null) {
                wrong(
                        value.place(),
                        "\"" + line + "\" says no element",
                        "write element, element?, element* or element+");
                return null;
            }
            return new SketchMember.Reference(name, occurs[0], occurs[1], value.place());
        }
        return named(key, value);
    }

    private static String unescaped(String key) {
        return key.replaceFirst("^<(.*)>$", "$1");
    }

    private SketchMember.Named named(String key, JsonValue value) {
        boolean attribute = key.startsWith("@");
        String name = attribute ? key.substring(1) : unescaped(key);
        checked(name, value.place());
        if (value instanceof JsonValue.Members members && members.members().containsKey("type")) {
            Map<String, JsonValue> keys = members(value, "a member", MEMBER);
            TypeTerm term = term(keys.get("type"));
            return term == null
                    ? null
                    : new SketchMember.Named(name, attribute, term, text(keys.get(DOCUMENTATION)), value.place());
        }
        TypeTerm term = term(value);
        return term == null ? null : new SketchMember.Named(name, attribute, term, null, value.place());
    }

    private TypeTerm term(JsonValue value) {
        String line = text(value);
        TypeTerm term = line == null ? null : TypeTerm.read(line);
        if (term == null) {
            wrong(
                    value.place(),
                    line == null ? "here a type is wanted, in one line" : "\"" + line + "\" says no type",
                    "write decimal, dateTime?, string*, token(4..7), one of horn, bell, or the name of a type");
        }
        return term;
    }

    private Sketch.SketchOperation operation(String name, JsonValue value) {
        checked(name, value.place());
        Map<String, JsonValue> keys = members(value, "an operation", OPERATION);
        return new Sketch.SketchOperation(
                name,
                keys.containsKey("in") ? content(keys.get("in")) : new Sketch.Content(null, List.of()),
                keys.containsKey("out") ? content(keys.get("out")) : null,
                faults(keys.get("faults")),
                names(keys.get("headers")),
                names(keys.get("answerHeaders")),
                text(keys.get("action")),
                text(keys.get(DOCUMENTATION)),
                value.place());
    }

    private Sketch.Content content(JsonValue value) {
        if (value instanceof JsonValue.Members members) {
            return new Sketch.Content(null, inside(members));
        }
        String line = text(value);
        if (line != null && line.strip().contains(" ")) {
            return new Sketch.Content(null, line(line, value.place()));
        }
        if (line == null && !(value instanceof JsonValue.Nothing)) {
            wrong(
                    value.place(),
                    "here members are wanted, or the name of an element",
                    "write names with types below it, or in one line: kind Kind, at dateTime?");
        }
        return new Sketch.Content(line, List.of());
    }

    /** Members in one line: {@code kind Kind, at dateTime?}; a colon behind the name may be there. */
    List<SketchMember> line(String line, Place place) {
        List<SketchMember> members = new ArrayList<>();
        if (line.isBlank()) {
            return members;
        }
        for (String one : line.split(",(?![^(]*\\))(?![^/]*/[^/]*(,|$))")) {
            Matcher parts = ONE_LINE.matcher(one.strip());
            TypeTerm term = parts.matches() ? TypeTerm.read(parts.group(2)) : null;
            if (term == null) {
                wrong(
                        place,
                        "\"" + one.strip() + "\" says no name and type",
                        "write the name, then the type: at dateTime?");
            } else {
                members.add(new SketchMember.Named(parts.group(1), false, term, null, place));
            }
        }
        return members;
    }

    private Map<String, String> faults(JsonValue value) {
        Map<String, String> faults = new LinkedHashMap<>();
        if (value instanceof JsonValue.Members members) {
            members.members().forEach((name, element) -> {
                String text = text(element);
                if (text == null) {
                    wrong(element.place(), "a fault is an element", "write the name of one");
                } else {
                    faults.put(checked(name, element.place()), text);
                }
            });
        } else {
            names(value).forEach(element -> faults.put(capital(element.substring(element.indexOf(':') + 1)), element));
        }
        return faults;
    }

    /** The usual name of a fault. */
    static String capital(String element) {
        return element.isEmpty() ? element : element.substring(0, 1).toUpperCase(Locale.ROOT) + element.substring(1);
    }

    private List<String> names(JsonValue value) {
        List<String> names = new ArrayList<>();
        if (value instanceof JsonValue.Items items) {
            items.items().forEach(item -> names.add(String.valueOf(text(item))));
        } else if (value != null && text(value) != null) {
            names.add(text(value));
        } else if (value != null && !(value instanceof JsonValue.Nothing)) {
            wrong(value.place(), "here names of elements are wanted", "write [pass, watch]");
        }
        return names;
    }

    private Sketch.SketchPort port(String name, JsonValue value) {
        Map<String, JsonValue> keys = members(value, "a port", PORT);
        String address = text(keys.get("address"));
        if (address == null) {
            wrong(value.place(), "the port has no address", "add \"address: http://...\"");
        }
        return new Sketch.SketchPort(
                checked(name, value.place()),
                one(keys.get("protocol"), "protocol", Sketch.SketchProtocol.values(), Sketch.SketchProtocol.SOAP12),
                address == null ? "" : address,
                value.place());
    }

    private <T extends Enum<T>> T one(JsonValue value, String what, T[] all, T otherwise) {
        if (value == null) {
            return otherwise;
        }
        String text = String.valueOf(text(value));
        for (T one : all) {
            if (one.name().toLowerCase(Locale.ROOT).equals(text)) {
                return one;
            }
        }
        wrong(
                value.place(),
                "\"" + text + "\" is no " + what,
                "use "
                        + Stream.of(all)
                                .map(one -> one.name().toLowerCase(Locale.ROOT))
                                .collect(Collectors.joining(", ")));
        return otherwise;
    }

    private String name(JsonValue value, String otherwise) {
        String name = value == null ? null : text(value);
        return name == null ? otherwise : checked(name, value.place());
    }

    private String checked(String name, Place place) {
        if (!name.matches(XmlText.NAME)) {
            wrong(place, "\"" + name + "\" is no name in XML", "use letters, digits, dots and hyphens");
            return name.replaceAll("[^\\p{L}\\p{N}._-]", "_").replaceFirst("^(?![\\p{L}_])", "_");
        }
        return name;
    }

    private Map<String, JsonValue> members(JsonValue value, String what, Set<String> known) {
        if (!(value instanceof JsonValue.Members members)) {
            if (!(value instanceof JsonValue.Nothing)) {
                wrong(value.place(), what + " is a map", "write keys with values below it");
            }
            return Map.of();
        }
        members.members().forEach((key, given) -> {
            if (!known.contains(key)) {
                wrong(
                        given.place(),
                        "\"" + key + "\" is no key of " + what,
                        NearestName.of(key, known)
                                .map(near -> "the nearest is " + near)
                                .orElse("the keys are "
                                        + known.stream().sorted().collect(Collectors.joining(", "))));
            }
        });
        return members.members();
    }

    private void each(JsonValue value, String what, BiConsumer<String, JsonValue> each) {
        if (value instanceof JsonValue.Members members) {
            members.members().forEach(each);
        } else if (value != null && !(value instanceof JsonValue.Nothing)) {
            wrong(value.place(), what + " is no map", "write names with what is said of them below it");
        }
    }

    private static boolean isTrue(JsonValue value) {
        return value != null && "true".equals(text(value));
    }

    private static String text(JsonValue value) {
        return value == null ? null : value.scalar();
    }
}
