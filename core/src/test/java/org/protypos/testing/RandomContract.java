package org.protypos.testing;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;

/**
 * A made-up schema with made-up messages that are valid by construction. The same seed gives the same ones. Element names
 * occur once in each content model, so that no model is ambiguous. Types may hold the heads of substitution groups whose
 * members extend them, documents redefine one another in a chain, and messages put complex types with text in the place of
 * simple ones and name types whose values are qualified names.
 */
public final class RandomContract {
    private static final String NAMESPACE = "urn:random";
    private static final int STEPS = 3;

    /** Values whose types only the message names; those of names need a prefix that is declared around. */
    private static final String[][] TYPED = {
        {"xs:QName", "o:name"},
        {"xs:int", "007"},
        {"Names", "o:a xs:int o:b"},
        {"Either", "o:either"},
        {"Either", "12"},
        {"xs:string", "text"},
    };

    /** Built-in types with values in every way of writing that is allowed, the ordinary and the odd. */
    private static final Map<String, String[]> VALUES = new TreeMap<>(Map.ofEntries(
            Map.entry("string", new String[] {"", " a  b ", "<&>\"'", "\u00e9\ud83d\ude00", "tab\there"}),
            Map.entry("token", new String[] {"a b", "x"}),
            Map.entry("boolean", new String[] {"true", "false", "1", "0"}),
            Map.entry("int", new String[] {"0", "-1", "+7", "007", "2147483647", "-0"}),
            Map.entry("long", new String[] {"9223372036854775807", "-00"}),
            Map.entry("unsignedByte", new String[] {"255", "+0"}),
            Map.entry("integer", new String[] {"123456789012345678901234567890", "-007", "0"}),
            Map.entry("decimal", new String[] {"1.50", ".5", "5.", "+1", "-0.0", "100", "00.1"}),
            Map.entry("float", new String[] {"1.5", "1E3", "INF", "-INF", "NaN", "-0", "1e-3"}),
            Map.entry("double", new String[] {"0.1", "1", "-1.0E-10", "NaN"}),
            Map.entry("dateTime", new String[] {"2027-05-09T24:00:00", "12027-01-01T00:00:00.123456789012Z"}),
            Map.entry("date", new String[] {"2027-05-09", "-0044-03-15+14:00"}),
            Map.entry("time", new String[] {"24:00:00", "12:00:00.5Z"}),
            Map.entry("duration", new String[] {"P1Y", "-PT0.5S"}),
            Map.entry("gYear", new String[] {"2027Z"}),
            Map.entry("gMonthDay", new String[] {"--02-29"}),
            Map.entry("hexBinary", new String[] {"", "0aFf", "00"}),
            Map.entry("base64Binary", new String[] {"", "AAEC/w=="}),
            Map.entry("anyURI", new String[] {"", "http://lanternbay.example/"}),
            Map.entry("NMTOKENS", new String[] {"a b", "1"})));

    private final Dice random;
    private final StringBuilder schema = new StringBuilder();
    private final List<Type> types = new ArrayList<>();
    private int names;

    /** A complex type with what it takes to write a valid value. */
    private static final class Type {
        private final String name;
        private Type base;
        private boolean isAbstract;
        private boolean mixed;
        /** Whether nothing can follow its content, because a wildcard would take it. */
        private boolean closed;

        private Part content;
        private String text;
        /** What each document in the chain of redefinitions adds to the type. */
        private final List<Part> steps = new ArrayList<>();
        /** The elements of its substitution group: each is of a type derived from it. */
        private final List<Head> members = new ArrayList<>();

        private boolean isHeadAbstract;
        private final List<String[]> attributes = new ArrayList<>();

        Type(String name) {
            this.name = name;
        }
    }

    /** A global element in the substitution group of another. */
    private record Head(String element, Type type) {}

    /** A particle. */
    private record Part(
            Kind kind,
            int least,
            int most,
            List<Part> parts,
            String element,
            String simple,
            Type type,
            boolean nillable) {
        enum Kind {
            SEQUENCE,
            CHOICE,
            ALL,
            ELEMENT,
            HEAD,
            TYPED,
            ANY
        }
    }

    /**
     * Makes a contract.
     *
     * @param seed decides everything
     * @param size the number of types
     */
    public RandomContract(long seed, int size) {
        random = new Dice(seed);
        for (int i = 0; i < size; i++) {
            types.add(type(i));
        }
        for (Type type : types) {
            type.isAbstract &= types.stream().anyMatch(other -> !other.isAbstract && isDerived(other, type));
        }
        types.forEach(this::join);
        schema.append(start());
        schema.append("<xs:simpleType name=\"Names\"><xs:list itemType=\"xs:QName\"/></xs:simpleType>\n")
                .append("<xs:simpleType name=\"Either\"><xs:union memberTypes=\"xs:int xs:QName\"/></xs:simpleType>\n");
        for (Type type : types) {
            if (!type.isAbstract) {
                schema.append("<xs:element name=\"r")
                        .append(type.name)
                        .append("\" type=\"")
                        .append(type.name)
                        .append("\"/>\n");
            }
            head(type);
            write(type);
        }
        schema.append("</xs:schema>\n");
    }

