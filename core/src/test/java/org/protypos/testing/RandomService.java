package org.protypos.testing;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * A made-up service with the messages that its contract wants, which are put together as the contract was, not by reading it. Every
 * operation is offered at a port of SOAP 1.1, {@code P11}, and at one of SOAP 1.2, {@code P12}. The same seed gives the same ones.
 */
public final class RandomService {
    private static final List<String> NAMES = List.of(
            ("getStatus GetStatus get-status class toString notify wait equals x Status request.status _open moor Moor MOOR return"
                            + " value berthRequest run client Endpoint hashCode String Object list List Answer answer close result")
                    .split(" "));
    private static final List<String> PARTS = List.of(
            "in parameters body return value this args a b A c result header fault class string Value".split(" "));
    private static final Map<String, List<String>> VALUES = Map.of(
            "string", List.of("tide", " a  b ", "&lt;&amp;", "\u00e9", ""),
            "token", List.of("east"),
            "int", List.of("0", "-7", "12"),
            "decimal", List.of("1.50", "0", "-3"),
            "boolean", List.of("true", "false"),
            "dateTime", List.of("2027-05-09T10:00:00Z"),
            "base64Binary", List.of("AAEC", ""));
    private static final List<String> SIMPLE = VALUES.keySet().stream().sorted().toList();

    private final Dice random;
    private final boolean[] qualified = new boolean[2];
    private final StringBuilder[] schemas = {new StringBuilder(), new StringBuilder()};
    private final List<Type> types = new ArrayList<>();
    private final List<Operation> operations = new ArrayList<>();
    private final Map<String, String> documents = new LinkedHashMap<>();
    private final boolean isRpc;
    private int count;

    /** A type: a built-in one, or a sequence in one of the two namespaces. */
    private record Type(String name, int space, List<Member> members, String attribute) {
        String reference() {
            return space < 0 ? "xs:" + name : "n" + space + ":" + name;
        }
    }

    private record Member(String prefix, String name, Type type, int least, int most, boolean nillable) {}

    /** A global element. */
    private record Element(int space, String name, Type type) {
        String prefixed() {
            return "n" + space + ":" + name;
        }
    }

    /** A part: of an element or of a type. */
    private record Part(String name, Element element, Type type) {}

    private record Header(String message, Part part) {}

    private record Fault(String name, String message, Part part) {}

    /** A message with what the binding says of it; {@code parts} stand in the body. */
    private record Message(String name, List<Part> parts, List<Header> headers, String space) {}

    /** An operation; {@code output} is null when it has one way. */
    public static final class Operation {
        private final String name;
        private final boolean isRpc;
        private final String action;
        private final Message input;
        private final Message output;
        private final List<Fault> faults;

        private Operation(
                String name, boolean isRpc, String action, Message input, Message output, List<Fault> faults) {
            this.name = name;
            this.isRpc = isRpc;
            this.action = action;
            this.input = input;
            this.output = output;
            this.faults = faults;
        }

        public String name() {
            return name;
        }

        public String action() {
            return action;
        }

        public boolean isOneWay() {
            return output == null;
        }

        @Override
        public String toString() {
            return (isRpc ? "rpc " : "document ") + name;
        }
    }

    /**
     * Makes a service.
     *
     * @param seed decides everything
     */
    public RandomService(long seed) {
        random = new Dice(seed);
        qualified[0] = random.chance(70);
        qualified[1] = random.chance(40);
        isRpc = random.chance(40);
        for (int i = 0; i < 4; i++) {
            complex();
        }
        boolean mixed = random.chance(30);
        Set<String> used = new HashSet<>();
        for (int i = 0; i < 6; i++) {
            String name = random.of(NAMES);
            if (used.add(name)) {
                operations.add(operation(name, mixed ? random.chance(50) : isRpc));
            }
        }
        write();
    }

    /** Writes the documents of the contract into a folder, and gives the one to begin with. */
    public Path layOut(Path folder) throws IOException {
        for (Map.Entry<String, String> document : documents.entrySet()) {
            Files.writeString(folder.resolve(document.getKey()), document.getValue());
        }
        return folder.resolve("main.wsdl");
    }

    public List<Operation> operations() {
        return operations;
    }

