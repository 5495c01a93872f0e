package org.protypos.testing;

import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A made-up service of plain HTTP (WSDL 1.1, sections 4 and 5) with the requests and answers that its contract wants, which are put
 * together as the contract was, not by reading it. The same seed gives the same ones.
 */
public final class RandomHttpService {
    private static final List<String> NAMES =
            List.of("getStatus GetStatus get-status class toString wait equals _open moor Moor return list größe नाम"
                    .split(" "));
    private static final List<String> PARTS =
            List.of("in body return value this a b A class string Value key größe नाम x.y q-r Q_R".split(" "));
    private static final List<String> PLACES = List.of("op", "größe x", "op.do", "a/b", "o+p", "o,p;q", "{op}");
    private static final Map<String, List<String>> VALUES = new LinkedHashMap<>();

    static {
        VALUES.put(
                "xs:string",
                List.of("tide", " a  b ", "<&>", "\u00e9", "a+b=c&d", "100%", "/x/../y?z#f", "\ud834\udd1e", "(a)"));
        VALUES.put("xs:int", List.of("0", "-7"));
        VALUES.put("xs:boolean", List.of("true", "false"));
        VALUES.put("xs:dateTime", List.of("2027-05-09T10:00:00+05:45"));
        VALUES.put("n:Size", List.of("small", "x large"));
        VALUES.put("n:Codes", List.of("a b c", "z"));
    }

    private static final Pattern PLACE = Pattern.compile("\\(([^()]+)\\)");

    private final Dice random;
    private final List<Operation> operations = new ArrayList<>();
    private final StringBuilder elements = new StringBuilder();
    private final String verb;
    private int count;

    private record Part(String name, String type) {}

    private enum Form {
        FIELDS,
        REPLACED,
        DOCUMENT,
        TEXT,
        BYTES
    }

    /** An operation; a document is of an element, everything else of parts. */
    public record Operation(String name, String location, Side input, Side output) {}

    private record Side(Form form, List<Part> parts, String element, String mediaType) {}

    /**
     * What travels.
     *
     * @param path the path beneath the address, and the query behind it; null for an answer
     * @param type the media type of the body, null for none
     * @param isDocument whether the body is XML
     * @param isForm whether the body has fields
     */
    public record Carried(String path, byte[] body, String type, boolean isDocument, boolean isForm) {}

    /**
     * Makes a service.
     *
     * @param seed decides everything
     */
    public RandomHttpService(long seed) {
        random = new Dice(seed);
        verb = random.of(List.of("GET", "POST", "POST", "PUT", "DELETE"));
        Set<String> used = new LinkedHashSet<>();
        while (used.size() < 6) {
            used.add(random.of(NAMES));
        }
        used.forEach(name -> operations.add(operation(name)));
    }

    /** The HTTP method of all operations. */
    public String verb() {
        return verb;
    }

    public List<Operation> operations() {
        return operations;
    }

    private boolean isInAddress() {
        return verb.equals("GET") || verb.equals("DELETE");
    }

    private Operation operation(String name) {
        Form form = random.of(isInAddress() ? List.of(Form.FIELDS, Form.REPLACED) : List.of(Form.values()));
        Side input = side(form);
        Side output = side(random.of(List.of(Form.DOCUMENT, Form.TEXT, Form.BYTES)));
        String location = random.of(List.of("/", "", "/v1/")) + random.of(PLACES) + count++;
        if (random.chance(30)) {
            // Another place may differ in the query alone.
            location = "/same?mode=5%-" + count++;
        }
        if (form == Form.REPLACED) {
            List<Part> parts = new ArrayList<>(input.parts);
            Collections.shuffle(parts, random);
            boolean query = location.contains("?") || random.chance(40);
            for (Part part : parts) {
                location += query
                        ? (location.contains("?") ? "&" : "?") + "k" + count++ + "="
                        : random.of(List.of("/", "/x-"));
                location += "(" + part.name + ")";
            }
        }
        return new Operation(name, location, input, output);
    }

