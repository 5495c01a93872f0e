package org.protypos.runtime.parse;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import javax.xml.XMLConstants;

/** The names that came so far, each once, with what their prefixes stand for at present. */
final class Symbols {
    /** More than that and the names are forgotten before the next message. */
    private static final int MOST = 4_096;

    private static final int FIRST_SIZE = 128;

    /** Nobody can know which names fall together, so nobody can make up many that do. */
    private static final int FACTOR = new Random().nextInt() | 1;

    private Name[] table = new Name[FIRST_SIZE];
    private int size;
    private Map<String, Prefix> prefixes = new HashMap<>();

    /** A prefix and the namespace that it stands for, null when it is not declared. */
    static final class Prefix {
        final String name;
        String namespace;

        Prefix(String name, String namespace) {
            this.name = name;
            this.namespace = namespace;
        }
    }

    /** A name as it is written. */
    static final class Name {
        final String text;
        final Prefix prefix;
        final String local;
        private final int hash;
        private Name next;
        int usedIn;

        private Name(String text, int hash, Prefix prefix, String local) {
            this.text = text;
            this.hash = hash;
            this.prefix = prefix;
            this.local = local;
        }
    }

    Symbols() {
        clear();
    }

    private void clear() {
        table = new Name[FIRST_SIZE];
        size = 0;
        prefixes = new HashMap<>();
        prefixes.put("", new Prefix("", ""));
        prefixes.put("xml", new Prefix("xml", XMLConstants.XML_NS_URI));
        prefixes.put("xmlns", new Prefix("xmlns", XMLConstants.XMLNS_ATTRIBUTE_NS_URI));
    }

    /** Gets ready for another message. */
    void begin() {
        if (size > MOST) {
            clear();
        }
    }

    /** A prefix that has come, or null. */
    Prefix known(String prefix) {
        return prefixes.get(prefix);
    }

    /** A prefix, whether it has come or not. */
    Prefix prefix(String name) {
        return prefixes.computeIfAbsent(name, any -> new Prefix(name, null));
    }

    static int next(int hash, char c) {
        return hash * FACTOR + c;
    }

    /**
     * The name that some characters are.
     *
     * @param hash made of all of them with {@link #next}, from 0 on
     * @return the name, or null when it is none in a document with namespaces (Namespaces in XML, section 4)
     */
    Name find(char[] from, int start, int length, int hash) {
        int slot = slot(hash);
        for (Name name = table[slot]; name != null; name = name.next) {
            if (name.hash == hash && same(name.text, from, start, length)) {
                return name;
            }
        }
        return add(new String(from, start, length), hash, slot);
    }

    private int slot(int hash) {
        return (hash ^ hash >>> 16) & table.length - 1;
    }

    private static boolean same(String text, char[] from, int start, int length) {
        if (text.length() != length) {
            return false;
        }
        for (int i = 0; i < length; i++) {
            if (text.charAt(i) != from[start + i]) {
                return false;
            }
        }
        return true;
    }

    private Name add(String text, int hash, int slot) {
        int colon = text.indexOf(':');
        String local = text.substring(colon + 1);
        boolean sound = colon != 0
                && !local.isEmpty()
                && local.indexOf(':') < 0
                && (colon < 0 || Characters.isNameStart(local.codePointAt(0)));
        if (!sound) {
            return null;
        }
        Name name = new Name(text, hash, prefix(colon < 0 ? "" : text.substring(0, colon)), local);
        name.next = table[slot];
        table[slot] = name;
        if (++size > table.length) {
            grow();
        }
        return name;
    }

    private void grow() {
        Name[] all = Arrays.stream(table).filter(name -> name != null).toArray(Name[]::new);
        table = new Name[table.length * 2];
        for (Name first : all) {
            Name name = first;
            while (name != null) {
                Name rest = name.next;
                int slot = slot(name.hash);
                name.next = table[slot];
                table[slot] = name;
                name = rest;
            }
        }
    }
}