    private Type any() {
        return random.chance(50) || types.isEmpty()
                ? new Type(random.of(SIMPLE), -1, List.of(), null)
                : random.of(types);
    }

    private void complex() {
        int space = random.nextInt(2);
        List<Member> members = new ArrayList<>();
        Set<String> used = new HashSet<>();
        String name = random.of(List.of("Vessel", "Berth", "Type", "vessel", "Request", "Need")) + count++;
        StringBuilder schema = schemas[space].append("<xs:complexType name='" + name + "'><xs:sequence>");
        for (int i = random.nextInt(4); i > 0; i--) {
            Member member = new Member(
                    qualified[space] ? "n" + space + ":" : "",
                    random.of(PARTS) + (random.chance(30) ? "" : count++),
                    any(),
                    random.chance(60) ? 1 : 0,
                    random.chance(25) ? 3 : 1,
                    random.chance(15));
            if (used.add(member.name)) {
                members.add(member);
                schema.append("<xs:element name='" + member.name + "' type='" + member.type.reference()
                        + "' minOccurs='" + member.least + "' maxOccurs='" + member.most + "' nillable='"
                        + member.nillable + "'/>");
            }
        }
        String attribute = random.chance(30) ? random.of(SIMPLE) : null;
        schema.append("</xs:sequence>")
                .append(attribute == null ? "" : "<xs:attribute name='at' type='xs:" + attribute + "'/>")
                .append("</xs:complexType>\n");
        types.add(new Type(name, space, members, attribute));
    }

    private Element element(Type type) {
        Element element = new Element(random.nextInt(2), random.of(NAMES) + count++, type);
        schemas[element.space].append("<xs:element name='" + element.name + "' type='" + type.reference() + "'/>\n");
        return element;
    }

    private Operation operation(String name, boolean rpc) {
        Message input = message("M" + count++ + "In", rpc);
        Message output = random.chance(85) ? message("M" + count++ + "Out", rpc) : null;
        List<Fault> faults = new ArrayList<>();
        for (int i = output == null ? 0 : random.nextInt(3); i > 0; i--) {
            faults.add(new Fault(
                    "F" + count++, "M" + count++ + "Fault", new Part(random.of(PARTS), element(any()), null)));
        }
        // Nothing but the action tells what an empty body is for.
        boolean told = rpc || !input.parts.isEmpty();
        return new Operation(name, rpc, told && random.chance(20) ? "" : "urn:do/" + name, input, output, faults);
    }

    private Message message(String name, boolean rpc) {
        List<Part> parts = new ArrayList<>();
        if (rpc) {
            Set<String> used = new HashSet<>();
            for (int i = random.nextInt(4); i > 0; i--) {
                String part = random.of(PARTS);
                if (used.add(part)) {
                    parts.add(new Part(part, null, any()));
                }
            }
        } else if (random.chance(80)) {
            parts.add(new Part(random.of(PARTS), element(any()), null));
        }
        List<Header> headers = new ArrayList<>();
        for (int i = random.chance(25) ? 1 + random.nextInt(2) : 0; i > 0; i--) {
            headers.add(new Header(
                    random.chance(50) ? name : name + "H" + i, new Part("H" + count++, element(any()), null)));
        }
        return new Message(
                name, parts, headers, rpc && random.chance(85) ? random.of(List.of("urn:rpc", "urn:n0")) : "");
    }

    private void write() {
        boolean inTwo = random.chance(40);
        String start =
                "<definitions xmlns='http://schemas.xmlsoap.org/wsdl/' xmlns:xs='http://www.w3.org/2001/XMLSchema'"
                        + " xmlns:n0='urn:n0' xmlns:n1='urn:n1' xmlns:t='urn:service' xmlns:m='urn:"
                        + (inTwo ? "messages" : "service")
                        + "' xmlns:P11='http://schemas.xmlsoap.org/wsdl/soap/' xmlns:P12='http://schemas.xmlsoap.org/wsdl/soap12/'";
        String own = start + " targetNamespace='urn:service'>\n";
        StringBuilder messages = types();
        for (Operation operation : operations) {
            write(operation.input, messages);
            if (operation.output != null) {
                write(operation.output, messages);
            }
            operation.faults.forEach(fault -> message(fault.message, List.of(fault.part), messages));
        }
        if (inTwo) {
            documents.put(
                    "messages.wsdl", start + " targetNamespace='urn:messages'>\n" + messages + "</definitions>\n");
            documents.put(
                    "main.wsdl",
                    own + "<import namespace='urn:messages' location='messages.wsdl'/>\n" + service()
                            + "</definitions>\n");
        } else {
            documents.put("main.wsdl", own + messages + service() + "</definitions>\n");
        }
    }

