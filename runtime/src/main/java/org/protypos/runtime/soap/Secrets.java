package org.protypos.runtime.soap;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.protypos.runtime.parse.MessageScanner;

/**
 * Blanks what looks like a secret in messages for people: the values of elements, attributes, members and fields whose names
 * suggest one, all of security header blocks and assertions, and what an element that says {@code name="password"} holds. Of
 * what cannot be read nothing is shown. The words that suggest a secret are those below; the system property
 * {@value #PROPERTY} adds others, with commas between.
 */
final class Secrets {
    static final String PROPERTY = "secret.names";

    private static final String BLANK = "***";

    /** Parts of names, in small letters and without what joins words. */
    private static final List<String> WORDS = List.of(
            "passw",
            "passphrase",
            "passcode",
            "pwd",
            "secret",
            "token",
            "credential",
            "apikey",
            "accesskey",
            "privatekey",
            "authorization",
            "authorisation",
            "kennwort",
            "geheim",
            "motdepasse",
            "contrase",
            "senha",
            "wachtwoord",
            "parola",
            "l\u00f6senord",
            "has\u0142o",
            "\u043f\u0430\u0440\u043e\u043b",
            "\u5bc6\u7801",
            "\u5bc6\u78bc");

    /** Whole words of names. */
    private static final Set<String> WHOLE = Set.of("pin", "pins", "cvv", "cvc", "otp", "tan", "sid", "cookie", "auth");

    /** Blocks that say who somebody is (Web Services Security, SAML). */
    private static final Set<String> BLOCKS =
            Set.of("Security", "Assertion", "EncryptedAssertion", "UsernameToken", "BinarySecurityToken");

    /** Attributes that name what the element around them holds. */
    private static final Set<String> NAMING = Set.of("name", "key", "id", "field", "param", "parameter", "n", "k");

    private final String text;
    private final StringBuilder out;
    private int at;

    private Secrets(String text) {
        this.text = text;
        this.out = new StringBuilder(text.length());
    }

    /** Whether a name suggests that what it names is a secret. */
    static boolean isSecret(String name) {
        String joined = name.substring(name.indexOf(':') + 1);
        String small = joined.toLowerCase(Locale.ROOT).replaceAll("[-_.\\s]", "");
        for (String word : WORDS) {
            if (small.contains(word)) {
                return true;
            }
        }
        for (String word : joined.replaceAll("([\\p{Ll}0-9])(\\p{Lu})", "$1 $2").split("[-_.\\s]+")) {
            if (WHOLE.contains(word.toLowerCase(Locale.ROOT))) {
                return true;
            }
        }
        for (String word : System.getProperty(PROPERTY, "").split(",")) {
            if (!word.isBlank() && small.contains(word.strip().toLowerCase(Locale.ROOT))) {
                return true;
            }
        }
        return false;
    }

    /** A message with its secrets blanked: XML, JSON, or fields of a form. Of anything else its size. */
    static String blanked(String message) {
        String start = message.stripLeading();
        String found = null;
        if (start.isEmpty()) {
            return message;
        }
        if (start.startsWith("<") || start.startsWith("\ufeff<")) {
            found = isWellFormed(message) ? new Secrets(message).xml() : null;
        } else if (start.startsWith("{") || start.startsWith("[")) {
            found = new Secrets(message).json();
        } else if (!start.contains("\n") && start.indexOf('=') > 0) {
            found = fields(message);
        }
        return found != null ? found : "(a message of " + message.length() + " characters that cannot be read)";
    }

    private static boolean isWellFormed(String message) {
        try {
            MessageScanner scanner = new MessageScanner();
            scanner.begin(new ByteArrayInputStream(message.getBytes(StandardCharsets.UTF_8)), "UTF-8");
            while (scanner.next() != XMLStreamConstants.END_DOCUMENT) {
                // all of it is looked at
            }
            return true;
        } catch (XMLStreamException e) {
            return false;
        }
    }

    /** Copies a well-formed document but for what is secret in it. */
    private String xml() {
        int hidden = 0;
        Deque<Boolean> open = new ArrayDeque<>();
        while (at < text.length()) {
            int tag = text.indexOf('<', at);
            int end = tag < 0 ? text.length() : tag;
            copy(end, hidden);
            if (tag < 0) {
                break;
            }
            if (text.startsWith("<!--", at)) {
                copy(text.indexOf("-->", at) + 3, hidden);
            } else if (text.startsWith("<![CDATA[", at)) {
                copy(text.indexOf("]]>", at) + 3, hidden);
            } else if (text.startsWith("<?", at)) {
                copy(text.indexOf("?>", at) + 2, hidden);
            } else if (text.startsWith("</", at)) {
                hidden -= open.pop() ? 1 : 0;
                copy(text.indexOf('>', at) + 1, hidden);
            } else {
                boolean secret = tag(hidden);
                boolean empty = text.charAt(at - 2) == '/';
                if (!empty) {
                    open.push(secret);
                    if (secret && hidden++ == 0) {
                        out.append(BLANK);
                    }
                }
            }
        }
        return out.toString();
    }

