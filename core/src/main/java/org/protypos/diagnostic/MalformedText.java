package org.protypos.diagnostic;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonProcessingException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.yaml.snakeyaml.error.Mark;
import org.yaml.snakeyaml.error.MarkedYAMLException;

/**
 * Says in our words what a parser of JSON or YAML has against a text, and where that is. The words of the parser are about
 * its own parts, which nobody sees who writes a file of rules or a value.
 */
public final class MalformedText {
    private MalformedText() {}

    /** Made only where something is wrong. */
    private static final class Words {
        static final Pattern UNCLOSED = Pattern.compile("found unexpected end of stream");

        /** What a parser says somewhere in its message, and what that comes to; the first that is found counts. */
        static final Map<Pattern, String> ALL = words();
    }

    private static Map<Pattern, String> words() {
        Map<Pattern, String> words = new LinkedHashMap<>();
        words.put(
                Pattern.compile("exceeds the maximum"),
                "it is nested too deeply, or a name, a number or a text in it is too long");
        words.put(Words.UNCLOSED, "a quote opens here that nothing closes");
        words.put(
                Pattern.compile("(?i)end.of.input|found '?<stream end>|got '?<stream end>"),
                "it ends before everything is closed that was opened");
        words.put(Pattern.compile("(?i)(double-quote to start|expected a) field name"), "a name is expected here");
        words.put(Pattern.compile("expecting a colon|expected ':'"), "a colon is expected here, behind a name");
        words.put(
                Pattern.compile("expecting comma|expected ',' or"),
                "a comma, or the end of what is open, is expected here");
        words.put(
                Pattern.compile("Illegal unquoted character|Illegal character|special characters are not allowed"),
                "a control character stands here, which has to be written with a backslash in quotes");
        words.put(Pattern.compile("Unexpected close marker"), "a bracket closes here that is not open");
        words.put(Pattern.compile("maybe a \\(non-standard\\) comment"), "there are no comments in JSON");
        words.put(
                Pattern.compile("Unrecognized character escape|unknown escape|hex-digit|escape sequence"),
                "a backslash means nothing with what follows it");
        words.put(
                Pattern.compile("(?i)numeric value|leading zero|leading '[+.]'|non-numeric"),
                "this is no number in JSON");
        words.put(
                Pattern.compile("Unrecognized token|expected a va"), "a value is expected here; texts stand in quotes");
        words.put(
                Pattern.compile("mapping values are not allowed"),
                "a colon with a blank behind it may not stand here; a text with one stands in quotes");
        words.put(Pattern.compile("sequence entries are not allowed"), "an item of a list may not begin here");
        words.put(
                Pattern.compile("found character '\\\\t"), "lines are indented with blanks; a tab may not stand here");
        words.put(
                Pattern.compile("found character '(.)' that cannot start"),
                "no text begins with $1 unless it stands in quotes");
        words.put(
                Pattern.compile("expected <block end>|expected '<document start>'|mapping keys are not allowed"),
                "this does not continue what stands before it: its indentation fits nothing, or a sign is missing");
        words.put(
                Pattern.compile("while scanning an? (alias|anchor|tag|directive)"),
                "a text with &, *, ! or % at its beginning stands in quotes");
        words.put(Pattern.compile("root-level values"), "something follows the value");
        words.put(
                Pattern.compile("block scalar"), "behind | and > only the line ends; a text with one stands in quotes");
        words.put(Pattern.compile("expected the node content"), "a value is expected here");
        return words;
    }

    /** What is wrong, as a part of a sentence. */
    public static String reason(JsonProcessingException complaint) {
        // With a mark it shows the lines around it, too, in which any words may stand.
        String message = complaint.getCause() instanceof MarkedYAMLException marked
                ? marked.getContext() + "\n" + marked.getProblem()
                : complaint.getOriginalMessage();
        for (Map.Entry<Pattern, String> one : Words.ALL.entrySet()) {
            Matcher found = one.getKey().matcher(message);
            if (found.find()) {
                return one.getValue().contains("$1") ? one.getValue().replace("$1", found.group(1)) : one.getValue();
            }
        }
        return "no value can be made out here";
    }

    /** Where it is in a text that the parser has read: where a quote opens that nothing closes, else where it does not go on. */
    public static Place place(SourceText text, JsonProcessingException complaint) {
        if (!(complaint.getCause() instanceof MarkedYAMLException marked)) {
            return place(text, complaint.getLocation());
        }
        boolean isQuote = marked.getProblem() != null
                && Words.UNCLOSED.matcher(marked.getProblem()).find();
        Mark mark = isQuote && marked.getContextMark() != null ? marked.getContextMark() : marked.getProblemMark();
        if (mark == null) {
            return place(text, complaint.getLocation());
        }
        // A mark counts letters, of which some are two characters.
        String all = text.text();
        return text.at(all.offsetByCodePoints(0, Math.min(mark.getIndex(), all.codePointCount(0, all.length()))));
    }

    /** The place in a text of a parser's place in it; the beginning for one that the parser does not know. */
    public static Place place(SourceText text, JsonLocation at) {
        long offset = at == null ? 0 : at.getCharOffset();
        return text.at((int) Math.max(0, Math.min(offset, text.text().length())));
    }
}
