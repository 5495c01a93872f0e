package org.protypos.runtime.parse;

import java.io.InputStream;
import java.util.Arrays;
import java.util.HashSet;
import java.util.Set;
import java.util.function.IntFunction;
import javax.xml.XMLConstants;
import javax.xml.stream.XMLStreamException;

/**
 * Takes messages apart (XML 1.0, fifth edition; Namespaces in XML 1.0), one after the other with the same buffers and the
 * names that it has met before. A message has no document type declaration, so there is nothing to fetch or to expand.
 * Comments and processing instructions are passed over. It knows as much of a stream reader as reading a message needs.
 */
public final class MessageScanner extends TokenScanner {
    private static final int MOST_ATTRIBUTES = 10_000;
    private static final int FEW = 8;
    private static final int FIRST_SIZE = 32;

    /** Longer lists than that are given up when a message ends. */
    private static final int MOST_KEPT = 1_024;

    /** Nearly every message begins like that: it need not be looked at closely. */
    static final String USUAL_DECLARATION = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>";

    private int event;
    private boolean empty;
    private boolean rootCame;
    private int depth;
    private Symbols.Name[] open = new Symbols.Name[FIRST_SIZE];
    private int[] outerBindings = new int[FIRST_SIZE];
    private int bindings;
    private Symbols.Prefix[] boundPrefixes = new Symbols.Prefix[FIRST_SIZE];
    private String[] boundNamespaces = new String[FIRST_SIZE];
    private String[] hiddenNamespaces = new String[FIRST_SIZE];
    private int attributes;
    private Symbols.Name[] attributeNames = new Symbols.Name[FIRST_SIZE];
    private String[] attributeValues = new String[FIRST_SIZE];
    private long tag;
    private int tagStart;

    /** Makes one for messages from anywhere. */
    public MessageScanner() {
        super(Symbols.secret());
    }

    private MessageScanner(Symbols symbols) {
        super(symbols);
    }

    /** Makes one for a few documents, for a process that does not go on for long. */
    public static MessageScanner quick() {
        return new MessageScanner(Symbols.quick());
    }

    /**
     * Begins with a message.
     *
     * @param in its bytes
     * @param encoding the encoding that the transport names, or null to take it from the message itself
     * @throws XMLStreamException when it does not even begin like a message
     */
    public void begin(InputStream in, String encoding) throws XMLStreamException {
        open(in, encoding);
        begin();
    }

    /**
     * Begins with a document that has been decoded, whatever encoding it names.
     *
     * @param decoded its characters, without a byte order mark
     * @throws XMLStreamException when it does not even begin like one
     */
    public void begin(String decoded) throws XMLStreamException {
        open(decoded);
        begin();
    }

    private void begin() throws XMLStreamException {
        event = START_DOCUMENT;
        empty = false;
        rootCame = false;
        depth = 0;
        unbind(0);
        attributes = 0;
        if (isAt(USUAL_DECLARATION)) {
            at += USUAL_DECLARATION.length();
        } else if (isAt("<?xml") && has(6) && Characters.isSpace(buffer[at + 5])) {
            declaration();
        }
    }

    /** Ends with a message: what took much memory is given up. */
    @Override
    public void close() {
        unbind(0);
        symbols.close();
        shrink();
        text.close();
        open = kept(open, Symbols.Name[]::new);
        boundPrefixes = kept(boundPrefixes, Symbols.Prefix[]::new);
        boundNamespaces = kept(boundNamespaces, String[]::new);
        hiddenNamespaces = kept(hiddenNamespaces, String[]::new);
        attributeNames = kept(attributeNames, Symbols.Name[]::new);
        attributeValues = kept(attributeValues, String[]::new);
        if (outerBindings.length != open.length) {
            outerBindings = new int[open.length];
        }
    }

    /** Empties what is small enough to be used again, and replaces the rest. */
    private static <T> T[] kept(T[] used, IntFunction<T[]> make) {
        if (used.length > MOST_KEPT) {
            return make.apply(FIRST_SIZE);
        }
        Arrays.fill(used, null);
        return used;
    }

    private void declaration() throws XMLStreamException {
        at += 5;
        String where = "in the XML declaration";
        space();
        String version = pseudoAttribute("version", where);
        if (version == null || !version.matches("1\\.[0-9]+")) {
            throw wrong("the XML declaration says no version of XML that is known");
        }
        boolean more = space();
        if (more && isAt("encoding")) {
            if (!pseudoAttribute("encoding", where).matches("[A-Za-z][A-Za-z0-9._-]*")) {
                throw wrong("the XML declaration names no encoding");
            }
            more = space();
        }
        if (more && isAt("standalone")) {
            String alone = pseudoAttribute("standalone", where);
            if (!alone.equals("yes") && !alone.equals("no")) {
                throw wrong("standalone is yes or no");
            }
            space();
        }
        need("?>", where);
    }

