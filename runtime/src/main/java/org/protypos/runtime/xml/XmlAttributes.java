package org.protypos.runtime.xml;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Predicate;
import javax.xml.namespace.QName;
import javax.xml.stream.XMLStreamReader;
import org.protypos.runtime.value.Lexical;

/**
 * The attributes of the tag on which the parser stands: those of the content, of which each is taken once, and apart from
 * them those of the instance namespace (XML Schema Part 1, section 2.6) and of an envelope.
 */
final class XmlAttributes {
    private final XmlCursor cursor;
    private final XMLStreamReader reader;
    private int count;
    private int takenCount;
    private boolean[] taken = new boolean[8];
    private String[] namespaces = new String[8];
    private String[] names = new String[8];
    private String[] values = new String[8];
    private String statedType;
    private boolean statedNil;
    private Map<String, String> instance = Map.of();
    private String asideNamespace;
    private Map<String, String> aside = Map.of();
    private boolean sharing;
    private String shared;

    XmlAttributes(XmlCursor cursor, XMLStreamReader reader) {
        this.cursor = cursor;
        this.reader = reader;
    }

    /** Copies the attributes of the tag and sets aside those that are not of the content. */
    void load(int most) {
        statedType = null;
        statedNil = false;
        takenCount = 0;
        count = 0;
        shared = null;
        aside = Map.of();
        instance = Map.of();
        int all = reader.getAttributeCount();
        if (all == 0) {
            return;
        }
        if (all > most) {
            throw cursor.error("an element has more than " + most + " attributes", null);
        }
        if (all > names.length) {
            names = new String[all];
            namespaces = new String[all];
            values = new String[all];
            taken = new boolean[all];
        }
        for (int i = 0; i < all; i++) {
            String uri = reader.getAttributeNamespace(i);
            String name = reader.getAttributeLocalName(i);
            String value = reader.getAttributeValue(i);
            if (Names.XSI.equals(uri)) {
                loadInstanceAttribute(name, value);
            } else if (sharing && Names.SHARED.equals(uri)) {
                shared = value;
            } else if (uri != null && uri.equals(asideNamespace)) {
                aside = aside.isEmpty() ? new HashMap<>() : aside;
                aside.put(name, value);
            } else {
                taken[count] = false;
                namespaces[count] = uri == null ? "" : uri;
                names[count] = name;
                values[count++] = value;
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
                    cursor.tolerate(cursor.error(
                            "xsi:nil must be true or false, not \"" + XmlCursor.shorten(value) + "\"", null));
                }
            }
            case "schemaLocation", "noNamespaceSchemaLocation" -> keepInstanceAttribute(name, value);
            default -> cursor.tolerate(cursor.error("the attribute xsi:" + name + " does not exist", null));
        }
    }

    /** From now on attributes of this namespace are no part of the content. */
    void setAside(String envelopeNamespace) {
        asideNamespace = envelopeNamespace;
    }

    /** From now on elements may be marked as copies of one that the message refers to. */
    void setSharing() {
        sharing = true;
    }

    /** The identifier of what the element is a copy of, or null. */
    String shared() {
        return shared;
    }

    String aside(String name) {
        return aside.get(name);
    }

    private void keepInstanceAttribute(String name, String value) {
        instance = instance.isEmpty() ? new LinkedHashMap<>() : instance;
        instance.put(name, value);
    }

    /** The attributes of the instance namespace that change nothing. */
    Map<String, String> ofInstance() {
        return instance;
    }

    String statedType() {
        return statedType;
    }

    boolean statedNil() {
        return statedNil;
    }

    /** Whether there are any, those of the instance namespace among them. */
    boolean areAnyThere() {
        return count > 0 || statedType != null || !instance.isEmpty();
    }

    boolean areThere() {
        return count > 0;
    }

    /** Takes one, or gives null when it is absent. */
    String take(String wantedNamespace, String name) {
        for (int i = 0; i < count; i++) {
            if (names[i].equals(name) && namespaces[i].equals(wantedNamespace)) {
                if (!taken[i]) {
                    taken[i] = true;
                    takenCount++;
                }
                return values[i];
            }
        }
        return null;
    }

    /** Takes those that nobody has taken and whose namespace is allowed. */
    void takeRest(Map<QName, String> into, Map<String, String> prefixes, Predicate<String> allowed) {
        for (int i = 0; i < count; i++) {
            if (!taken[i] && allowed.test(namespaces[i])) {
                taken[i] = true;
                takenCount++;
                cursor.affordAttributes(1);
                into.put(new QName(namespaces[i], names[i]), values[i]);
                cursor.rememberPrefixes(values[i], prefixes);
            }
        }
    }

    /** Takes all, of which nobody knows what they hold, those of the instance namespace among them. */
    void takeAll(Map<QName, String> into, Map<String, String> prefixes) {
        cursor.affordAttributes(count + instance.size());
        for (int i = 0; i < count; i++) {
            into.put(new QName(namespaces[i], names[i]), values[i]);
            cursor.rememberPrefixes(values[i], prefixes);
            if (XmlCursor.mayBeNames(values[i])) {
                cursor.keepDefault(prefixes);
            }
        }
        instance.forEach((name, value) -> into.put(new QName(Names.XSI, name), value));
        if (statedType != null) {
            into.put(new QName(Names.XSI, "type"), statedType);
            cursor.rememberPrefixes(statedType, prefixes);
            if (statedType.indexOf(':') < 0) {
                cursor.keepDefault(prefixes);
            }
        }
        takenCount = count;
    }

    void rejectUnknown(String element) {
        for (int i = 0; takenCount < count && i < count; i++) {
            boolean serves = sharing && namespaces[i].equals(Names.SOAP_ENCODING);
            if (!taken[i] && !serves) {
                cursor.tolerate(
                        cursor.error("the attribute " + names[i] + " is not expected on <" + element + ">", null));
            }
        }
    }
}
