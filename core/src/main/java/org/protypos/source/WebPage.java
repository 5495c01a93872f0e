package org.protypos.source;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Recognises a web page where a document was wanted, and says what kind of page it is. */
final class WebPage {
    private static final int BEGINNING = 64 * 1024;
    private static final Pattern PAGE = Pattern.compile("(?is)^\\s*(<!doctype\\s+html|<html[\\s>])");
    private static final Pattern TITLE = Pattern.compile("(?is)<title[^>]*>(.{1,200}?)</title>");
    private static final Pattern PASSWORD = Pattern.compile("(?is)<input[^>]*type\\s*=\\s*[\"']?password");
    private static final Pattern LINK = Pattern.compile(
            "(?is)<a[^>]*href\\s*=\\s*[\"']([^\"'<>]{1,500}(?:[?&;/.])(?:wsdl|xsd)[^\"'<>]{0,100})[\"']");

    private WebPage() {}

    /**
     * Looks at an answer.
     *
     * @param address where it came from
     * @return what is wrong, for a person; null when it is no web page
     */
    static String complaint(byte[] answer, String contentType, URI address) {
        String start = new String(answer, 0, Math.min(answer.length, BEGINNING), StandardCharsets.UTF_8);
        boolean xhtml = contentType.startsWith("application/xhtml");
        if (!PAGE.matcher(start.replace("\uFEFF", "").replaceFirst("^\\s*<\\?xml[^>]*\\?>", ""))
                        .find()
                && !xhtml) {
            return null;
        }
        Matcher title = TITLE.matcher(start);
        String page = "the answer is a web page"
                + (title.find() ? " titled \"" + title.group(1).strip().replaceAll("\\s+", " ") + "\"" : "");
        if (PASSWORD.matcher(start).find()) {
            return page + " that asks for a password; put user and password for " + address.getHost()
                    + " into ~/.netrc, or save the contract with your browser and name the file";
        }
        Matcher link = LINK.matcher(start);
        if (link.find()) {
            try {
                return page + " that links to " + address.resolve(link.group(1).replace("&amp;", "&"))
                        + "; give that address";
            } catch (IllegalArgumentException e) {
                return page + ", not a contract";
            }
        }
        return page + ", not a contract; a service often shows its contract when a query is added to its address";
    }
}