    private static String start() {
        return "<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\" xmlns=\"urn:random\""
                + " targetNamespace=\"urn:random\" elementFormDefault=\"qualified\">\n";
    }

    /** Puts a type into the substitution groups of the types that it is derived from. */
    private void join(Type type) {
        for (Type base = type; base != null; base = base.base) {
            if (hasHead(base) && !type.isAbstract && random.chance(70)) {
                base.members.add(new Head(name("m"), type));
            }
        }
        type.isHeadAbstract = type.isAbstract || !type.members.isEmpty() && random.chance(50);
    }

    private static boolean hasHead(Type type) {
        return type.content != null
                && type.content.kind == Part.Kind.SEQUENCE
                && type.content.parts.stream().anyMatch(part -> part.kind == Part.Kind.HEAD);
    }

    private void head(Type type) {
        if (hasHead(type)) {
            schema.append("<xs:element name=\"h")
                    .append(type.name)
                    .append("\" type=\"")
                    .append(type.name)
                    .append(type.isHeadAbstract ? "\" abstract=\"true\"/>\n" : "\"/>\n");
            for (Head member : type.members) {
                schema.append("<xs:element name=\"")
                        .append(member.element)
                        .append("\" type=\"")
                        .append(member.type.name)
                        .append("\" substitutionGroup=\"h")
                        .append(type.name)
                        .append("\"/>\n");
            }
        }
    }

    /**
     * Writes the documents of the schema into a folder.
     *
     * @return the one that redefines all others
     */
    public Path layOut(Path folder) throws IOException {
        Files.writeString(folder.resolve("random0.xsd"), schema.toString());
        for (int step = 0; step < STEPS; step++) {
            StringBuilder document = new StringBuilder(start());
            document.append("<xs:redefine schemaLocation=\"random").append(step).append(".xsd\">\n");
            for (Type type : types) {
                if (step < type.steps.size()) {
                    document.append("<xs:complexType name=\"").append(type.name).append('"');
                    document.append(type.isAbstract ? " abstract=\"true\"" : "");
                    document.append("><xs:complexContent><xs:extension base=\"").append(type.name);
                    document.append("\">");
                    write(type.steps.get(step), document);
                    document.append("</xs:extension></xs:complexContent></xs:complexType>\n");
                }
            }
            document.append("</xs:redefine></xs:schema>\n");
            Files.writeString(folder.resolve("random" + (step + 1) + ".xsd"), document);
        }
        return folder.resolve("random" + STEPS + ".xsd");
    }

    private String name(String prefix) {
        return prefix + names++;
    }

    private String builtin() {
        return new ArrayList<>(VALUES.keySet()).get(random.nextInt(VALUES.size()));
    }

    private Type type(int index) {
        Type type = new Type("T" + index);
        int kind = random.nextInt(10);
        if (index > 3 && kind < 3) {
            Type base = types.get(random.nextInt(index));
            boolean all = base.content != null && base.content.kind == Part.Kind.ALL;
            type.base = all || base.mixed || base.closed ? null : base;
        }
        if (type.base != null && type.base.text != null) {
            type.text = type.base.text;
        } else if (type.base == null && kind == 9) {
            type.text = builtin();
        } else if (type.base == null && kind == 8) {
            type.content = all();
        } else {
            type.content = group(random.nextInt(3), index, 1, 1);
            type.mixed = type.base == null && kind == 7;
            if (type.content.kind == Part.Kind.SEQUENCE && type.base == null && random.chance(30)) {
                type.content.parts.add(new Part(Part.Kind.ANY, 0, 2, List.of(), null, null, null, false));
                type.closed = true;
            }
            if (type.content.kind == Part.Kind.SEQUENCE && !type.mixed && !type.closed) {
                if (random.chance(40)) {
                    type.content.parts.add(new Part(Part.Kind.HEAD, 0, 2, List.of(), null, null, type, false));
                }
                for (int step = random.nextInt(STEPS + 3); step > 2; step--) {
                    type.steps.add(new Part(
                            Part.Kind.SEQUENCE,
                            1,
                            1,
                            List.of(element(0, random.nextInt(2), 1)),
                            null,
                            null,
                            null,
                            false));
                }
            }
            if (random.chance(30) && type.content.kind == Part.Kind.SEQUENCE && !type.closed) {
                type.content.parts.add(
                        0, new Part(Part.Kind.TYPED, 0, 2, List.of(), name("v"), null, null, random.chance(50)));
            }
        }
        type.isAbstract = type.base == null && type.text == null && random.chance(15);
        for (int i = random.nextInt(4); i > 0; i--) {
            type.attributes.add(new String[] {name("a"), builtin(), random.chance(40) ? "required" : "optional"});
        }
        return type;
    }