    private Side side(Form form) {
        int most =
                switch (form) {
                    case FIELDS -> random.nextInt(5);
                    case REPLACED -> 1 + random.nextInt(3);
                    case DOCUMENT -> 0;
                    case TEXT, BYTES -> 1;
                };
        Map<String, Part> parts = new LinkedHashMap<>();
        for (int i = 0; i < most; i++) {
            String part = random.of(PARTS);
            String type = form == Form.BYTES
                    ? random.of(List.of("xs:base64Binary", "xs:hexBinary"))
                    : random.of(List.copyOf(VALUES.keySet()));
            parts.put(part, new Part(part, type));
        }
        String mediaType =
                form == Form.BYTES ? random.of(List.of("application/octet-stream", "image/png")) : "text/plain";
        return new Side(form, List.copyOf(parts.values()), form == Form.DOCUMENT ? element() : null, mediaType);
    }

    private String element() {
        String name = "Element" + count++;
        elements.append(
                "<xs:element name='" + name + "'><xs:complexType><xs:sequence><xs:element name='a' type='xs:string'/>"
                        + "<xs:element name='b' type='xs:int' minOccurs='0' maxOccurs='3'/></xs:sequence><xs:attribute name='c'/>"
                        + "</xs:complexType></xs:element>\n");
        return name;
    }

    /** Writes the contract into a folder, and gives its document. */
    public Path layOut(Path folder) throws IOException {
        StringBuilder to = new StringBuilder("<definitions xmlns='http://schemas.xmlsoap.org/wsdl/'"
                + " xmlns:xs='http://www.w3.org/2001/XMLSchema' xmlns:n='urn:n' xmlns:t='urn:service'"
                + " xmlns:h='http://schemas.xmlsoap.org/wsdl/http/' xmlns:m='http://schemas.xmlsoap.org/wsdl/mime/'"
                + " targetNamespace='urn:service'><types><xs:schema targetNamespace='urn:n' elementFormDefault='qualified'>"
                + "<xs:simpleType name='Size'><xs:restriction base='xs:token'><xs:enumeration value='small'/>"
                + "<xs:enumeration value='x large'/></xs:restriction></xs:simpleType>"
                + "<xs:simpleType name='Codes'><xs:list itemType='xs:NMTOKEN'/></xs:simpleType>\n" + elements
                + "</xs:schema></types>\n");
        StringBuilder type = new StringBuilder("<portType name='Desk'>");
        StringBuilder binding = new StringBuilder("<binding name='B' type='t:Desk'><h:binding verb='" + verb + "'/>\n");
        for (Operation operation : operations) {
            String name = operation.name;
            message(name + "In", operation.input, to);
            message(name + "Out", operation.output, to);
            type.append("<operation name='" + name + "'><input message='t:" + name + "In'/><output message='t:" + name
                    + "Out'/></operation>\n");
            binding.append(
                    "<operation name='" + name + "'><h:operation location='" + operation.location.replace("&", "&amp;")
                            + "'/><input>" + bound(operation.input) + "</input><output>" + bound(operation.output)
                            + "</output></operation>\n");
        }
        to.append(type).append("</portType>").append(binding);
        to.append(
                "</binding><service name='Office'><port name='P' binding='t:B'><h:address location='http://localhost/p'/></port>"
                        + "</service></definitions>");
        return Files.writeString(folder.resolve("main.wsdl"), to);
    }

    private static void message(String name, Side side, StringBuilder to) {
        to.append("<message name='" + name + "'>");
        side.parts.forEach(part -> to.append("<part name='" + part.name + "' type='" + part.type + "'/>"));
        to.append(side.element == null ? "" : "<part name='document' element='n:" + side.element + "'/>");
        to.append("</message>\n");
    }

