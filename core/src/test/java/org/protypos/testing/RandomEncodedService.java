package org.protypos.testing;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * A made-up service in the SOAP encoding (SOAP 1.1, section 5) with messages that its contract wants: structures, arrays of all kinds,
 * values that say their types or do not, and values that stand elsewhere. They are put together as the contract was, not by reading
 * it. The same seed gives the same ones.
 */
public final class RandomEncodedService {
    private static final String ENCODING = "http://schemas.xmlsoap.org/soap/encoding/";
    private static final List<String> NAMES = List.of(
            "item value name list a A class return String Object x key Item tide out size type id href".split(" "));
    private static final Map<String, List<String>> VALUES = new LinkedHashMap<>();

    static {
        VALUES.put("string", List.of("tide", " a  b ", "&lt;&amp;>", "\u00e9"));
        VALUES.put("int", List.of("0", "-7"));
        VALUES.put("boolean", List.of("true", "false"));
        VALUES.put("double", List.of("1.5"));
        VALUES.put("base64Binary", List.of("AAEC"));
        VALUES.put("dateTime", List.of("2027-05-09T10:00:00Z"));
        VALUES.put("unsignedInt", List.of("12"));
    }

    private final Dice random;
    private final List<Type> types = new ArrayList<>();
    private final List<Operation> operations = new ArrayList<>();
    private final StringBuilder schema = new StringBuilder();
    private int count;
    private int ids;

    private enum Kind {
        SIMPLE,
        STRUCTURE,
        ARRAY,
        ANY
    }

    /** A type; of an array {@code item} is the type of its members, of a structure {@code members} has those of its base too. */
    private static final class Type {
        private final Kind kind;
        private final String reference;
        private final List<Member> members = new ArrayList<>();
        private final List<Type> derived = new ArrayList<>();
        private Type item;
        private boolean isAbstract;

        Type(Kind kind, String reference) {
            this.kind = kind;
            this.reference = reference;
        }
    }

    private record Member(String name, Type type, boolean optional, boolean nillable) {}

    /** A value with the type that it is of; what is declared may be another one. */
    private record Value(Type declared, Type type, String text, boolean isNil, List<String> names, List<Value> items) {}

    /** An operation. */
    public record Operation(String name, List<Member> input, List<Member> output, String space) {}

    /**
     * A message.
     *
     * @param said what it says: names and texts without types, members of arrays without names
     */
    public record Carried(String envelope, String said) {}

    /**
     * Makes a service.
     *
     * @param seed decides everything
     */
    public RandomEncodedService(long seed) {
        random = new Dice(seed);
        for (int i = 0; i < 7; i++) {
            declare("Type" + count++);
        }
        for (int i = 0; i < 5; i++) {
            operations.add(new Operation("op" + i, parts(4), parts(2), random.chance(80) ? "urn:rpc" : ""));
        }
    }

    public List<Operation> operations() {
        return operations;
    }

    private Type any() {
        int which = random.nextInt(100);
        if (which < 35 || types.isEmpty()) {
            return new Type(Kind.SIMPLE, "xs:" + random.of(List.copyOf(VALUES.keySet())));
        }
        return which < 42
                ? new Type(Kind.SIMPLE, "enc:" + random.of(List.of("string", "unsignedInt", "dateTime")))
                : which < 47 ? new Type(Kind.ANY, "xs:anyType") : which < 52 ? untyped() : random.of(types);
    }

    /** An array of which no contract says what is in it. */
    private Type untyped() {
        Type array = new Type(Kind.ARRAY, "enc:Array");
        array.item = random.chance(50) ? new Type(Kind.SIMPLE, "xs:int") : new Type(Kind.ANY, "xs:anyType");
        return array;
    }

    private List<Member> parts(int most) {
        Map<String, Member> parts = new LinkedHashMap<>();
        for (int i = random.nextInt(most + 1); i > 0; i--) {
            String name = random.of(NAMES);
            parts.putIfAbsent(name, new Member(name, any(), false, false));
        }
        return List.copyOf(parts.values());
    }

    private void declare(String name) {
        if (random.chance(45)) {
            array(name);
        } else {
            structure(name);
        }
    }

    private void array(String name) {
        Type array = new Type(Kind.ARRAY, "n:" + name);
        array.item = any();
        boolean inAttribute = random.chance(70);
        String members = "<xs:sequence><xs:element name='" + random.of(List.of("item", "x")) + "' type='"
                + array.item.reference + "' minOccurs='0' maxOccurs='unbounded'/></xs:sequence>";
        boolean ofArrays = array.item.kind == Kind.ARRAY && array.item.item.kind != Kind.ARRAY && random.chance(50);
        schema.append("<xs:complexType name='" + name + "'><xs:complexContent><xs:restriction base='enc:Array'>"
                + (inAttribute ? "" : members)
                + (inAttribute
                        ? "<xs:attribute ref='enc:arrayType' w:arrayType='"
                                + (ofArrays ? array.item.item.reference + "[]" : array.item.reference) + "[]'/>"
                        : "")
                + "</xs:restriction></xs:complexContent></xs:complexType>\n");
        types.add(array);
    }

