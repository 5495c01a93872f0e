package org.protypos.runtime.xml;

import java.io.InputStream;
import java.util.Arrays;
import java.util.Map;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import javax.xml.stream.Location;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.MimePackage;
import org.protypos.runtime.parse.MessageScanner;
import org.protypos.runtime.value.Lexical;

/**
 * The parser under {@link XmlInput}: it steps from tag to tag, holds the message to its limits and knows the place for
 * every complaint.
 *
 * <p>Taking an element leaves the parser on its end tag; the step to the next tag is made when somebody asks what comes
 * next. So a complaint about a value still knows where the value stood, and mixed content can be read between elements.
 */
final class XmlCursor {
    private final XMLStreamReader reader;
    private final XmlLimits limits;
    private final Lenience lenience;
    private final MemoryBudget budget;
    private String namespace;
    private String local;
    private boolean taken;
    private String[] path = new String[32];
    private int depth;
    private boolean keptDefault;

    private final XmlAttributes attributes;
    private int[] children = new int[32];
    private MimePackage parts;
    private Attachment included;

    /** Reads what a parser gives; without a lenience the first deviation from the contract ends it. */
    XmlCursor(XMLStreamReader reader, XmlLimits limits, Lenience lenience) {
        this.reader = reader;
        this.limits = limits;
        this.lenience = lenience;
        budget = new MemoryBudget(limits.memory());
        attributes = new XmlAttributes(this, reader);
        step();
    }

    /** Takes bytes apart in the encoding that the transport names, or the one that they name themselves. */
    static XMLStreamReader parser(InputStream stream, String encoding, XmlLimits limits) {
        return parser(new MessageScanner(), stream, encoding, limits);
    }

    /** Takes bytes apart with a scanner that may have read others. */
    static XMLStreamReader parser(MessageScanner scanner, InputStream stream, String encoding, XmlLimits limits) {
        try {
            scanner.begin(new BoundedStream(stream, limits.bytes()), encoding);
            return scanner;
        } catch (XMLStreamException e) {
            throw new XmlFormatException(
                    e.getMessage(),
                    e.getLocation().getLineNumber(),
                    e.getLocation().getColumnNumber(),
                    "",
                    e);
        }
    }

    boolean at(String wantedNamespace, String name) {
        settle();
        return local != null && local.equals(name) && namespace.equals(wantedNamespace)
                || lenience != null && bring(wantedNamespace, name);
    }

    private boolean bring(String wantedNamespace, String name) {
        String came = lenience.bring(wantedNamespace, name);
        if (came == null) {
            return false;
        }
        onStart();
        lenience.passOver(error(
                came.equals(wantedNamespace)
                        ? "<" + name + "> is out of order"
                        : "<" + name + "> is of namespace \"" + came + "\" instead of \"" + wantedNamespace + "\"",
                null));
        namespace = wantedNamespace;
        return true;
    }

    /** Makes way for an element that must come, if it comes later or in another namespace. */
    void makeWayFor(String name) {
        if (lenience != null && local != null) {
            lenience.putOffBefore(name);
        }
    }

    /** Moves to the end tag of the element around, past what nobody has asked for. */
    void passOverRest(Supplier<XmlFormatException> unexpected) {
        while (atElement()) {
            lenience.putOff();
            lenience.passOver(unexpected.get());
            skip();
        }
        lenience.passOverRest(path());
    }

    /** Ends the reading because of a deviation from the contract, or passes over it. */
    void tolerate(XmlFormatException deviation) {
        if (lenience == null) {
            throw deviation;
        }
        lenience.passOver(deviation);
    }

    boolean isLenient() {
        return lenience != null;
    }

    XmlAttributes attributes() {
        return attributes;
    }

    void loadAttributes() {
        attributes.load(limits.attributes());
    }

    void rejectUnknownAttributes() {
        attributes.rejectUnknown(local);
    }

    boolean atElement() {
        settle();
        return local != null;
    }

    String namespace() {
        settle();
        return namespace;
    }

    String localName() {
        settle();
        return local;
    }

    private void settle() {
        if (taken) {
            taken = false;
            step();
        }
    }

    /** Moves to the next tag; between them only white space, comments and processing instructions may stand. */
    private void step() {
        while (true) {
            switch (next()) {
                case XMLStreamConstants.START_ELEMENT -> {
                    onStart();
                    return;
                }
                case XMLStreamConstants.CHARACTERS -> {
                    if (!reader.isWhiteSpace()) {
                        tolerate(error("text is not expected here: " + shorten(reader.getText()), null));
                    }
                }
                default -> {
                    local = null;
                    return;
                }
            }
        }
    }

