package org.protypos.runtime.xml;

import java.io.InputStream;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Predicate;
import javax.xml.namespace.QName;
import javax.xml.stream.FactoryConfigurationError;
import javax.xml.stream.Location;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.MimePackage;
import org.protypos.runtime.value.Lexical;

/**
 * The parser under {@link XmlInput}: it steps from tag to tag, keeps the attributes of the tag it stands on, holds the
 * message to its limits and knows the place for every complaint.
 *
 * <p>Taking an element leaves the parser on its end tag; the step to the next tag is made when somebody asks what comes
 * next. So a complaint about a value still knows where the value stood, and mixed content can be read between elements.
 */
final class XmlCursor {
    private static final XMLInputFactory FACTORY = factory();

    private final XMLStreamReader reader;
    private final XmlLimits limits;
    private String namespace;
    private String local;
    private boolean taken;
    private String[] path = new String[32];
    private int depth;

    private int attributeCount;
    private int attributesTaken;
    private boolean[] attributeTaken = new boolean[8];
    private String lastText = "";
    private String[] attributeNamespaces = new String[8];
    private String[] attributeNames = new String[8];
    private String[] attributeValues = new String[8];
    private String statedType;
    private boolean statedNil;
    private Map<String, String> instance = Map.of();
    private int[] children = new int[32];
    private String asideNamespace;
    private Map<String, String> aside = Map.of();
    private MimePackage parts;
    private Attachment included;

    XmlCursor(InputStream stream, String encoding, XmlLimits limits) {
        this.limits = limits;
        try {
            reader = FACTORY.createXMLStreamReader(new BoundedStream(stream, limits.bytes()), encoding);
        } catch (XMLStreamException e) {
            throw new XmlFormatException(reason(e), 1, 1, "", e);
        }
        step();
    }

    /**
     * The parsers of the implementation that the class path or a system property names, or else of the platform. A message
     * has no document type declaration and fetches nothing: SOAP 1.1 section 3, SOAP 1.2 Part 1 section 5.
     */
    private static XMLInputFactory factory() {
        try {
            return guarded(XMLInputFactory.newFactory());
        } catch (FactoryConfigurationError | IllegalArgumentException e) {
            // One that is not there or cannot be told to fetch nothing is of no use.
            return guarded(XMLInputFactory.newDefaultFactory());
        }
    }