    private StringBuilder types() {
        boolean apart = random.chance(50);
        StringBuilder types = new StringBuilder("<types>");
        for (int space = 0; space < 2; space++) {
            String schema = "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema' xmlns:n0='urn:n0' xmlns:n1='urn:n1'"
                    + " targetNamespace='urn:n" + space + "' elementFormDefault='"
                    + (qualified[space] ? "qualified" : "unqualified") + "'><xs:import namespace='urn:n" + (1 - space)
                    + "'"
                    + (apart ? " schemaLocation='n" + (1 - space) + ".xsd'" : "") + "/>\n" + schemas[space]
                    + "</xs:schema>\n";
            if (apart) {
                documents.put("n" + space + ".xsd", schema);
                types.append("<xs:schema><xs:import namespace='urn:n" + space + "' schemaLocation='n" + space
                        + ".xsd'/></xs:schema>");
            } else {
                types.append(schema);
            }
        }
        return types.append("</types>\n");
    }

    private static void write(Message message, StringBuilder to) {
        List<Part> parts = new ArrayList<>(message.parts);
        for (Header header : message.headers) {
            if (header.message.equals(message.name)) {
                parts.add(header.part);
            } else {
                message(header.message, List.of(header.part), to);
            }
        }
        message(message.name, parts, to);
    }

    private static void message(String name, List<Part> parts, StringBuilder to) {
        to.append("<message name='" + name + "'>");
        for (Part part : parts) {
            to.append("<part name='" + part.name + "' "
                    + (part.element == null
                            ? "type='" + part.type.reference() + "'/>"
                            : "element='" + part.element.prefixed() + "'/>"));
        }
        to.append("</message>\n");
    }

    private StringBuilder service() {
        StringBuilder to = new StringBuilder("<portType name='Desk'>\n");
        for (Operation operation : operations) {
            to.append("<operation name='" + operation.name + "'><input message='m:" + operation.input.name + "'/>");
            to.append(operation.output == null ? "" : "<output message='m:" + operation.output.name + "'/>");
            operation.faults.forEach(
                    fault -> to.append("<fault name='" + fault.name + "' message='m:" + fault.message + "'/>"));
            to.append("</operation>\n");
        }
        to.append("</portType>\n");
        for (String port : List.of("P11", "P12")) {
            to.append("<binding name='B" + port + "' type='t:Desk'><" + port + ":binding style='"
                    + (isRpc ? "rpc" : "document") + "' transport='http://schemas.xmlsoap.org/soap/http'/>\n");
            for (Operation operation : operations) {
                to.append("<operation name='" + operation.name + "'><" + port + ":operation soapAction='"
                        + operation.action + "' style='" + (operation.isRpc ? "rpc" : "document") + "'/>");
                to.append("<input>" + bound(port, operation.input) + "</input>");
                to.append(operation.output == null ? "" : "<output>" + bound(port, operation.output) + "</output>");
                operation.faults.forEach(fault -> to.append("<fault name='" + fault.name + "'><" + port
                        + ":fault name='" + fault.name + "' use='literal'/></fault>"));
                to.append("</operation>\n");
            }
            to.append("</binding>\n");
        }
        to.append("<service name='Office'>");
        for (String port : List.of("P11", "P12")) {
            to.append("<port name='" + port + "' binding='t:B" + port + "'><" + port
                    + ":address location='http://localhost/desk'/></port>");
        }
        return to.append("</service>\n");
    }

    private String bound(String port, Message message) {
        StringBuilder body = new StringBuilder("<" + port + ":body use='literal'");
        body.append(message.space.isEmpty() ? "" : " namespace='" + message.space + "'");
        StringBuilder headers = new StringBuilder();
        boolean named = false;
        for (Header header : message.headers) {
            named |= header.message.equals(message.name);
            headers.append("<" + port + ":header message='m:" + header.message + "' part='" + header.part.name
                    + "' use='literal'/>");
        }
        body.append(
                named
                        ? " parts='"
                                + String.join(
                                        " ",
                                        message.parts.stream().map(Part::name).toList()) + "'/>"
                        : "/>");
        return random.chance(50)
                ? body.append(headers).toString()
                : headers.append(body).toString();
    }