    private String bound(Side side) {
        return switch (side.form) {
            case FIELDS -> isInAddress() ? "<h:urlEncoded/>" : "<m:content type='application/x-www-form-urlencoded'/>";
            case REPLACED -> "<h:urlReplacement/>";
            case DOCUMENT -> "<m:mimeXml part='document'/>";
            case TEXT, BYTES -> "<m:content type='" + side.mediaType + "'/>";
        };
    }

    /** A request as a caller may send it. */
    public Carried request(Operation operation) {
        Map<String, String> values = new LinkedHashMap<>();
        operation.input.parts.forEach(
                part -> values.put(part.name, VALUES.containsKey(part.type) ? random.of(VALUES.get(part.type)) : ""));
        String path = (operation.location.startsWith("/") ? "" : "/") + operation.location;
        Carried body = body(operation.input, values);
        if (operation.input.form == Form.REPLACED) {
            StringBuilder replaced = new StringBuilder();
            Matcher place = PLACE.matcher(path);
            int at = 0;
            for (; place.find(); at = place.end()) {
                replaced.append(inPath(path.substring(at, place.start()))).append(escaped(values.get(place.group(1))));
            }
            path = replaced + inPath(path.substring(at));
        } else {
            path = inPath(path);
            if (isInAddress() && body.body.length > 0) {
                path += (path.contains("?") ? "&" : "?") + new String(body.body, StandardCharsets.US_ASCII);
            }
        }
        return isInAddress()
                ? new Carried(path, new byte[0], null, false, false)
                : new Carried(path, body.body, body.type, body.isDocument, body.isForm);
    }

    /** An answer as a server may send it. */
    public Carried answer(Operation operation) {
        Map<String, String> values = new LinkedHashMap<>();
        operation.output.parts.forEach(
                part -> values.put(part.name, VALUES.containsKey(part.type) ? random.of(VALUES.get(part.type)) : ""));
        return body(operation.output, values);
    }

    private Carried body(Side side, Map<String, String> values) {
        return switch (side.form) {
            case FIELDS ->
                new Carried(
                        null,
                        form(values).getBytes(StandardCharsets.US_ASCII),
                        "application/x-www-form-urlencoded",
                        false,
                        true);
            case REPLACED -> new Carried(null, new byte[0], null, false, false);
            case DOCUMENT ->
                new Carried(null, document(side.element).getBytes(StandardCharsets.UTF_8), "text/xml", true, false);
            case TEXT ->
                new Carried(
                        null,
                        values.values().iterator().next().getBytes(StandardCharsets.UTF_8),
                        side.mediaType,
                        false,
                        false);
            case BYTES -> new Carried(null, new byte[] {1, 2, (byte) random.nextInt()}, side.mediaType, false, false);
        };
    }

    private String form(Map<String, String> values) {
        List<String> fields = new ArrayList<>();
        values.forEach((name, value) -> fields.add(escaped(name) + "="
                + (random.chance(50) ? escaped(value) : URLEncoder.encode(value, StandardCharsets.UTF_8))));
        if (random.chance(30)) {
            Collections.shuffle(fields, random);
        }
        return String.join("&", fields);
    }

    private String document(String element) {
        StringBuilder to = new StringBuilder("<n:" + element + " xmlns:n='urn:n'" + (random.chance(50) ? " c='z'" : "")
                + "><n:a>" + random.of(List.of("t", " a  b ", "&lt;", "\u00e9", "")) + "</n:a>");
        for (int i = random.nextInt(4); i > 0; i--) {
            to.append("<n:b>" + i + "</n:b>");
        }
        return to + "</n:" + element + ">";
    }

    private static String escaped(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    /** Escapes what a URI does not have, and nothing that means something in one. */
    private static String inPath(String text) {
        StringBuilder path = new StringBuilder();
        for (int i = 0; i < text.length(); i += Character.charCount(text.codePointAt(i))) {
            String one = Character.toString(text.codePointAt(i));
            path.append(one.matches("[!-~&&[^{}%]]") ? one : escaped(one));
        }
        return path.toString();
    }
}
