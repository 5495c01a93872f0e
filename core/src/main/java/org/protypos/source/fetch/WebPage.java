package org.protypos.source.fetch;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Recognises a web page where a document was wanted, and says what kind of page it is. */
public final class WebPage {
    private static final int BEGINNING = 64 * 1024;
    private static final int LONGEST_TAG = 1_000;
    private static final int LONGEST_TITLE = 200;

    // Each is matched against one short tag, so none can take long.
    private static final Pattern PASSWORD = Pattern.compile("(?is)<input\\b.*\\stype\\s*=\\s*[\"']?password.*");
    private static final Pattern LINK =
            Pattern.compile("(?is)<a\\s.*\\bhref\\s*=\\s*[\"']([^\"'<>]+[?&;/.](?:wsdl|xsd)[^\"'<>]*)[\"'].*");

    private WebPage() {}

    /**
     * Looks at an answer.
     *
     * @param address where it came from
     * @return what is wrong, for a person; null when it is no web page
     */
    public static String complaint(byte[] answer, String contentType, URI address) {
        String start = new String(answer, 0, Math.min(answer.length, BEGINNING), StandardCharsets.UTF_8);
        if (!isPage(start) && !contentType.startsWith("application/xhtml")) {
            return null;
        }
        List<String> tags = tags(start);
        String title = title(start);
        String page = "the answer is a web page" + (title.isEmpty() ? "" : " titled \"" + title + "\"");
        if (tags.stream().anyMatch(tag -> PASSWORD.matcher(tag).matches())) {
            return page + " that asks for a password; put user and password for " + address.getHost()
                    + " into ~/.netrc, or save the contract with your browser and name the file";
        }
        for (String tag : tags) {
            Matcher link = LINK.matcher(tag);
            if (link.matches()) {
                try {
                    return page + " that links to "
                            + address.resolve(link.group(1).replace("&amp;", "&")) + "; give that address";
                } catch (IllegalArgumentException e) {
                    return page + ", not a contract";
                }
            }
        }
        return page + ", not a contract; a service often shows its contract when a query is added to its address";
    }

    private static boolean isPage(String start) {
        String text = start.replace("\uFEFF", "").stripLeading().toLowerCase(Locale.ROOT);
        if (text.startsWith("<?xml") && text.contains("?>")) {
            text = text.substring(text.indexOf("?>") + 2).stripLeading();
        }
        String root = text.substring(0, Math.min(text.length(), LONGEST_TAG));
        return root.startsWith("<html>") || root.matches("(?s)<html\\s.*|<!doctype\\s+html.*");
    }

    /** The tags, without those that are longer than any that matters. */
    private static List<String> tags(String text) {
        List<String> tags = new ArrayList<>();
        int end = 0;
        for (int start = text.indexOf('<'); start >= 0; start = text.indexOf('<', end)) {
            end = text.indexOf('>', start) + 1;
            if (end == 0) {
                break;
            }
            if (end - start <= LONGEST_TAG) {
                tags.add(text.substring(start, end));
            }
        }
        return tags;
    }

    private static String title(String text) {
        String folded = text.toLowerCase(Locale.ROOT);
        int tag = folded.indexOf("<title");
        int start = tag < 0 ? -1 : folded.indexOf('>', tag) + 1;
        int end = start <= 0 ? -1 : folded.indexOf("</title>", start);
        // Folding changes the length of a few texts, and then no title is better than a wrong one.
        return end < 0 || end - start > LONGEST_TITLE || folded.length() != text.length()
                ? ""
                : text.substring(start, end).strip().replaceAll("\\s+", " ");
    }
}