    private void onStart() {
        afford(budget.element());
        children[depth]++;
        local = reader.getLocalName();
        String uri = reader.getNamespaceURI();
        namespace = uri == null ? "" : uri;
    }

    /** Ends the reading when the message asks for too much. */
    private void afford(boolean enough) {
        if (!enough) {
            throw error(budget.exceeded(), null);
        }
    }

    /** Takes the memory that an object of the message needs. */
    void afford(XmlObject value) {
        afford(budget.object(value));
    }

    /** Takes the memory that attributes need which are kept by their names. */
    void affordAttributes(int count) {
        afford(budget.attributes(count));
    }

    /** Takes the memory that so many things need which are kept beside the values of an object. */
    void affordNotes(XmlObject of, int count, long length) {
        // The first brings what all of them are in.
        afford(budget.notes(of.notesIfAny() == null ? count + 1 : count, length));
    }

    /** Takes the memory that binary content needs as bytes of its own: a message may refer to one part many times. */
    void affordBinary(long length) {
        afford(budget.text(length));
    }

    private String affordable(String text) {
        afford(budget.text(text.length()));
        return text;
    }

    private int next() {
        try {
            return reader.next();
        } catch (XMLStreamException e) {
            throw error(e.getMessage(), e);
        }
    }

    void enter() {
        push();
        step();
    }

    private void push() {
        if (depth >= limits.depth()) {
            throw error("elements are nested deeper than " + limits.depth() + " levels", null);
        }
        if (depth + 1 == path.length) {
            path = Arrays.copyOf(path, depth * 2 + 2);
            children = Arrays.copyOf(children, depth * 2 + 2);
        }
        path[depth++] = local;
        children[depth] = 0;
        local = null;
    }

    void leave() {
        depth--;
        taken = true;
        local = null;
    }

