package org.protypos.runtime.soap;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.protypos.runtime.parse.Characters;
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

    private final List<Pair> pairs = new ArrayList<>();

    private record Pair(String name, String value) {}

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

    /** The values of all fields, one after the other: of a message that is one value, that one. */
    String text() {
        return pairs.stream().map(Pair::value).collect(Collectors.joining());
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

    /** Whether a method has fields in the address, not in a body (RFC 9110, section 9.3). */
    static boolean areInAddress(String verb) {
        return List.of("GET", "HEAD", "DELETE").contains(verb);
    }

    /** The fields of a request for an operation, without those that its location has; in its address or in its body. */
    static Fields of(Request request, String location) throws IOException {
        return areInAddress(request.method())
                ? inQuery(request).without(inQuery(location))
                : parse(new String(request.message().body(), StandardCharsets.UTF_8));
    }

    /** The fields in the query of a request. */
    static Fields inQuery(Request request) {
        return parse(Objects.requireNonNullElse(request.query(), ""));
    }

    /** The fields that a location has by itself. */
    static Fields inQuery(String location) {
        int query = location.indexOf('?');
        return parse(query < 0 ? "" : Request.normal(location.substring(query + 1)));
    }

    /** These fields without some of them; null when those are not all there. */
    Fields without(Fields others) {
        Fields rest = new Fields();
        rest.pairs.addAll(pairs);
        return others.pairs.stream().allMatch(rest.pairs::remove) ? rest : null;
    }

    int size() {
        return pairs.size();
    }

    /** The values by their names. */
    Map<String, String> byName() {
        Map<String, String> values = new LinkedHashMap<>();
        pairs.forEach(pair -> values.put(pair.name, pair.value));
        return values;
    }

    private void add(String name, String value) {
        if (pairs.size() == MOST) {
            throw new Request.Refused(400, "there are more than " + MOST + " fields");
        }
        if (!value.codePoints().allMatch(Characters::isLegal)) {
            throw new Request.Refused(400, "a field holds characters that have no place in XML");
        }
        pairs.add(new Pair(name, value));
    }

    /** The text of a field (HTML 4.01, section 17.13.4.1; RFC 3986, section 2.1). */
    private static String decoded(String text) {
        byte[] written = text.getBytes(StandardCharsets.UTF_8);
        ByteBuffer bytes = ByteBuffer.allocate(written.length);
        boolean sound = true;
        for (int i = 0; i < written.length; i++) {
            if (written[i] == '%') {
                int high = i + 2 < written.length ? Character.digit(written[i + 1], 16) : -1;
                int low = high < 0 ? -1 : Character.digit(written[i + 2], 16);
                sound &= low >= 0;
                bytes.put((byte) (high * 16 + low));
                i += 2;
            } else {
                bytes.put(written[i] == '+' ? (byte) ' ' : written[i]);
            }
        }
        try {
            if (sound) {
                return StandardCharsets.UTF_8.newDecoder().decode(bytes.flip()).toString();
            }
        } catch (CharacterCodingException e) {
            sound = false;
        }
        throw new Request.Refused(400, "a field is not URL-encoded: " + Endpoint.printable(text));
    }

    /** The fields as a query or a form. */
    String encoded() {
        List<String> encoded = new ArrayList<>();
        for (Pair pair : pairs) {
            encoded.add(URLEncoder.encode(pair.name, StandardCharsets.UTF_8) + "="
                    + URLEncoder.encode(pair.value, StandardCharsets.UTF_8));
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
        for (Pair pair : pairs) {
            if (pair.name.equals(name)) {
                return pair.value;
            }
        }
        return null;
    }

    /** The values that stand in a path where the location has names in round brackets; null when the two do not fit. */
    static Fields taken(String location, String path) {
        Template template = new Template(location);
        // Round brackets that are no places mean the same either way.
        String plain = path.replace("(", "%28").replace(")", "%29");
        return template.fits(plain, 0, 0) ? template.values(plain) : null;
    }

    /** A location with places for values, and where they stand in a path. */
    private static final class Template {
        /** A path that needs more of them was made up to take long: what fits is found soon. */
        private static final int MOST_STEPS = 5_000_000;

        private final List<String> names = new ArrayList<>();
        private final List<String> between = new ArrayList<>();
        private final int[] starts;
        private final int[] ends;
        private int steps;

        Template(String location) {
            Matcher matcher = PLACEHOLDER.matcher(location);
            int at = 0;
            while (matcher.find()) {
                between.add(Request.normal(location.substring(at, matcher.start())));
                names.add(matcher.group(1));
                at = matcher.end();
            }
            between.add(Request.normal(location.substring(at)));
            starts = new int[names.size()];
            ends = new int[names.size()];
        }

        /** The first place that has the name of a place. */
        private int first(int place) {
            return names.indexOf(names.get(place));
        }

        /** Whether the path from somewhere on is what stands before a place, the value, as long as it can be, and the rest. */
        boolean fits(String path, int at, int place) {
            if (!path.startsWith(between.get(place), at)) {
                return false;
            }
            int from = at + between.get(place).length();
            if (place == names.size()) {
                return from == path.length();
            }
            starts[place] = from;
            int first = first(place);
            if (first < place) {
                // Wherever a part stands it has the same value.
                int length = ends[first] - starts[first];
                return path.regionMatches(from, path, starts[first], length) && fits(path, from + length, place + 1);
            }
            int to = from;
            while (to < path.length() && "/?&".indexOf(path.charAt(to)) < 0) {
                to++;
            }
            for (; to >= from && steps < MOST_STEPS; to--) {
                steps++;
                ends[place] = to;
                if (fits(path, to, place + 1)) {
                    return true;
                }
            }
            return false;
        }

        Fields values(String path) {
            Fields fields = new Fields();
            for (int i = 0; i < ends.length; i++) {
                if (first(i) == i) {
                    fields.add(
                            names.get(i),
                            decoded(path.substring(starts[i], ends[i]).replace("+", "%2B")));
                }
            }
            return fields;
        }
    }

    /** Has a message read the fields. */
    void readInto(SoapMessage message, XmlTypes types, Reading reading) {
        XmlOutput out = new XmlOutput(XmlTypes.NONE);
        out.open("", AROUND);
        for (Pair pair : pairs) {
            out.element("", Characters.isNcName(pair.name) ? pair.name : "unnamed", pair.value);
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
}