    private void copy(int end, int hidden) {
        if (hidden == 0) {
            out.append(text, at, end);
        }
        at = end;
    }

    /** Copies a start tag, and tells whether what the element holds is secret. */
    private boolean tag(int hidden) {
        int from = at;
        int nameEnd = at + 1;
        while (" \t\r\n/>".indexOf(text.charAt(nameEnd)) < 0) {
            nameEnd++;
        }
        String name = text.substring(at + 1, nameEnd);
        List<int[]> values = new ArrayList<>();
        boolean secret = isSecret(name) || BLOCKS.contains(name.substring(name.indexOf(':') + 1));
        boolean named = false;
        int i = nameEnd;
        while (text.charAt(i) != '>') {
            if (" \t\r\n/".indexOf(text.charAt(i)) >= 0) {
                i++;
                continue;
            }
            int equals = text.indexOf('=', i);
            String attribute = text.substring(i, equals).strip();
            int quote = equals + 1;
            while (text.charAt(quote) != '"' && text.charAt(quote) != '\'') {
                quote++;
            }
            int end = text.indexOf(text.charAt(quote), quote + 1);
            boolean declares = attribute.equals("xmlns") || attribute.startsWith("xmlns:");
            boolean names = NAMING.contains(
                            attribute.substring(attribute.indexOf(':') + 1).toLowerCase(Locale.ROOT))
                    && isSecret(text.substring(quote + 1, end));
            named |= names;
            if (!declares && !names) {
                values.add(new int[] {quote + 1, end, isSecret(attribute) ? 1 : 0});
            }
            i = end + 1;
        }
        if (hidden == 0) {
            int copied = from;
            for (int[] value : values) {
                if (value[2] == 1 || named || secret) {
                    out.append(text, copied, value[0]).append(BLANK);
                    copied = value[1];
                }
            }
            out.append(text, copied, i + 1);
        }
        at = i + 1;
        return secret || named;
    }

    /** Copies JSON but for what is secret in it; gives null when it is none. */
    private String json() {
        try {
            value(0, false);
            space(false);
            return at == text.length() ? out.toString() : null;
        } catch (IndexOutOfBoundsException | IllegalStateException e) {
            return null;
        }
    }

    private void space(boolean hidden) {
        while (at < text.length() && " \t\r\n".indexOf(text.charAt(at)) >= 0) {
            put(hidden);
        }
    }

    private void put(boolean hidden) {
        if (!hidden) {
            out.append(text.charAt(at));
        }
        at++;
    }

    private void value(int depth, boolean hidden) {
        if (depth > 500) {
            throw new IllegalStateException("too deep");
        }
        space(hidden);
        char first = text.charAt(at);
        if (first == '{' || first == '[') {
            put(hidden);
            members(depth, first == '{', hidden);
        } else if (first == '"') {
            string(hidden);
        } else {
            int from = at;
            while (at < text.length() && ",]} \t\r\n".indexOf(text.charAt(at)) < 0) {
                put(hidden);
            }
            if (from == at) {
                throw new IllegalStateException("no value");
            }
        }
    }

    private void members(int depth, boolean named, boolean hidden) {
        char last = named ? '}' : ']';
        space(hidden);
        while (text.charAt(at) != last) {
            boolean secret = false;
            if (named) {
                secret = isSecret(string(hidden));
                space(hidden);
                if (text.charAt(at) != ':') {
                    throw new IllegalStateException("no colon");
                }
                put(hidden);
            }
            if (secret && !hidden) {
                out.append(" \"").append(BLANK).append('"');
            }
            value(depth + 1, hidden || secret);
            space(hidden);
            if (text.charAt(at) == ',') {
                put(hidden);
                space(hidden);
            } else if (text.charAt(at) != last) {
                throw new IllegalStateException("no comma");
            }
        }
        put(hidden);
    }

    private String string(boolean hidden) {
        if (text.charAt(at) != '"') {
            throw new IllegalStateException("no string");
        }
        int from = at + 1;
        put(hidden);
        while (text.charAt(at) != '"') {
            if (text.charAt(at) == '\\') {
                put(hidden);
            }
            put(hidden);
        }
        put(hidden);
        return text.substring(from, at - 1);
    }

    /** The fields of a form or of a query, of which the secret ones are blanked. */
    static String fields(String form) {
        StringBuilder blanked = new StringBuilder();
        for (String pair : form.split("&", -1)) {
            int equals = pair.indexOf('=');
            blanked.append(blanked.isEmpty() ? "" : "&")
                    .append(
                            equals > 0 && isSecret(pair.substring(0, equals))
                                    ? pair.substring(0, equals + 1) + BLANK
                                    : pair);
        }
        return blanked.toString();
    }
}