    private Part all() {
        List<Part> parts = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            parts.add(element(0, random.nextInt(2), 1));
        }
        return new Part(Part.Kind.ALL, 1, 1, parts, null, null, null, false);
    }

    private Part group(int depth, int index, int least, int most) {
        List<Part> parts = new ArrayList<>();
        for (int i = 1 + random.nextInt(4); i > 0; i--) {
            int from = random.nextInt(2);
            int to = Math.max(from, 1) + (random.chance(35) ? random.nextInt(3) : 0);
            parts.add(depth > 0 && random.chance(40) ? group(depth - 1, index, from, to) : element(index, from, to));
        }
        Part.Kind kind = random.chance(60) ? Part.Kind.SEQUENCE : Part.Kind.CHOICE;
        return new Part(kind, least, most, parts, null, null, null, false);
    }

    private Part element(int index, int least, int most) {
        Type type = index > 0 && random.chance(40) ? types.get(random.nextInt(index)) : null;
        return new Part(
                Part.Kind.ELEMENT,
                // What stands for an abstract type may hold that type again.
                type != null && type.isAbstract ? 0 : least,
                most,
                List.of(),
                name("e"),
                type == null ? builtin() : null,
                type,
                random.chance(20));
    }

    private void write(Type type) {
        schema.append("<xs:complexType name=\"").append(type.name).append('"');
        // Text alone has nothing to mix with, whatever is said.
        boolean mixed = type.mixed || type.text != null && type.attributes.size() % 2 == 1;
        schema.append(type.isAbstract ? " abstract=\"true\"" : "")
                .append(mixed ? " mixed=\"true\"" : "")
                .append('>');
        boolean derived = type.base != null || type.text != null;
        if (derived) {
            String base = type.base != null ? type.base.name : "xs:" + type.text;
            schema.append(type.text != null ? "<xs:simpleContent>" : "<xs:complexContent>");
            schema.append("<xs:extension base=\"").append(base).append("\">");
        }
        if (type.content != null) {
            write(type.content, schema);
        }
        for (String[] attribute : type.attributes) {
            schema.append("<xs:attribute name=\"")
                    .append(attribute[0])
                    .append("\" type=\"xs:")
                    .append(attribute[1]);
            schema.append("\" use=\"").append(attribute[2]).append("\"/>");
        }
        if (derived) {
            schema.append("</xs:extension>").append(type.text != null ? "</xs:simpleContent>" : "</xs:complexContent>");
        }
        schema.append("</xs:complexType>\n");
    }

    private void write(Part part, StringBuilder to) {
        String occurs = " minOccurs=\"" + part.least + "\" maxOccurs=\"" + part.most + "\"";
        switch (part.kind) {
            case ELEMENT -> {
                to.append("<xs:element name=\"").append(part.element).append("\" type=\"");
                to.append(part.type == null ? "xs:" + part.simple : part.type.name)
                        .append('"')
                        .append(occurs);
                to.append(part.nillable ? " nillable=\"true\"/>" : "/>");
            }
            case HEAD ->
                to.append("<xs:element ref=\"h")
                        .append(part.type.name)
                        .append('"')
                        .append(occurs)
                        .append("/>");
            case TYPED -> {
                to.append("<xs:element name=\"").append(part.element).append("\" type=\"xs:anySimpleType\"");
                to.append(occurs).append(part.nillable ? " nillable=\"true\"/>" : "/>");
            }
            case ANY ->
                to.append("<xs:any namespace=\"##other\" processContents=\"lax\"")
                        .append(occurs)
                        .append("/>");
            default -> {
                String name = part.kind.name().toLowerCase(Locale.ROOT);
                to.append("<xs:").append(name).append(occurs).append('>');
                part.parts.forEach(inner -> write(inner, to));
                to.append("</xs:").append(name).append('>');
            }
        }
    }

    /** A message of one of the types that are not abstract. */
    public String message() {
        List<Type> concrete = types.stream().filter(type -> !type.isAbstract).toList();
        Type type = concrete.get(random.nextInt(concrete.size()));
        StringBuilder message = new StringBuilder();
        element(
                message,
                "r" + type.name,
                type,
                5,
                " xmlns=\"" + NAMESPACE
                        + "\" xmlns:i=\"http://www.w3.org/2001/XMLSchema-instance\" xmlns:o=\"urn:other\" xmlns:xs=\"http://www.w3.org/2001/XMLSchema\"");
        return message.toString();
    }

    private void element(StringBuilder to, String name, Type declared, int depth, String more) {
        Type type = declared;
        List<Type> derived = types.stream()
                .filter(other -> !other.isAbstract && isDerived(other, declared))
                .toList();
        boolean stated = declared.isAbstract || depth > 0 && !more.contains(" i:type=") && random.chance(25);
        if (stated && !derived.isEmpty()) {
            type = derived.get(random.nextInt(derived.size()));
        }
        to.append('<').append(name).append(more);
        to.append(type != declared || stated && random.chance(30) ? " i:type=\"" + type.name + "\"" : "");
        for (Type owner = type; owner != null; owner = owner.base) {
            for (String[] attribute : owner.attributes) {
                if (attribute[2].equals("required") || random.chance(50)) {
                    to.append(' ')
                            .append(attribute[0])
                            .append("=\"")
                            .append(value(attribute[1]))
                            .append('"');
                }
            }
        }
        to.append('>');
        if (type.text != null) {
            to.append(value(type.text));
        } else {
            content(to, type, depth);
        }
        to.append("</").append(name).append('>');
    }

    private static boolean isDerived(Type type, Type from) {
        return type == from || type.base != null && isDerived(type.base, from);
    }

    private void content(StringBuilder to, Type type, int depth) {
        if (type.base != null) {
            content(to, type.base, depth);
        }
        if (type.content != null) {
            part(to, type.content, depth, type.mixed);
        }
        type.steps.forEach(step -> part(to, step, depth, false));
    }

    private void part(StringBuilder to, Part part, int depth, boolean mixed) {
        int most = depth <= 0 ? part.least : part.most;
        for (int i = part.least + (most > part.least ? random.nextInt(most - part.least + 1) : 0); i > 0; i--) {
            to.append(mixed && random.chance(50) ? "some text" : "");
            once(to, part, depth, mixed);
        }
    }

    private void once(StringBuilder to, Part part, int depth, boolean mixed) {
        switch (part.kind) {
            case SEQUENCE -> part.parts.forEach(inner -> part(to, inner, depth, mixed));
            case CHOICE -> part(to, part.parts.get(random.nextInt(part.parts.size())), depth, mixed);
            case ALL -> {
                List<Part> shuffled = new ArrayList<>(part.parts);
                Collections.shuffle(shuffled, random);
                shuffled.forEach(inner -> part(to, inner, depth, mixed));
            }
            case HEAD -> {
                List<Head> elements = new ArrayList<>(part.type.members);
                if (!part.type.isHeadAbstract) {
                    elements.add(new Head("h" + part.type.name, part.type));
                }
                if (!elements.isEmpty() && depth > 0) {
                    Head one = elements.get(random.nextInt(elements.size()));
                    element(to, one.element, one.type, depth - 1, "");
                }
            }
            case TYPED -> {
                String[] typed = TYPED[random.nextInt(TYPED.length)];
                boolean nil = part.nillable && random.chance(30);
                to.append('<').append(part.element).append(" i:type=\"").append(typed[0]);
                to.append(nil ? "\" i:nil=\"true\">" : "\">").append(nil ? "" : typed[1]);
                to.append("</").append(part.element).append('>');
            }
            case ANY -> to.append("<o:extra v=\"1\">text<o:more/></o:extra>");
            case ELEMENT -> {
                if (part.nillable
                        && (part.type == null || part.type.attributes.isEmpty() && part.type.base == null)
                        && (part.type == null || !part.type.isAbstract)
                        && random.chance(30)) {
                    to.append('<').append(part.element).append(" i:nil=\"true\"/>");
                } else if (part.type == null && random.chance(20) && extending(part.simple) != null) {
                    Type extension = extending(part.simple);
                    element(to, part.element, extension, depth - 1, " i:type=\"" + extension.name + "\"");
                } else if (part.type == null) {
                    to.append('<').append(part.element).append('>').append(value(part.simple));
                    to.append("</").append(part.element).append('>');
                } else {
                    element(to, part.element, part.type, depth - 1, "");
                }
            }
        }
    }

    /** A type that adds attributes to a built-in one and has none derived from it, or null. */
    private Type extending(String builtin) {
        return types.stream()
                .filter(type -> builtin.equals(type.text)
                        && !type.isAbstract
                        && types.stream().noneMatch(other -> other.base == type))
                .findFirst()
                .orElse(null);
    }

    private String value(String builtin) {
        String[] values = VALUES.get(builtin);
        return values[random.nextInt(values.length)]
                .replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace("\"", "&quot;")
                .replace("\t", "&#9;");
    }
}