    private String pseudoAttribute(String name, String where) throws XMLStreamException {
        need(name, where);
        space();
        need("=", where);
        space();
        return value();
    }

    @Override
    public int next() throws XMLStreamException {
        if (event == END_ELEMENT) {
            depth--;
            unbind(outerBindings[depth]);
        } else if (event == START_ELEMENT && empty) {
            event = END_ELEMENT;
            return event;
        }
        attributes = 0;
        mark = -1;
        event = scan();
        return event;
    }

    private int scan() throws XMLStreamException {
        while (true) {
            if (at == end && !more()) {
                return documentEnd();
            }
            if (buffer[at] != '<') {
                if (depth > 0) {
                    return text();
                }
                if (!space()) {
                    throw wrong("text stands outside of the root element");
                }
                continue;
            }
            if (!has(2)) {
                throw wrong("it ends inside a tag");
            }
            switch (buffer[at + 1]) {
                case '/' -> {
                    return endTag();
                }
                case '?' -> instruction();
                case '!' -> {
                    if (isAt("<!--")) {
                        comment();
                    } else if (depth > 0 && isAt("<![CDATA[")) {
                        return text();
                    } else if (isAt("<!DOCTYPE")) {
                        throw wrong("a message must not have a document type declaration");
                    } else {
                        throw wrong("\"<!\" begins nothing here");
                    }
                }
                default -> {
                    return startTag();
                }
            }
        }
    }

    private int documentEnd() throws XMLStreamException {
        if (depth > 0) {
            throw wrong("it ends inside <" + open[depth - 1].text + ">");
        }
        if (!rootCame) {
            throw wrong("there is no element in it");
        }
        return END_DOCUMENT;
    }

    private void comment() throws XMLStreamException {
        at += 4;
        past("--", "inside a comment");
        if (!has(1) || buffer[at] != '>') {
            throw wrong("\"--\" stands inside a comment");
        }
        at++;
    }

    private void instruction() throws XMLStreamException {
        at += 2;
        Symbols.Name target = name();
        if (target.text.equalsIgnoreCase("xml")) {
            throw wrong("the XML declaration does not stand at the very start");
        }
        if (isAt("?>")) {
            at += 2;
        } else if (!space()) {
            throw wrong("white space is missing in a processing instruction");
        } else {
            past("?>", "inside a processing instruction");
        }
    }

    private int endTag() throws XMLStreamException {
        at += 2;
        Symbols.Name name = name();
        if (depth == 0 || open[depth - 1] != name) {
            throw wrong("</" + name.text + "> "
                    + (depth == 0 ? "ends nothing" : "stands where </" + open[depth - 1].text + "> is due"));
        }
        space();
        need(">", "at the end of a tag");
        return END_ELEMENT;
    }

    private int startTag() throws XMLStreamException {
        if (depth == 0 && rootCame) {
            throw wrong("another element follows the root");
        }
        tagStart = offset();
        at++;
        tag++;
        Symbols.Name name = name();
        int outer = bindings;
        boolean prefixed = false;
        while (true) {
            boolean apart = space();
            if (!has(1)) {
                throw wrong("it ends inside the tag <" + name.text + ">");
            }
            char c = buffer[at];
            if (c == '>' || c == '/') {
                empty = c == '/';
                need(empty ? "/>" : ">", "at the end of a tag");
                break;
            }
            if (!apart) {
                throw wrong("white space is missing inside the tag <" + name.text + ">");
            }
            prefixed |= attribute();
        }
        resolve(name);
        for (int i = 0; i < attributes && prefixed; i++) {
            resolve(attributeNames[i]);
        }
        if (prefixed && attributes > 1) {
            distinct();
        }
        if (depth == open.length) {
            open = Arrays.copyOf(open, depth * 2);
            outerBindings = Arrays.copyOf(outerBindings, depth * 2);
        }
        open[depth] = name;
        outerBindings[depth++] = outer;
        rootCame = true;
        return START_ELEMENT;
    }

    private void resolve(Symbols.Name name) throws XMLStreamException {
        if (name.prefix.namespace == null) {
            throw wrong("the prefix " + name.prefix.name + " is not declared");
        }
    }