    private void structure(String name) {
        List<Type> bases =
                types.stream().filter(one -> one.kind == Kind.STRUCTURE).toList();
        Type type = new Type(Kind.STRUCTURE, "n:" + name);
        Type base = !bases.isEmpty() && random.chance(40) ? random.of(bases) : null;
        // Whoever is to have a value of it has at least one derived from it.
        type.isAbstract = base == null && random.chance(20);
        Set<String> used = new LinkedHashSet<>();
        if (base != null) {
            type.members.addAll(base.members);
            base.members.forEach(member -> used.add(member.name));
            base.derived.add(type);
        }
        StringBuilder own = new StringBuilder();
        for (int i = random.nextInt(4); i > 0; i--) {
            Member member = new Member(random.of(NAMES), any(), random.chance(40), random.chance(40));
            if (used.add(member.name)) {
                type.members.add(member);
                own.append("<xs:element name='" + member.name + "' type='" + member.type.reference + "' minOccurs='"
                        + (member.optional ? 0 : 1) + "' nillable='" + member.nillable + "'/>");
            }
        }
        String sequence = "<xs:sequence>" + own + "</xs:sequence>";
        schema.append("<xs:complexType name='" + name + "' abstract='" + type.isAbstract + "'>"
                + (base == null
                        ? sequence
                        : "<xs:complexContent><xs:extension base='" + base.reference + "'>" + sequence
                                + "</xs:extension></xs:complexContent>")
                + "</xs:complexType>\n");
        types.add(type);
        if (type.isAbstract) {
            Type derived = new Type(Kind.STRUCTURE, "n:" + name + "Own");
            derived.members.addAll(type.members);
            type.derived.add(derived);
            schema.append("<xs:complexType name='" + name + "Own'><xs:complexContent><xs:extension base='"
                    + type.reference + "'/></xs:complexContent></xs:complexType>\n");
        }
    }

    /** Writes the contract into a folder, and gives its document. */
    public Path layOut(Path folder) throws IOException {
        StringBuilder to = new StringBuilder("<definitions xmlns='http://schemas.xmlsoap.org/wsdl/'"
                + " xmlns:w='http://schemas.xmlsoap.org/wsdl/' xmlns:xs='http://www.w3.org/2001/XMLSchema' xmlns:n='urn:n'"
                + " xmlns:t='urn:service' xmlns:enc='" + ENCODING + "' xmlns:s='http://schemas.xmlsoap.org/wsdl/soap/'"
                + " targetNamespace='urn:service'><types><xs:schema targetNamespace='urn:n'>"
                + (random.chance(50) ? "<xs:import namespace='" + ENCODING + "'/>" : "") + "\n" + schema
                + "</xs:schema></types>\n");
        StringBuilder type = new StringBuilder("<portType name='Desk'>");
        StringBuilder binding = new StringBuilder(
                "<binding name='B' type='t:Desk'><s:binding style='rpc' transport='http://schemas.xmlsoap.org/soap/http'/>");
        for (Operation operation : operations) {
            String name = operation.name;
            message(name + "In", operation.input, to);
            message(name + "Out", operation.output, to);
            type.append("<operation name='" + name + "'><input message='t:" + name + "In'/><output message='t:" + name
                    + "Out'/></operation>\n");
            String body =
                    "<s:body use='encoded' namespace='" + operation.space + "' encodingStyle='" + ENCODING + "'/>";
            binding.append("<operation name='" + name + "'><s:operation soapAction='urn:do/" + name + "'/><input>"
                    + body + "</input><output>" + body + "</output></operation>\n");
        }
        to.append(type).append("</portType>").append(binding);
        to.append(
                "</binding><service name='Office'><port name='P' binding='t:B'><s:address location='http://localhost/p'/></port>"
                        + "</service></definitions>");
        return Files.writeString(folder.resolve("main.wsdl"), to);
    }

    private static void message(String name, List<Member> parts, StringBuilder to) {
        to.append("<message name='" + name + "'>");
        parts.forEach(part -> to.append("<part name='" + part.name + "' type='" + part.type.reference + "'/>"));
        to.append("</message>\n");
    }

    private Value value(Type declared, boolean nillable, int depth) {
        if (nillable && (depth <= 0 || random.chance(20))) {
            return new Value(declared, declared, null, true, List.of(), List.of());
        }
        Type type = actual(declared, depth);
        if (type.kind == Kind.SIMPLE) {
            String name = type.reference.substring(type.reference.indexOf(':') + 1);
            return new Value(declared, type, random.of(VALUES.get(name)), false, List.of(), List.of());
        }
        Value value = new Value(declared, type, null, false, new ArrayList<>(), new ArrayList<>());
        if (type.kind == Kind.ARRAY) {
            for (int i = depth <= 0 ? 0 : random.nextInt(4); i > 0; i--) {
                value.names.add(random.of(List.of("item", "x")));
                value.items.add(value(type.item, false, depth - 1));
            }
        } else {
            for (Member member : type.members) {
                if (!member.optional || depth > 0 && random.chance(70)) {
                    value.names.add(member.name);
                    value.items.add(value(member.type, member.nillable, depth - 1));
                }
            }
        }
        return value;
    }

