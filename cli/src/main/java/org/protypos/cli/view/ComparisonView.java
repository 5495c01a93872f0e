package org.protypos.cli.view;

import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.protypos.binding.Designators;
import org.protypos.binding.Suggestions;
import org.protypos.change.Comparison;
import org.protypos.change.Difference;
import org.protypos.change.Evidence;
import org.protypos.change.Reader;
import org.protypos.diagnostic.Place;
import org.protypos.source.Xml;

/** Shows the differences between two contracts: what breaks somebody comes first. */
public final class ComparisonView {
    /** Facts that are so or are not. */
    private static final Pattern FLAG = Pattern.compile("nillable|abstract|mixed|encoded( .*)?");

    private static final Pattern MESSAGE = Pattern.compile("(.*) (input|output|fault)( .*)?");

    private final String old;
    private final String now;
    private final Comparison.Result result;
    private final Set<Reader> readers;
    private final Map<String, String> prefixes;

    /**
     * Takes a comparison.
     *
     * @param readers for whom it is of interest
     */
    public ComparisonView(String old, String now, Comparison.Result result, Set<Reader> readers) {
        this.old = old;
        this.now = now;
        this.result = result.of(readers);
        this.readers = readers;
        StringBuilder texts = new StringBuilder();
        for (Difference difference : result.differences()) {
            texts.append(difference.designator()).append(difference.before()).append(difference.after());
        }
        // Braces stand around namespaces, and in patterns and prose for something else.
        Set<String> met = result.sides().namespaces().stream()
                .filter(namespace -> !namespace.equals(Xml.XSD) && texts.indexOf(braced(namespace)) >= 0)
                .sorted(Comparator.comparingInt(namespace -> texts.indexOf(braced(namespace))))
                .collect(Collectors.toCollection(LinkedHashSet::new));
        this.prefixes = new LinkedHashMap<>(Suggestions.prefixesOf(met));
        prefixes.put("xs", Xml.XSD);
    }

    private static String braced(String namespace) {
        return "{" + namespace + "}";
    }

    String old() {
        return old;
    }

    String now() {
        return now;
    }

    Set<Reader> readers() {
        return readers;
    }

    /** What was found. */
    public Comparison.Result result() {
        return result;
    }

    List<Difference> some(boolean breaking) {
        return result.differences().stream()
                .filter(difference -> difference.isBreaking() == breaking)
                .sorted(Comparator.comparingInt(ComparisonView::weight))
                .toList();
    }

    String shown(String text) {
        return text == null ? "" : Designators.shown(text, prefixes);
    }

    /** What happened, in words. */
    String what(Difference difference) {
        if (difference.kind().equals("namespace")) {
            return "namespace " + difference.before() + " is called " + difference.after() + " now";
        }
        String kind = difference.kind() + " " + shown(difference.designator()).replaceFirst("^(portType|service) ", "");
        return switch (difference.change()) {
            case ADDED -> kind + " is new" + tail(difference.after());
            case REMOVED -> kind + " is gone" + tail(difference.before());
            case RENAMED ->
                kind
                        + (difference.kind().equals("value")
                                ? " is called " + difference.after() + " now"
                                : called(difference.after()));
            case CHANGED -> kind + ": " + becomes(difference);
        };
    }

    private static String called(String name) {
        return name.startsWith("{}")
                ? " is of no namespace now"
                : name.startsWith("{")
                        ? " is of the namespace " + name.substring(1, name.indexOf('}')) + " now"
                        : " is called " + name + " now";
    }

    /** What is said otherwise. */
    String becomes(Difference difference) {
        if (difference.fact().startsWith("absent over ")) {
            String over = difference.fact().substring("absent ".length());
            return difference.after() != null ? "no longer bound " + over : "now bound " + over;
        }
        if (difference.fact().equals("what it allows")) {
            return difference.before() != null
                    ? "no longer allows " + difference.before()
                    : "now allows " + difference.after();
        }
        if (FLAG.matcher(difference.fact()).matches()) {
            return (difference.after() == null ? "no longer " : "now ") + difference.fact();
        }
        boolean prose = difference.fact().equals("documentation");
        return difference.fact() + " " + said(difference.before(), prose) + " becomes "
                + said(difference.after(), prose);
    }

    private String named(String text) {
        return Designators.named(text, prefixes);
    }

    private String tail(String facts) {
        return facts == null || facts.isEmpty() ? "" : " (" + shorter(named(facts)) + ")";
    }

    private String said(String fact, boolean prose) {
        String text = fact == null ? "nothing" : shorter(named(fact));
        return prose && fact != null ? "\"" + text + "\"" : text;
    }

    private static String shorter(String text) {
        return text.length() > 160 ? text.substring(0, 157) + "..." : text;
    }

    /** For whom it breaks something. */
    static String breaks(Difference difference) {
        return difference.breaks().stream().map(Reader::brief).collect(Collectors.joining(", "));
    }

    /** The code that it breaks, and who is refused though no message shows it. */
    static String breaksBeside(Difference difference) {
        return difference.breaks().stream()
                .filter(reader -> difference.evidence().stream().noneMatch(one -> one.reader() == reader))
                .map(Reader::brief)
                .collect(Collectors.joining(", "));
    }

    /** Why it breaks something for somebody on the wire, in a sentence. */
    String why(Evidence evidence) {
        String who = evidence.reader().brief();
        if (evidence.refused() == null) {
            return who + ": " + evidence.why();
        }
        String in = " in " + of(evidence);
        if (evidence.at() == null && evidence.isShown()) {
            return "says something else to " + who + ": " + evidence.refused() + in;
        }
        String what = evidence.refused() + in;
        String verdict = evidence.sent()
                ? who + " may send " + what + "; it is refused now"
                : who + " refuse " + what + "; it may come now";
        return evidence.isShown() ? verdict : verdict + " (no message shows it: " + evidence.why() + ")";
    }

    /** What kind of message it is. */
    private String of(Evidence evidence) {
        String of = shown(evidence.of()).replaceFirst("^portType ", "");
        Matcher operation = MESSAGE.matcher(of);
        if (!operation.matches()) {
            return "<" + of.substring(of.lastIndexOf(':') + 1).replaceFirst("^.*\\}", "") + ">";
        }
        String local = operation.group(1).replaceFirst("^.*/", "");
        return switch (operation.group(2)) {
            case "input" -> "the request of " + local;
            case "output" -> "the answer of " + local;
            default -> "a fault of " + local;
        };
    }

    /** What breaks most comes first. */
    private static int weight(Difference difference) {
        return -difference.breaks().size() * 10 - difference.evidence().size();
    }

    /** Where both contracts say it. */
    static String places(Difference difference) {
        Place before = difference.oldPlace();
        Place after = difference.newPlace();
        if (before == null && after == null) {
            return "everywhere";
        }
        return before == null ? String.valueOf(after) : after == null ? String.valueOf(before) : before + " → " + after;
    }

    String summary() {
        int breaking = some(true).size();
        int all = result.differences().size();
        if (all == 0) {
            return "no differences";
        }
        if (all == 1) {
            return "1 difference, which breaks " + (breaking == 1 ? "something" : "nothing");
        }
        String verdict = breaking == 0
                ? "none of them breaks anything"
                : breaking == all
                        ? "all of them break something"
                        : breaking + (breaking == 1 ? " of them breaks something" : " of them break something");
        return all + " differences, " + verdict;
    }
}