    private static XMLInputFactory guarded(XMLInputFactory factory) {
        factory.setProperty(XMLInputFactory.IS_NAMESPACE_AWARE, true);
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, false);
        // The platform's own limits differ from version to version: ours hold instead.
        if (factory.isPropertySupported("jdk.xml.maxElementDepth")) {
            factory.setProperty("jdk.xml.maxElementDepth", "0");
            factory.setProperty("jdk.xml.elementAttributeLimit", "10000");
        }
        return factory;
    }

    boolean at(String wantedNamespace, String name) {
        settle();
        return local != null && local.equals(name) && namespace.equals(wantedNamespace);
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
                case XMLStreamConstants.END_ELEMENT, XMLStreamConstants.END_DOCUMENT -> {
                    local = null;
                    return;
                }
                case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA -> {
                    if (!reader.isWhiteSpace()) {
                        throw error("text is not expected here: " + shorten(reader.getText()), null);
                    }
                }
                default -> rejectDeclarations();
            }
        }
    }

    private void rejectDeclarations() {
        switch (reader.getEventType()) {
            case XMLStreamConstants.DTD -> throw error("a message must not have a document type declaration", null);
            case XMLStreamConstants.ENTITY_REFERENCE ->
                throw error("the entity " + reader.getLocalName() + " is not declared", null);
            default -> {
                // comments and processing instructions carry nothing a contract speaks of
            }
        }
    }

    private void onStart() {
        children[depth]++;
        local = reader.getLocalName();
        String uri = reader.getNamespaceURI();
        namespace = uri == null ? "" : uri;
    }

    private int next() {
        try {
            return reader.next();
        } catch (XMLStreamException e) {
            throw error(reason(e), e);
        } catch (RuntimeException e) {
            throw error("the message is not well-formed", e);
        }
    }

    private static String reason(XMLStreamException e) {
        String message = String.valueOf(e.getMessage());
        int at = message.indexOf("Message: ");
        return at < 0 ? message : message.substring(at + "Message: ".length());
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
            } else {
                rejectDeclarations();
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
                case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA, XMLStreamConstants.SPACE -> {
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
                    lastText = more == null ? first : more.toString();
                    if (included != null && !lastText.isBlank()) {
                        throw error("text and a reference to binary content stand side by side", null);
                    }
                    return lastText;
                }
                case XMLStreamConstants.START_ELEMENT -> {
                    if (included != null || !atInclusion()) {
                        throw error(
                                "<" + reader.getLocalName() + "> is not expected here: the element holds text only",
                                null);
                    }
                    included = inclusion();
                }
                default -> rejectDeclarations();
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
        lastText = content.toBase64();
        return lastText;
    }

    String lastText() {
        return lastText;
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
                case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA, XMLStreamConstants.SPACE ->
                    text.append(reader.getText());
                case XMLStreamConstants.START_ELEMENT -> {
                    if (!atInclusion()) {
                        onStart();
                        return text.toString();
                    }
                    text.append(base64(inclusion()));
                }
                case XMLStreamConstants.END_ELEMENT -> {
                    local = null;
                    return text.toString();
                }
                default -> rejectDeclarations();
            }
        }
    }

    boolean atMixedElement() {
        return local != null;
    }

    /** Copies the attributes of the tag and sets aside those of the instance namespace. */
    void loadAttributes() {
        statedType = null;
        statedNil = false;
        attributesTaken = 0;
        attributeCount = 0;
        aside = Map.of();
        instance = Map.of();
        int count = reader.getAttributeCount();
        if (count == 0) {
            return;
        }
        if (count > limits.attributes()) {
            throw error("an element has more than " + limits.attributes() + " attributes", null);
        }
        if (count > attributeNames.length) {
            attributeNames = new String[count];
            attributeNamespaces = new String[count];
            attributeValues = new String[count];
            attributeTaken = new boolean[count];
        }
        for (int i = 0; i < count; i++) {
            String uri = reader.getAttributeNamespace(i);
            String name = reader.getAttributeLocalName(i);
            String value = reader.getAttributeValue(i);
            if (Names.XSI.equals(uri)) {
                loadInstanceAttribute(name, value);
            } else if (uri != null && uri.equals(asideNamespace)) {
                aside = aside.isEmpty() ? new HashMap<>() : aside;
                aside.put(name, value);
            } else {
                attributeTaken[attributeCount] = false;
                attributeNamespaces[attributeCount] = uri == null ? "" : uri;
                attributeNames[attributeCount] = name;
                attributeValues[attributeCount++] = value;
            }
        }
    }

    /** XML Schema Part 1, section 2.6: schema locations are hints; they are kept, and nothing is fetched. */
    private void loadInstanceAttribute(String name, String value) {
        switch (name) {
            case "type" -> statedType = value;
            case "nil" -> {
                try {
                    statedNil = Lexical.parseBoolean(value);
                    if (!statedNil) {
                        keepInstanceAttribute(name, value);
                    }
                } catch (IllegalArgumentException e) {
                    throw error("xsi:nil must be true or false, not \"" + shorten(value) + "\"", null);
                }
            }
            case "schemaLocation", "noNamespaceSchemaLocation" -> keepInstanceAttribute(name, value);
            default -> throw error("the attribute xsi:" + name + " does not exist", null);
        }
    }

    /** From now on attributes of this namespace are no part of the content. */
    void setAside(String envelopeNamespace) {
        asideNamespace = envelopeNamespace;
    }

    String aside(String name) {
        return aside.get(name);
    }

    private void keepInstanceAttribute(String name, String value) {
        instance = instance.isEmpty() ? new LinkedHashMap<>() : instance;
        instance.put(name, value);
    }

    /** The attributes of the instance namespace that change nothing. */
    Map<String, String> instanceAttributes() {
        return instance;
    }

    /** Which child of the element around it the element is that came last, from 1. */
    int ordinal() {
        return children[depth];
    }

    String statedType() {
        return statedType;
    }

    boolean statedNil() {
        return statedNil;
    }

    boolean hasAttributes() {
        return attributeCount > 0;
    }

    String attribute(String wantedNamespace, String name) {
        for (int i = 0; i < attributeCount; i++) {
            if (attributeNames[i].equals(name) && attributeNamespaces[i].equals(wantedNamespace)) {
                if (!attributeTaken[i]) {
                    attributeTaken[i] = true;
                    attributesTaken++;
                }
                lastText = attributeValues[i];
                return lastText;
            }
        }
        return null;
    }

    /** Takes the attributes that nobody has taken and whose namespace is allowed. */
    void takeAttributes(Map<QName, String> into, Map<String, String> prefixes, Predicate<String> allowed) {
        for (int i = 0; i < attributeCount; i++) {
            if (!attributeTaken[i] && allowed.test(attributeNamespaces[i])) {
                attributeTaken[i] = true;
                attributesTaken++;
                into.put(new QName(attributeNamespaces[i], attributeNames[i]), attributeValues[i]);
                rememberPrefixes(attributeValues[i], prefixes);
            }
        }
    }

    void takeAttributes(Map<QName, String> into, Map<String, String> prefixes) {
        for (int i = 0; i < attributeCount; i++) {
            into.put(new QName(attributeNamespaces[i], attributeNames[i]), attributeValues[i]);
            rememberPrefixes(attributeValues[i], prefixes);
        }
        instance.forEach((name, value) -> into.put(new QName(Names.XSI, name), value));
        if (statedType != null) {
            into.put(new QName(Names.XSI, "type"), statedType);
            rememberPrefixes(statedType, prefixes);
        }
        attributesTaken = attributeCount;
    }

    /** Keeps the declarations of prefixes that a value uses or may use: what looks like one costs little to keep. */
    private void rememberPrefixes(String value, Map<String, String> prefixes) {
        for (int colon = value.indexOf(':'); colon >= 0; colon = value.indexOf(':', colon + 1)) {
            int start = colon;
            while (start > 0 && isNameCharacter(value.charAt(start - 1))) {
                start--;
            }
            String prefix = value.substring(start, colon);
            String uri = prefix.isEmpty() ? null : reader.getNamespaceURI(prefix);
            if (uri != null && !prefix.startsWith("xml")) {
                prefixes.putIfAbsent(prefix, uri);
            }
        }
    }

    private static boolean isNameCharacter(char c) {
        return Character.isLetterOrDigit(c) || c == '-' || c == '_' || c == '.';
    }

    void rejectUnknownAttributes() {
        if (attributesTaken >= attributeCount) {
            return;
        }
        int unknown = 0;
        while (attributeTaken[unknown]) {
            unknown++;
        }
        throw error("the attribute " + attributeNames[unknown] + " is not expected on <" + local + ">", null);
    }

    QName resolve(String text) {
        String value = Lexical.collapse(text);
        int colon = value.indexOf(':');
        String prefix = colon < 0 ? "" : value.substring(0, colon);
        String name = value.substring(colon + 1);
        String uri = reader.getNamespaceURI(prefix);
        if (uri == null && colon >= 0) {
            throw error("the prefix " + shorten(prefix) + " in \"" + shorten(value) + "\" is not declared", null);
        }
        if (name.isEmpty() || name.indexOf(':') >= 0 || name.indexOf(' ') >= 0) {
            throw invalid(text, "QName");
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

    private static String shorten(String text) {
        return text.length() <= 60 ? text : text.substring(0, 57) + "...";
    }
}
