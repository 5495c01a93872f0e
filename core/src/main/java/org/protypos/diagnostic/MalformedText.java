package org.protypos.diagnostic;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonProcessingException;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.yaml.snakeyaml.error.Mark;
import org.yaml.snakeyaml.error.MarkedYAMLException;
import org.yaml.snakeyaml.reader.ReaderException;

/**
 * Says in our words what a parser of JSON or YAML has against a text, and where that is. The words of the parser are about
 * its own parts, which nobody sees who writes a file of rules or a value.
 */
public final class MalformedText {
    private MalformedText() {}

    /** What a parser says somewhere in its message, and what that comes to. */
    private record Word(Pattern said, String comesTo) {}

    /** Made only where something is wrong. */
    private static final class Words {
        static final Pattern UNCLOSED = Pattern.compile("found unexpected end of stream");

        /** The first that is found counts. */
        static final List<Word> ALL = List.of(
                new Word(
                        Pattern.compile("exceeds the maximum"),
                        "it is nested too deeply, or a name, a number or a text in it is too long"),
                new Word(UNCLOSED, "a quote opens here that nothing closes"),
                new Word(
                        Pattern.compile("(?i)end.of.input|found '?<stream end>|got '?<stream end>"),
                        "it ends before everything is closed that was opened"),
                new Word(
                        Pattern.compile("(?i)(double-quote to start|expected a) field name"),
                        "a name is expected here"),
                new Word(Pattern.compile("expecting a colon|expected ':'"), "a colon is expected here, behind a name"),
                new Word(
                        Pattern.compile("expecting comma|expected ',' or"),
                        "a comma, or the end of what is open, is expected here"),
                new Word(
                        Pattern.compile(
                                "Illegal unquoted character|Illegal character|special characters are not allowed"),
                        "a control character stands here, which has to be written with a backslash in quotes"),
                new Word(Pattern.compile("Unexpected close marker"), "a bracket closes here that is not open"),
                new Word(Pattern.compile("maybe a \\(non-standard\\) comment"), "there are no comments in JSON"),
                new Word(
                        Pattern.compile("Unrecognized character escape|unknown escape|hex-digit|escape sequence"),
                        "a backslash means nothing with what follows it"),
                new Word(
                        Pattern.compile("(?i)numeric value|leading zero|leading '[+.]'|non-numeric"),
                        "this is no number in JSON"),
                new Word(
                        Pattern.compile("Unrecognized token|expected a va"),
                        "a value is expected here; texts stand in quotes"),
                new Word(
                        Pattern.compile("mapping values are not allowed"),
                        "a colon with a blank behind it may not stand here; a text with one stands in quotes"),
                new Word(Pattern.compile("sequence entries are not allowed"), "an item of a list may not begin here"),
                new Word(
                        Pattern.compile("found character '\\\\t"),
                        "lines are indented with blanks; a tab may not stand here"),
                new Word(
                        Pattern.compile("found character '(.)' that cannot start"),
                        "no text begins with $1 unless it stands in quotes"),
                new Word(
                        Pattern.compile(
                                "expected <block end>|expected '<document start>'|mapping keys are not allowed"),
                        "this does not continue what stands before it: its indentation fits nothing, or a sign is missing"),
                new Word(
                        Pattern.compile("while scanning an? (alias|anchor|tag|directive)"),
                        "a text with &, *, ! or % at its beginning stands in quotes"),
                new Word(Pattern.compile("root-level values"), "something follows the value"),
                new Word(
                        Pattern.compile("block scalar"),
                        "behind | and > only the line ends; a text with one stands in quotes"),
                new Word(Pattern.compile("expected the node content"), "a value is expected here"));
    }

    /** What is wrong, as a part of a sentence. */
    public static String reason(JsonProcessingException complaint) {
        // With a mark it shows the lines around it, too, in which any words may stand.
        String message = complaint.getCause() instanceof MarkedYAMLException marked
                ? marked.getContext() + "\n" + marked.getProblem()
                : complaint.getOriginalMessage();
        for (Word one : Words.ALL) {
            Matcher found = one.said().matcher(message);
            if (found.find()) {
                return one.comesTo().contains("$1") ? one.comesTo().replace("$1", found.group(1)) : one.comesTo();
            }
        }
        return "no value can be made out here";
    }

    /** Where it is in a text that the parser has read: where a quote opens that nothing closes, else where it does not go on. */
    public static Place place(SourceText text, JsonProcessingException complaint) {
        if (complaint.getCause() instanceof ReaderException refused) {
            // It says which character it does not take, and is wrong about where that is in a long text.
            return text.at(Math.max(0, text.text().indexOf(refused.getCodePoint())));
        }
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
