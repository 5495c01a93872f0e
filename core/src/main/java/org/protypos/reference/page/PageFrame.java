package org.protypos.reference.page;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.List;
import java.util.stream.Collectors;
import org.protypos.source.XmlText;

/** What all pages to read have: looks, scripts, and a policy by which nothing else runs or is asked for. */
final class PageFrame {
    /** In this order: each uses what those before it define, and the last draws the page. */
    private static final List<String> SCRIPTS =
            List.of("parts.js", "search.js", "tree.js", "picture.js", "component.js", "compared.js", "page.js");

    private PageFrame() {}

    /**
     * A whole page.
     *
     * @param data what the scripts draw, as JSON in which nothing can end the element that it is in
     */
    static String text(String title, String data) {
        String style = style();
        String script = script();
        String head = """
                <meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'sha256-%s'; script-src 'sha256-%s'">
                <style>%s</style>""".formatted(hash(style), hash(script), style);
        return text(title, data, head, "<script>" + script + "</script>");
    }

    /**
     * A page whose style and script are asked for where it is served.
     *
     * @param below where they are, without {@code .css} and {@code .js}
     */
    static String served(String title, String data, String below) {
        return text(
                title,
                data,
                "<link rel=\"icon\" href=\"data:,\">\n<link rel=\"stylesheet\" href=\"" + below + ".css\">",
                "<script src=\"" + below + ".js\"></script>");
    }

    static String style() {
        return resource("reference.css");
    }

    static String script() {
        return SCRIPTS.stream().map(PageFrame::resource).collect(Collectors.joining("\n"));
    }

    private static String text(String title, String data, String head, String script) {
        return """
                <!DOCTYPE html>
                <html lang="en">
                <head>
                <meta charset="utf-8">
                <meta name="viewport" content="width=device-width, initial-scale=1">
                %s
                <title>%s</title>
                </head>
                <body>
                <a class="skip" href="#content">To the content</a>
                <nav aria-label="Components">
                <h1><a href="#">%s</a></h1>
                <div id="beside"></div>
                <label>Search <input id="search" type="search" autocomplete="off" placeholder="/" aria-controls="list"></label>
                <p id="found" class="quiet" role="status"></p>
                <ul id="list"></ul>
                </nav>
                <main id="content" tabindex="-1"></main>
                <noscript><p>This page is drawn by a script that is in it. Where scripts may not run, protypos writes the same as text: --markdown
                in place of --html.</p></noscript>
                <script type="application/json" id="data">%s</script>
                %s
                </body>
                </html>
                """.formatted(head, XmlText.escaped(title, true), XmlText.escaped(title, true), data, script);
    }

    private static String resource(String name) {
        try (InputStream in = PageFrame.class.getResourceAsStream(name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException("the page's parts are part of the program", e);
        }
    }

    private static String hash(String text) {
        try {
            return Base64.getEncoder()
                    .encodeToString(MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every platform has SHA-256", e);
        }
    }
}