    /** Reads an attribute or a declaration; tells whether it is an attribute with a prefix. */
    private boolean attribute() throws XMLStreamException {
        Symbols.Name name = name();
        space();
        if (has(1) && buffer[at] == '=') {
            at++;
        } else {
            need("=", "behind the attribute " + name.text);
        }
        space();
        String value = value();
        if (name.usedIn == tag) {
            throw wrong("the attribute " + name.text + " is there twice");
        }
        name.usedIn = tag;
        if (name.text.equals("xmlns")) {
            bind(symbols.prefix(""), value);
            return false;
        }
        if (name.prefix.name.equals("xmlns")) {
            bind(symbols.prefix(name.local), value);
            return false;
        }
        if (attributes == MOST_ATTRIBUTES) {
            throw wrong("an element has more than " + MOST_ATTRIBUTES + " attributes");
        }
        if (attributes == attributeNames.length) {
            attributeNames = Arrays.copyOf(attributeNames, attributes * 2);
            attributeValues = Arrays.copyOf(attributeValues, attributes * 2);
        }
        attributeNames[attributes] = name;
        attributeValues[attributes++] = value;
        return !name.prefix.name.isEmpty();
    }

    /** Two prefixes may stand for one namespace (Namespaces in XML, section 6.3). */
    private void distinct() throws XMLStreamException {
        if (attributes > FEW) {
            Set<String> names = new HashSet<>();
            for (int i = 0; i < attributes; i++) {
                if (!names.add("{" + getAttributeNamespace(i) + "}" + attributeNames[i].local)) {
                    throw wrong("the attribute " + attributeNames[i].text + " is there twice");
                }
            }
            return;
        }
        for (int i = 1; i < attributes; i++) {
            for (int j = 0; j < i; j++) {
                if (attributeNames[i].local.equals(attributeNames[j].local)
                        && getAttributeNamespace(i).equals(getAttributeNamespace(j))) {
                    throw wrong("the attribute " + attributeNames[i].text + " is there twice");
                }
            }
        }
    }

    private void bind(Symbols.Prefix prefix, String namespace) throws XMLStreamException {
        boolean xml = prefix.name.equals("xml");
        if (prefix.name.equals("xmlns")
                || namespace.equals(XMLConstants.XMLNS_ATTRIBUTE_NS_URI)
                || xml != namespace.equals(XMLConstants.XML_NS_URI)) {
            throw wrong("the prefix " + prefix.name + " cannot stand for " + namespace);
        }
        if (namespace.isEmpty() && !prefix.name.isEmpty()) {
            throw wrong("the prefix " + prefix.name + " is declared for no namespace");
        }
        if (xml) {
            return;
        }
        if (bindings == boundPrefixes.length) {
            boundPrefixes = Arrays.copyOf(boundPrefixes, bindings * 2);
            boundNamespaces = Arrays.copyOf(boundNamespaces, bindings * 2);
            hiddenNamespaces = Arrays.copyOf(hiddenNamespaces, bindings * 2);
        }
        boundPrefixes[bindings] = prefix;
        boundNamespaces[bindings] = namespace;
        hiddenNamespaces[bindings++] = prefix.namespace;
        // Who looks for a namespace has a constant: two that are one object need no second look.
        prefix.namespace = namespace.intern();
    }

    private void unbind(int to) {
        while (bindings > to) {
            bindings--;
            boundPrefixes[bindings].namespace = hiddenNamespaces[bindings];
        }
    }

    @Override
    public boolean hasNext() {
        return event != END_DOCUMENT;
    }

    @Override
    public int getEventType() {
        return event;
    }

    /** How many characters stand before the start tag that was read last. */
    public int tagStart() {
        return tagStart;
    }

    private Symbols.Name element() {
        return open[depth - 1];
    }

    @Override
    public String getLocalName() {
        return element().local;
    }

    @Override
    public String getPrefix() {
        return element().prefix.name;
    }

    @Override
    public String getNamespaceURI() {
        return element().prefix.namespace;
    }

    @Override
    public String getNamespaceURI(String prefix) {
        Symbols.Prefix known = symbols.known(prefix);
        return known == null ? null : known.namespace;
    }

    @Override
    public int getNamespaceCount() {
        return bindings - outerBindings[depth - 1];
    }

    @Override
    public String getNamespacePrefix(int index) {
        return boundPrefixes[outerBindings[depth - 1] + index].name;
    }

    @Override
    public String getNamespaceURI(int index) {
        return boundNamespaces[outerBindings[depth - 1] + index];
    }

    @Override
    public int getAttributeCount() {
        return attributes;
    }

    @Override
    public String getAttributeLocalName(int index) {
        return attributeNames[index].local;
    }

    @Override
    public String getAttributeNamespace(int index) {
        Symbols.Prefix prefix = attributeNames[index].prefix;
        return prefix.name.isEmpty() ? "" : prefix.namespace;
    }

    @Override
    public String getAttributeValue(int index) {
        return attributeValues[index];
    }

    /** The value of the first attribute of a local name; the namespace is not looked at. */
    @Override
    public String getAttributeValue(String namespace, String name) {
        for (int i = 0; i < attributes; i++) {
            if (attributeNames[i].local.equals(name)) {
                return attributeValues[i];
            }
        }
        return null;
    }

    @Override
    String around() {
        return element().text;
    }
}
