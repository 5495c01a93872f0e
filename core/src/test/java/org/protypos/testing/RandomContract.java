package org.protypos.testing;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;

/**
 * A made-up schema with made-up messages that are valid by construction. The same seed gives the same ones. Element names
 * occur once in each content model, so that no model is ambiguous.
 */
public final class RandomContract {
    private static final String NAMESPACE = "urn:random";

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

    private final Random random;
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
        private final List<String[]> attributes = new ArrayList<>();

        Type(String name) {
            this.name = name;
        }
    }

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
        random = new Random(seed);
        for (int i = 0; i < size; i++) {
            types.add(type(i));
        }
        for (Type type : types) {
            type.isAbstract &= types.stream().anyMatch(other -> !other.isAbstract && isDerived(other, type));
        }
        schema.append("<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\" xmlns=\"urn:random\"")
                .append(" targetNamespace=\"urn:random\" elementFormDefault=\"qualified\">\n");
        for (Type type : types) {
            if (!type.isAbstract) {
                schema.append("<xs:element name=\"r")
                        .append(type.name)
                        .append("\" type=\"")
                        .append(type.name)
                        .append("\"/>\n");
            }
            write(type);
        }
        schema.append("</xs:schema>\n");
    }

    /** The schema. */
    public String schema() {
        return schema.toString();
    }

    private String name(String prefix) {
        return prefix + names++;
    }

    private boolean chance(int percent) {
        return random.nextInt(100) < percent;
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
            if (type.content.kind == Part.Kind.SEQUENCE && type.base == null && chance(30)) {
                type.content.parts.add(new Part(Part.Kind.ANY, 0, 2, List.of(), null, null, null, false));
                type.closed = true;
            }
        }
        type.isAbstract = type.base == null && type.text == null && chance(15);
        for (int i = random.nextInt(4); i > 0; i--) {
            type.attributes.add(new String[] {name("a"), builtin(), chance(40) ? "required" : "optional"});
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
            int to = Math.max(from, 1) + (chance(35) ? random.nextInt(3) : 0);
            parts.add(depth > 0 && chance(40) ? group(depth - 1, index, from, to) : element(index, from, to));
        }
        Part.Kind kind = chance(60) ? Part.Kind.SEQUENCE : Part.Kind.CHOICE;
        return new Part(kind, least, most, parts, null, null, null, false);
    }

    private Part element(int index, int least, int most) {
        Type type = index > 0 && chance(40) ? types.get(random.nextInt(index)) : null;
        return new Part(
                Part.Kind.ELEMENT,
                least,
                most,
                List.of(),
                name("e"),
                type == null ? builtin() : null,
                type,
                chance(20));
    }

    private void write(Type type) {
        schema.append("<xs:complexType name=\"").append(type.name).append('"');
        schema.append(type.isAbstract ? " abstract=\"true\"" : "")
                .append(type.mixed ? " mixed=\"true\"" : "")
                .append('>');
        boolean derived = type.base != null || type.text != null;
        if (derived) {
            String base = type.base != null ? type.base.name : "xs:" + type.text;
            schema.append(type.text != null ? "<xs:simpleContent>" : "<xs:complexContent>");
            schema.append("<xs:extension base=\"").append(base).append("\">");
        }
        if (type.content != null) {
            write(type.content);
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

    private void write(Part part) {
        String occurs = " minOccurs=\"" + part.least + "\" maxOccurs=\"" + part.most + "\"";
        switch (part.kind) {
            case ELEMENT -> {
                schema.append("<xs:element name=\"").append(part.element).append("\" type=\"");
                schema.append(part.type == null ? "xs:" + part.simple : part.type.name)
                        .append('"')
                        .append(occurs);
                schema.append(part.nillable ? " nillable=\"true\"/>" : "/>");
            }
            case ANY ->
                schema.append("<xs:any namespace=\"##other\" processContents=\"lax\"")
                        .append(occurs)
                        .append("/>");
            default -> {
                String name = part.kind.name().toLowerCase(Locale.ROOT);
                schema.append("<xs:").append(name).append(occurs).append('>');
                part.parts.forEach(this::write);
                schema.append("</xs:").append(name).append('>');
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
                        + "\" xmlns:i=\"http://www.w3.org/2001/XMLSchema-instance\" xmlns:o=\"urn:other\"");
        return message.toString();
    }

    private void element(StringBuilder to, String name, Type declared, int depth, String more) {
        Type type = declared;
        List<Type> derived = types.stream()
                .filter(other -> !other.isAbstract && isDerived(other, declared))
                .toList();
        boolean stated = declared.isAbstract || chance(25);
        if (stated && !derived.isEmpty()) {
            type = derived.get(random.nextInt(derived.size()));
        }
        to.append('<').append(name).append(more);
        to.append(type != declared || stated && chance(30) ? " i:type=\"" + type.name + "\"" : "");
        for (Type owner = type; owner != null; owner = owner.base) {
            for (String[] attribute : owner.attributes) {
                if (attribute[2].equals("required") || chance(50)) {
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
    }

    private void part(StringBuilder to, Part part, int depth, boolean mixed) {
        int most = depth <= 0 ? part.least : part.most;
        for (int i = part.least + (most > part.least ? random.nextInt(most - part.least + 1) : 0); i > 0; i--) {
            to.append(mixed && chance(50) ? "some text" : "");
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
            case ANY -> to.append("<o:extra v=\"1\">text<o:more/></o:extra>");
            case ELEMENT -> {
                if (part.nillable
                        && (part.type == null || part.type.attributes.isEmpty() && part.type.base == null)
                        && (part.type == null || !part.type.isAbstract)
                        && chance(30)) {
                    to.append('<').append(part.element).append(" i:nil=\"true\"/>");
                } else if (part.type == null) {
                    to.append('<').append(part.element).append('>').append(value(part.simple));
                    to.append("</").append(part.element).append('>');
                } else {
                    element(to, part.element, part.type, depth - 1, "");
                }
            }
        }
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
