package org.protypos.profile;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;

/** Finds in the text of a well-formed document what nobody sees any more when it has been read. */
final class MarkupScan {
    private static final Pattern MARKUP = Pattern.compile(
            "<!--.*?-->|<!\\[CDATA\\[.*?]]>|<\\?(?<target>[^\\s?]+).*?\\?>"
                    + "|<[^!?/](?:[^\"'>]++|\"[^\"]*+\"|'[^']*+')*+>",
            Pattern.DOTALL);
    private static final Pattern VALUE = Pattern.compile("\"[^\"]*+\"|'[^']*+'");
    private static final Pattern XML_DECLARED = Pattern.compile("\\sxmlns:xml\\s*=");

    private MarkupScan() {}

    /** The targets of processing instructions, by where they stand; the declaration of XML is none (XML 1.0, section 2.6). */
    static Map<Place, String> instructions(SourceText text) {
        Map<Place, String> found = new LinkedHashMap<>();
        Matcher markup = MARKUP.matcher(text.text());
        while (markup.find()) {
            String target = markup.group("target");
            if (target != null && !target.equals("xml")) {
                found.put(text.at(markup.start()), target);
            }
        }
        return found;
    }

    /** Where start tags declare the prefix {@code xml}, which needs no declaration (Namespaces in XML, section 3). */
    static List<Place> declaringXml(SourceText text) {
        List<Place> found = new ArrayList<>();
        if (!text.text().contains("xmlns:xml")) {
            return found;
        }
        Matcher markup = MARKUP.matcher(text.text());
        while (markup.find()) {
            boolean tag = markup.group("target") == null && !markup.group().startsWith("<!");
            if (tag
                    && XML_DECLARED
                            .matcher(VALUE.matcher(markup.group()).replaceAll(""))
                            .find()) {
                found.add(text.at(markup.start()));
            }
        }
        return found;
    }
}
