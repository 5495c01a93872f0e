package org.protypos.runtime.soap;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.runtime.xml.Reading;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlOutput;
import org.protypos.runtime.xml.XmlTree;
import org.protypos.runtime.xml.XmlTypes;

/**
 * The parts of a message as names and values, in a query, a form or a path (WSDL 1.1, sections 4.5 and 4.6). Messages read
 * and write elements only, so the fields are the elements of a small document in between.
 */
final class Fields {
    private static final String AROUND = "fields";
    private static final int MOST = 1_000;
    private static final Pattern MISSING = Pattern.compile("expected <([^>]*)>, but ");
    private static final Pattern UNKNOWN = Pattern.compile("<([^>]*)> is not expected here");
    private static final Pattern PLACEHOLDER = Pattern.compile("\\(([^()/?&]+)\\)");

    /** What may stand in XML (XML 1.0, section 2.2). */
    private static final Pattern WRITABLE =
            Pattern.compile("[\\t\\n\\r\\x{20}-\\x{D7FF}\\x{E000}-\\x{FFFD}\\x{10000}-\\x{10FFFF}]*");

    private final List<String[]> pairs = new ArrayList<>();

    /** The fields of a message that is sent. */
    static Fields of(SoapMessage message, XmlTypes types) {
        XmlOutput out = new XmlOutput(types);
        out.open("", AROUND);
        message.writeBody(out);
        out.close();
        XmlTree tree = XmlTypes.NONE.read(new ByteArrayInputStream(out.finish()), XmlTree.class);
        Fields fields = new Fields();
        for (Object wrapper : tree.content()) {
            for (Object part : ((XmlTree) ((XmlElement<?>) wrapper).value()).content()) {
                if (part instanceof XmlElement<?> element) {
                    fields.add(element.name().getLocalPart(), ((XmlTree) element.value()).text());
                }
            }
        }
        return fields;
    }

    /** The fields of a query or a form. */
    static Fields parse(String text) {
        Fields fields = new Fields();
        for (String pair : text.split("&")) {
            String[] sides = pair.split("=", 2);
            if (!pair.isEmpty()) {
                fields.add(decoded(sides[0]), sides.length == 1 ? "" : decoded(sides[1]));
            }
        }
        return fields;
    }

    /** The fields of a request: those in its address when it is asked by GET, those of its body otherwise. */
    static Fields of(Request request) throws IOException {
        return parse(
                request.method().equals("GET")
                        ? Objects.requireNonNullElse(request.query(), "")
                        : new String(request.message().body(), StandardCharsets.UTF_8));
    }

    /** The values by their names. */
    Map<String, String> byName() {
        Map<String, String> values = new LinkedHashMap<>();
        pairs.forEach(pair -> values.put(pair[0], pair[1]));
        return values;
    }

    private void add(String name, String value) {
        if (pairs.size() == MOST) {
            throw new Request.Refused(400, "there are more than " + MOST + " fields");
        }
        if (!WRITABLE.matcher(value).matches()) {
            throw new Request.Refused(400, "a field holds characters that have no place in XML");
        }
        pairs.add(new String[] {name, value});
    }

    private static String decoded(String text) {
        try {
            return URLDecoder.decode(text, StandardCharsets.UTF_8);
        } catch (IllegalArgumentException e) {
            throw new Request.Refused(400, "a field is not URL-encoded: " + Endpoint.printable(text));
        }
    }

    /** The fields as a query or a form. */
    String encoded() {
        List<String> encoded = new ArrayList<>();
        for (String[] pair : pairs) {
            encoded.add(URLEncoder.encode(pair[0], StandardCharsets.UTF_8) + "="
                    + URLEncoder.encode(pair[1], StandardCharsets.UTF_8));
        }
        return String.join("&", encoded);
    }

    /** The location with each part's name in round brackets replaced by its value. */
    String replacedIn(String location) {
        Matcher matcher = PLACEHOLDER.matcher(location);
        StringBuilder replaced = new StringBuilder();
        while (matcher.find()) {
            String value = value(matcher.group(1));
            String text = URLEncoder.encode(value == null ? "" : value, StandardCharsets.UTF_8)
                    .replace("+", "%20");
            matcher.appendReplacement(replaced, Matcher.quoteReplacement(text));
        }
        return matcher.appendTail(replaced).toString();
    }

    private String value(String name) {
        for (String[] pair : pairs) {
            if (pair[0].equals(name)) {
                return pair[1];
            }
        }
        return null;
    }

    /** The values that stand in a path where the location has names in round brackets; null when the two do not fit. */
    static Fields taken(String location, String path) {
        Matcher matcher = PLACEHOLDER.matcher(location);
        List<String> names = new ArrayList<>();
        StringBuilder pattern = new StringBuilder();
        int at = 0;
        while (matcher.find()) {
            pattern.append(literal(location.substring(at, matcher.start())));
            int known = names.indexOf(matcher.group(1));
            if (known < 0) {
                names.add(matcher.group(1));
                pattern.append("([^/?&]*)");
            } else {
                // Wherever a part stands it has the same value.
                pattern.append("(?:\\").append(known + 1).append(")");
            }
            at = matcher.end();
        }
        pattern.append(literal(location.substring(at)));
        // Round brackets that are no places mean the same either way.
        Matcher fits = Pattern.compile(pattern.toString())
                .matcher(path.replace("(", "%28").replace(")", "%29"));
        if (!fits.matches()) {
            return null;
        }
        Fields fields = new Fields();
        for (int i = 0; i < names.size(); i++) {
            fields.add(names.get(i), decoded(fits.group(i + 1).replace("+", "%2B")));
        }
        return fields;
    }

    private static String literal(String text) {
        return Pattern.quote(Request.escaped(text));
    }

    /** Has a message read the fields. */
    void readInto(SoapMessage message, XmlTypes types, Reading reading) {
        XmlOutput out = new XmlOutput(XmlTypes.NONE);
        out.open("", AROUND);
        for (String[] pair : pairs) {
            out.element("", isName(pair[0]) ? pair[0] : "unnamed", pair[1]);
        }
        out.close();
        try {
            reading.read(out.finish(), null, types, null, in -> {
                message.readBody(in);
                in.finish();
                return message;
            });
        } catch (XmlFormatException e) {
            throw new Request.Refused(400, ofFields(e));
        }
    }

    /** What is wrong in the words of somebody who has sent fields and seen no XML. */
    private static String ofFields(XmlFormatException wrong) {
        Matcher missing = MISSING.matcher(wrong.reason());
        if (missing.lookingAt()) {
            return "the field " + missing.group(1) + " is missing";
        }
        Matcher unknown = UNKNOWN.matcher(wrong.reason());
        if (unknown.lookingAt()) {
            return "the field " + unknown.group(1) + " is not expected, or is there more than once";
        }
        String name = wrong.path().substring(wrong.path().lastIndexOf('/') + 1);
        return name.equals(AROUND) || name.isEmpty() ? wrong.reason() : "the field " + name + ": " + wrong.reason();
    }

    private static boolean isName(String text) {
        return text.matches("[\\p{L}_][\\p{L}\\p{N}._-]*");
    }
}