    private Type actual(Type declared, int depth) {
        if (declared.kind == Kind.ANY) {
            List<Type> structures = types.stream()
                    .filter(one -> one.kind == Kind.STRUCTURE && !one.isAbstract)
                    .toList();
            return depth <= 0 || structures.isEmpty() || random.chance(50)
                    ? new Type(Kind.SIMPLE, "xs:" + random.of(List.copyOf(VALUES.keySet())))
                    : random.chance(40) ? untyped() : random.of(structures);
        }
        List<Type> derived =
                declared.derived.stream().filter(one -> !one.isAbstract).toList();
        return declared.isAbstract || !derived.isEmpty() && random.chance(30) ? random.of(derived) : declared;
    }

    private static void say(String name, Value value, StringBuilder to) {
        to.append(name).append('=');
        if (value.isNil || value.text != null) {
            to.append(
                    value.isNil
                            ? "nil;"
                            : "\"" + value.text.replace("&lt;", "<").replace("&amp;", "&") + "\";");
            return;
        }
        to.append('{');
        for (int i = 0; i < value.items.size(); i++) {
            say(value.type.kind == Kind.ARRAY ? "*" : value.names.get(i), value.items.get(i), to);
        }
        to.append('}');
    }

    /** A request as it may travel. */
    public Carried request(Operation operation) {
        return envelope(operation, operation.name, operation.input);
    }

    /** An answer as it may travel. */
    public Carried answer(Operation operation) {
        return envelope(operation, operation.name + "Response", operation.output);
    }

    private Carried envelope(Operation operation, String name, List<Member> parts) {
        String wrapper = (operation.space.isEmpty() ? "" : "r:") + name;
        StringBuilder to =
                new StringBuilder("<e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/' xmlns:enc='"
                        + ENCODING + "' xmlns:xs='http://www.w3.org/2001/XMLSchema' xmlns:n='urn:n' xmlns:r='"
                        + operation.space.replaceFirst("^$", "urn:none")
                        + "' xmlns:i='http://www.w3.org/2001/XMLSchema-instance'><e:Body e:encodingStyle='" + ENCODING
                        + "'><" + wrapper
                        + ">");
        StringBuilder said = new StringBuilder();
        List<String> later = new ArrayList<>();
        boolean tells = random.chance(50);
        for (Member part : parts) {
            Value value = value(part.type, false, 4);
            say(part.name, value, said);
            write(part.name, value, tells, false, to, later);
        }
        to.append("</" + wrapper + ">");
        later.forEach(to::append);
        return new Carried(to + "</e:Body></e:Envelope>", said.toString());
    }

    private void write(String name, Value value, boolean tells, boolean must, StringBuilder to, List<String> later) {
        if (value.isNil) {
            to.append("<" + name + " i:nil='" + random.of(List.of("true", "1")) + "'/>");
            return;
        }
        boolean apart = random.chance(30);
        if (!apart) {
            content(name, value, tells, must, "", to, later);
            return;
        }
        String id = "id" + ids++;
        to.append("<" + name + " href='#" + id + "'/>");
        int at = later.size();
        later.add("");
        StringBuilder target = new StringBuilder();
        content(
                "value",
                value,
                tells,
                must,
                " id='" + id + "'" + (random.chance(50) ? " enc:root='0'" : ""),
                target,
                later);
        later.set(at, target.toString());
    }

    /**
     * Writes an element.
     *
     * @param must whether nobody knows the type unless it is told: what it is in says nothing of it
     */
    private void content(
            String name, Value value, boolean tells, boolean must, String more, StringBuilder to, List<String> later) {
        boolean isArray = value.type.kind == Kind.ARRAY;
        boolean open = must || value.declared.kind == Kind.ANY;
        String type = open || value.type != value.declared || tells && random.chance(70)
                ? " i:type='" + (isArray && random.chance(60) ? "enc:Array" : value.type.reference) + "'"
                : "";
        boolean ofArrays = isArray && value.type.item.kind == Kind.ARRAY;
        if (isArray && (open || tells || ofArrays || value.type.reference.equals("enc:Array"))) {
            type += " enc:arrayType='"
                    + (ofArrays ? value.type.item.item.reference + "[]" : value.type.item.reference) + "["
                    + value.items.size() + "]'";
        }
        to.append("<" + name + type + more + ">").append(value.text == null ? "" : value.text);
        for (int i = 0; i < value.items.size(); i++) {
            write(value.names.get(i), value.items.get(i), tells, open || ofArrays, to, later);
        }
        to.append("</" + name + ">");
    }
}