    void skip() {
        int open = 1;
        while (open > 0) {
            int event = next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                open++;
            } else if (event == XMLStreamConstants.END_ELEMENT) {
                open--;
            }
            if (open + depth > limits.depth()) {
                throw error("elements are nested deeper than " + limits.depth() + " levels", null);
            }
        }
        taken = true;
    }

    void finish() {
        settle();
        while (reader.getEventType() != XMLStreamConstants.END_DOCUMENT) {
            step();
        }
    }

    /** Gives up the parser, which may begin with another message then. */
    void close() {
        try {
            reader.close();
        } catch (XMLStreamException e) {
            throw error(e.getMessage(), e);
        }
    }

    /** Says what the message refers to for its binary content. */
    void setParts(MimePackage around) {
        parts = around;
    }

    /** The text of an element; binary content that the message only refers to is put into it as XOP 1.0, section 3.2 says. */
    String text() {
        String text = binaryText();
        return included == null ? text : base64(takeIncluded());
    }

    /** The text of an element, or what it refers to: that is {@linkplain #takeIncluded taken} then. */
    String binaryText() {
        included = null;
        push();
        String first = "";
        StringBuilder more = null;
        while (true) {
            switch (next()) {
                case XMLStreamConstants.CHARACTERS -> {
                    if (more != null) {
                        more.append(reader.getText());
                    } else if (first.isEmpty()) {
                        first = reader.getText();
                    } else {
                        more = new StringBuilder(first).append(reader.getText());
                    }
                }
                case XMLStreamConstants.END_ELEMENT -> {
                    leave();
                    String text = more == null ? first : more.toString();
                    if (included != null && !Lexical.isBlank(text)) {
                        throw error("text and a reference to binary content stand side by side", null);
                    }
                    return affordable(text);
                }
                default -> {
                    if (included == null && atInclusion()) {
                        included = inclusion();
                    } else {
                        tolerate(error(
                                "<" + reader.getLocalName() + "> is not expected here: the element holds text only",
                                null));
                        skip();
                        taken = false;
                    }
                }
            }
        }
    }

    /** The longest message, in bytes. */
    long bytes() {
        return limits.bytes();
    }

    /** What the element read last referred to, or null. */
    Attachment takeIncluded() {
        Attachment content = included;
        included = null;
        return content;
    }

    private boolean atInclusion() {
        return parts != null && reader.getLocalName().equals("Include") && Names.XOP.equals(reader.getNamespaceURI());
    }

    /** Reads a reference to binary content, to its end tag. */
    private Attachment inclusion() {
        String reference = reader.getAttributeValue(null, "href");
        Attachment content = reference == null ? null : parts.find(reference.strip());
        if (content == null) {
            throw error("no part of the message is called " + shorten(String.valueOf(reference)), null);
        }
        while (next() != XMLStreamConstants.END_ELEMENT) {
            if (reader.getEventType() == XMLStreamConstants.START_ELEMENT) {
                throw error("a reference to binary content must be empty", null);
            }
        }
        return content;
    }

    private String base64(Attachment content) {
        if (content.length() > limits.bytes()) {
            throw error("binary content is longer than " + limits.bytes() + " bytes where it is kept as text", null);
        }
        // The text is longer by a third, and is put together with others in a buffer that grows.
        affordBinary(4 * content.length());
        return content.toBase64();
    }

    void enterMixed() {
        push();
    }

    /** Gives the text up to the next tag, often empty. */
    String nextMixed() {
        taken = false;
        StringBuilder text = new StringBuilder();
        while (true) {
            switch (next()) {
                case XMLStreamConstants.CHARACTERS -> text.append(reader.getText());
                case XMLStreamConstants.START_ELEMENT -> {
                    if (!atInclusion()) {
                        onStart();
                        return affordable(text.toString());
                    }
                    text.append(base64(inclusion()));
                }
                default -> {
                    local = null;
                    return affordable(text.toString());
                }
            }
        }
    }

    boolean atMixedElement() {
        return local != null;
    }

    /** Which child of the element around it the element is that came last, from 1. */
    int ordinal() {
        return children[depth];
    }

    /** Keeps the declarations of prefixes that a value uses or may use: what looks like one costs little to keep. */
    void rememberPrefixes(String value, Map<String, String> prefixes) {
        for (int colon = value.indexOf(':'); colon >= 0; colon = value.indexOf(':', colon + 1)) {
            int start = colon;
            while (start > 0 && isNameCharacter(value.charAt(start - 1))) {
                start--;
            }
            String prefix = value.substring(start, colon);
            String uri = prefix.isEmpty() ? null : reader.getNamespaceURI(prefix);
            if (uri != null && !prefix.equals("xml") && !prefix.equals("xmlns")) {
                prefixes.putIfAbsent(prefix, uri);
            }
        }
    }

    private static boolean isNameCharacter(char c) {
        return Character.isLetterOrDigit(c) || c == '-' || c == '_' || c == '.';
    }

    /** Whether a text can be a list of names without prefixes; of characters beyond ASCII any may be in one. */
    static boolean mayBeNames(String text) {
        boolean any = false;
        boolean inside = false;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean separates = c == ' ' || c == '\t' || c == '\n' || c == '\r';
            boolean begins = !inside && !separates;
            boolean ofName = c > '~' || (begins ? Character.isLetter(c) || c == '_' : isNameCharacter(c));
            if (!separates && !ofName) {
                return false;
            }
            inside = !separates;
            any |= inside;
        }
        return any;
    }

    /** The default namespace, in which names without a prefix are, empty for none. */
    String defaultNamespace() {
        String uri = reader.getNamespaceURI("");
        return uri == null ? "" : uri;
    }

    /** Keeps the default namespace; also that there is none, once there was one, which may be declared again around this. */
    void keepDefault(Map<String, String> prefixes) {
        noteDefault();
        if (keptDefault) {
            prefixes.put("", defaultNamespace());
        }
    }

    /** Notes that there is a default namespace, where there is, which may be declared around all that comes. */
    void noteDefault() {
        keptDefault = keptDefault || !defaultNamespace().isEmpty();
    }

    QName resolve(String text) {
        String value = Lexical.collapse(text);
        int colon = value.indexOf(':');
        String prefix = colon < 0 ? "" : value.substring(0, colon);
        String name = value.substring(colon + 1);
        String uri = reader.getNamespaceURI(prefix);
        if (uri == null && colon >= 0) {
            tolerate(error("the prefix " + shorten(prefix) + " in \"" + shorten(value) + "\" is not declared", null));
            return null;
        }
        if (name.isEmpty() || name.indexOf(':') >= 0 || name.indexOf(' ') >= 0) {
            tolerate(invalid(text, "QName"));
            return null;
        }
        return new QName(uri == null ? "" : uri, name, prefix);
    }

    XmlFormatException invalid(String text, String type) {
        Location at = reader.getLocation();
        int back = taken && text.indexOf('\n') < 0 ? text.length() + path[depth].length() + 3 : 0;
        return new XmlFormatException(
                "\"" + shorten(text) + "\" is not a valid " + type,
                at.getLineNumber(),
                Math.max(1, at.getColumnNumber() - back),
                path(),
                null);
    }

    XmlFormatException error(String message, Throwable cause) {
        Location at = reader.getLocation();
        return new XmlFormatException(message, at.getLineNumber(), at.getColumnNumber(), path(), cause);
    }

    private String path() {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < (taken ? depth + 1 : depth); i++) {
            text.append('/').append(path[i]);
        }
        return !taken && local != null ? text.append('/').append(local).toString() : text.toString();
    }

    static String shorten(String text) {
        return Lexical.shortened(text, 60);
    }
}
