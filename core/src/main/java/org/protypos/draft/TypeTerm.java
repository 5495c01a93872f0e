package org.protypos.draft;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.protypos.authoring.DraftParticle;
import org.protypos.authoring.Preset;
import org.protypos.schema.facet.FacetKind;

/**
 * What one line of a sketch says of a value: its type, how it is narrowed, how often it stands.
 *
 * <pre>
 *   decimal            string(1..40)      token /[A-Z]{4}/      one of horn, bell, whistle
 *   dateTime?          string*            Berth+                Need[2..5]
 *   list of token      decimal? nil       int = 3               string one of m, ft
 *   int or token       decimal is 1.2
 * </pre>
 *
 * @param type the name of the type, with the prefix of its section where it is of another
 * @param others other types that a value may be of instead
 * @param isList whether a value is a list of such values
 * @param values the values that there are; empty for any
 * @param range what is between the brackets: lengths of text, bounds of numbers; or null
 * @param pattern a regular expression, or null
 * @param most how often it stands at most, or {@link DraftParticle#UNBOUNDED}
 * @param preset what it is where nothing is written, or always; or null
 */
public record TypeTerm(
        String type,
        List<String> others,
        boolean isList,
        List<String> values,
        String range,
        String pattern,
        int least,
        int most,
        boolean isNillable,
        Preset preset) {
    private static final String TYPE = "[\\p{L}_][\\p{L}\\p{N}._:-]*";
    private static final Pattern FORM = Pattern.compile(
            "(?<list>list of )?(?<type>" + TYPE + ")(?<others>(?: or " + TYPE + ")+)?"
                    + " *(?:\\((?<range>[^()]*)\\))? *(?:/(?<pattern>.*)/)?"
                    + " *(?<occurs>[?*+]|\\[[0-9]+\\.\\.(?:[0-9]+|\\*)\\])?(?<nil> *\\bnil)?"
                    + "(?: *= ?(?<default>.*)|(?<is> *\\bis\\b) ?(?<fixed>.*)|\\s*)",
            // Values hold whatever XML can, the ends of lines of every alphabet among it.
            Pattern.DOTALL);
    private static final Pattern RANGE = Pattern.compile("[^.\\s]*(?:\\.[0-9]+)?\\.\\.[^\\s]*|[0-9]+");
    private static final Pattern CHOICE =
            Pattern.compile("([\\p{L}_][\\p{L}\\p{N}._:-]* )?one of (.*)", Pattern.DOTALL);
    private static final String TOKEN = "token";
    private static final String OR = " or ";
    private static final int LARGEST = 1_000_000;

    public TypeTerm {
        others = List.copyOf(others);
        values = List.copyOf(values);
    }

    /** A type as it is, once. */
    static TypeTerm of(String type) {
        return new TypeTerm(type, List.of(), false, List.of(), null, null, 1, 1, false, null);
    }

    /** One of some values. */
    static TypeTerm oneOf(String type, List<String> values) {
        return new TypeTerm(type, List.of(), false, values, null, null, 1, 1, false, null);
    }

    /** The same, as often as is said. */
    TypeTerm occurring(int least, int most, boolean nillable, Preset always) {
        return new TypeTerm(type, others, isList, values, range, pattern, least, most, nillable, always);
    }

    /** Whether it is more than the name of a type. */
    boolean isNarrowed() {
        return range != null || pattern != null || isList;
    }

    /** Reads a line; null when it says no type. */
    static TypeTerm read(String line) {
        Matcher choice = CHOICE.matcher(line.strip());
        if (choice.matches()) {
            String type = choice.group(1) == null ? TOKEN : choice.group(1).strip();
            List<String> values = values(choice.group(2));
            return values == null ? null : oneOf(type, values);
        }
        // What is preset may end with white space.
        Matcher form = FORM.matcher(line.stripLeading());
        if (!form.matches()) {
            return null;
        }
        String range = form.group("range");
        if (range != null && !RANGE.matcher(range.strip()).matches()) {
            return null;
        }
        int[] occurs = occurs(form.group("occurs"));
        List<String> others = form.group("others") == null
                ? List.of()
                : List.of(form.group("others").substring(OR.length()).split(OR));
        boolean narrowed = range != null || form.group("pattern") != null || form.group("list") != null;
        return occurs == null || narrowed && !others.isEmpty()
                ? null
                : new TypeTerm(
                        form.group("type"),
                        others,
                        form.group("list") != null,
                        List.of(),
                        range == null ? null : range.strip(),
                        form.group("pattern"),
                        occurs[0],
                        occurs[1],
                        form.group("nil") != null,
                        preset(form));
    }

    private static Preset preset(Matcher form) {
        if (form.group("default") != null) {
            return new Preset(form.group("default"), false);
        }
        return form.group("is") == null ? null : new Preset(form.group("fixed"), true);
    }

    /** How often something stands that is followed by a sign; null when that cannot be. */
    static int[] occurs(String sign) {
        if (sign == null || sign.isEmpty()) {
            return new int[] {1, 1};
        }
        switch (sign) {
            case "?":
                return new int[] {0, 1};
            case "*":
                return new int[] {0, DraftParticle.UNBOUNDED};
            case "+":
                return new int[] {1, DraftParticle.UNBOUNDED};
            default:
                String[] bounds = sign.substring(1, sign.length() - 1).split("\\.\\.");
                long least = bounds[0].length() > 7 ? LARGEST + 1L : Long.parseLong(bounds[0]);
                long most = bounds[1].equals("*")
                        ? DraftParticle.UNBOUNDED
                        : bounds[1].length() > 7 ? LARGEST + 1L : Long.parseLong(bounds[1]);
                boolean can = least <= LARGEST && most <= LARGEST && (most < 0 || most >= Math.max(least, 1));
                return can ? new int[] {(int) least, (int) most} : null;
        }
    }

    /** The sign for how often something stands. */
    static String sign(int least, int most) {
        if (most == DraftParticle.UNBOUNDED) {
            return least == 0 ? "*" : least == 1 ? "+" : "[" + least + "..*]";
        }
        return most != 1 ? "[" + least + ".." + most + "]" : least == 1 ? "" : "?";
    }

    /** Values with commas between; one with a comma or white space around it stands in quotes. */
    private static List<String> values(String text) {
        List<String> values = new ArrayList<>();
        Matcher one = Pattern.compile("\\s*(?:\"((?:[^\"\\\\]|\\\\(?s:.))*)\"|([^,\"]*?))\\s*(,|$)")
                .matcher(text);
        int at = 0;
        while (one.find() && one.start() == at) {
            values.add(one.group(1) != null ? one.group(1).replaceAll("(?s)\\\\(.)", "$1") : one.group(2));
            at = one.end();
            if (!one.group(3).equals(",")) {
                break;
            }
        }
        return at < text.length() || values.contains("") && values.size() == 1 ? null : values;
    }

    private static String quoted(String value) {
        return value.isEmpty() || value.matches("(?s).*[,\"\\\\].*|\\s.*|.*\\s") || value.contains("\n")
                ? "\"" + value.replace("\\", "\\\\").replace("\"", "\\\"") + "\""
                : value;
    }

    /** The facets (XML Schema Part 2, section 4.3) that it narrows its type by. */
    Map<FacetKind, String> facets(boolean number) {
        Map<FacetKind, String> facets = new LinkedHashMap<>();
        if (range != null) {
            int dots = range.indexOf("..");
            String least = dots < 0 ? range : range.substring(0, dots);
            String greatest = dots < 0 ? range : range.substring(dots + 2);
            if (!number && dots < 0) {
                facets.put(FacetKind.LENGTH, range);
            } else {
                put(facets, number ? FacetKind.MIN_INCLUSIVE : FacetKind.MIN_LENGTH, least);
                put(facets, number ? FacetKind.MAX_INCLUSIVE : FacetKind.MAX_LENGTH, greatest);
            }
        }
        put(facets, FacetKind.PATTERN, pattern);
        return facets;
    }

    private static void put(Map<FacetKind, String> facets, FacetKind kind, String value) {
        if (value != null && !value.isEmpty()) {
            facets.put(kind, value);
        }
    }

    /** The line. */
    @Override
    public String toString() {
        if (!values.isEmpty()) {
            List<String> quoted = values.stream().map(TypeTerm::quoted).toList();
            return (type.equals(TOKEN) ? "" : type + " ") + "one of " + String.join(", ", quoted);
        }
        return (isList ? "list of " : "")
                + type
                + others.stream().map(other -> OR + other).collect(Collectors.joining())
                + (range == null ? "" : "(" + range + ")")
                + (pattern == null ? "" : " /" + pattern + "/")
                + (pattern == null || sign(least, most).isEmpty() ? "" : " ")
                + sign(least, most)
                + (isNillable ? " nil" : "")
                + (preset == null ? "" : (preset.isFixed() ? " is " : " = ") + preset.value());
    }
}