    /** A request as it has to travel. */
    public String request(Operation operation, boolean soap12) {
        return envelope(operation, operation.input, operation.name, soap12);
    }

    /** An answer as it has to travel. */
    public String answer(Operation operation, boolean soap12) {
        return envelope(operation, operation.output, operation.name + "Response", soap12);
    }

    private String envelope(Operation operation, Message message, String wrapper, boolean soap12) {
        StringBuilder text = new StringBuilder(start(soap12));
        if (!message.headers.isEmpty()) {
            text.append("<e:Header>");
            message.headers.forEach(header -> text.append(written(header.part.element)));
            text.append("</e:Header>");
        }
        text.append("<e:Body>");
        if (operation.isRpc) {
            String name = message.space.isEmpty() ? wrapper : "w:" + wrapper;
            text.append("<" + name + (message.space.isEmpty() ? ">" : " xmlns:w='" + message.space + "'>"));
            message.parts.forEach(part -> written(part.name, part.type, 3, text));
            text.append("</" + name + ">");
        } else {
            message.parts.forEach(part -> text.append(written(part.element)));
        }
        return text + "</e:Body></e:Envelope>";
    }

    /** All declared faults of an operation as they may travel, with codes of all kinds. */
    public List<String> faults(Operation operation, boolean soap12) {
        List<String> faults = new ArrayList<>();
        for (Fault fault : operation.faults) {
            String general = soap12
                    ? random.of(List.of("Sender", "Receiver"))
                    : random.of(List.of("Client", "Server", "Client.Berth"));
            boolean own = random.chance(40);
            String detail = written(fault.part.element);
            faults.add(
                    soap12
                            ? start(true) + "<e:Body><e:Fault><e:Code><e:Value>e:" + general + "</e:Value>"
                                    + (own ? "<e:Subcode><e:Value>n1:full</e:Value></e:Subcode>" : "")
                                    + "</e:Code><e:Reason><e:Text xml:lang='en'>no berth</e:Text></e:Reason><e:Detail>"
                                    + detail
                                    + "</e:Detail></e:Fault></e:Body></e:Envelope>"
                            : start(false) + "<e:Body><e:Fault><faultcode>" + (own ? "n1:full" : "e:" + general)
                                    + "</faultcode><faultstring>no berth</faultstring><detail>" + detail
                                    + "</detail></e:Fault></e:Body></e:Envelope>");
        }
        return faults;
    }

    private static String start(boolean soap12) {
        return "<e:Envelope xmlns:e='"
                + (soap12 ? "http://www.w3.org/2003/05/soap-envelope" : "http://schemas.xmlsoap.org/soap/envelope/")
                + "' xmlns:n0='urn:n0' xmlns:n1='urn:n1' xmlns:i='http://www.w3.org/2001/XMLSchema-instance'>";
    }

    private String written(Element element) {
        StringBuilder text = new StringBuilder();
        written(element.prefixed(), element.type, 3, text);
        return text.toString();
    }

    private void written(String name, Type type, int depth, StringBuilder to) {
        to.append('<').append(name);
        if (type.space < 0) {
            to.append('>').append(random.of(VALUES.get(type.name)));
        } else {
            if (type.attribute != null && random.chance(70)) {
                String value = random.of(VALUES.get(type.attribute));
                to.append(" at='").append(value).append('\'');
            }
            to.append('>');
            for (Member member : type.members) {
                int least = member.least;
                int times = least == 0 && (depth <= 0 || random.chance(30))
                        ? 0
                        : member.most > 1 ? 1 + random.nextInt(3) : 1;
                for (int i = 0; i < times; i++) {
                    if (member.nillable && random.chance(40)) {
                        to.append("<" + member.prefix + member.name + " i:nil='true'/>");
                    } else {
                        written(member.prefix + member.name, member.type, depth - 1, to);
                    }
                }
            }
        }
        to.append("</").append(name).append('>');
    }
}
