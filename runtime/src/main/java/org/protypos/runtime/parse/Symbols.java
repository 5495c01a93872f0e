package org.protypos.runtime.parse;

import java.security.SecureRandom;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.SplittableRandom;
import javax.xml.XMLConstants;

/** The names that came so far, each once, with what their prefixes stand for at present. */
final class Symbols {
    /** More names than that, or more characters in them, and they are forgotten when the message ends. */
    private static final int MOST = 4_096;

    private static final int MOST_CHARACTERS = 1 << 16;

    private static final int FIRST_SIZE = 128;

    /** Nobody can know which names fall together, so nobody can make up many that do. */
    private static final class Secret {
        static final long KEY;
        static final long FACTOR;

        static {
            SecureRandom random = new SecureRandom();
            KEY = random.nextLong();
            FACTOR = random.nextLong();
        }
    }

    private final long key;
    private final long factor;
    private Name[] table = new Name[FIRST_SIZE];
    private int size;
    private int characters;
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
        private final long hash;
        private Name next;
        long usedIn;

        private Name(String text, long hash, Prefix prefix, String local) {
            this.text = text;
            this.hash = hash;
            this.prefix = prefix;
            this.local = local;
        }
    }

    private Symbols(long key, long factor) {
        this.key = key;
        this.factor = factor | 1;
        clear();
    }

    /** For messages from anywhere. */
    static Symbols secret() {
        return new Symbols(Secret.KEY, Secret.FACTOR);
    }

    /** For a process that reads a few documents and ends, and cannot wait for a secret: the clock is secret enough. */
    static Symbols quick() {
        SplittableRandom random = new SplittableRandom();
        return new Symbols(random.nextLong(), random.nextLong());
    }

    private void clear() {
        table = new Name[FIRST_SIZE];
        size = 0;
        characters = 0;
        prefixes = new HashMap<>();
        prefixes.put("", new Prefix("", ""));
        prefixes.put("xml", new Prefix("xml", XMLConstants.XML_NS_URI));
        prefixes.put("xmlns", new Prefix("xmlns", XMLConstants.XMLNS_ATTRIBUTE_NS_URI));
    }

    /** Ends with a message: gives the names up when they are too many to be kept for the next. */
    void close() {
        if (size > MOST || characters > MOST_CHARACTERS || prefixes.size() > MOST) {
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

    /** What a name's hash begins with. */
    long hash() {
        return key;
    }

    /**
     * Takes a character into a hash. A product alone would be a polynomial of the factor, and there are texts that fall
     * together for every factor; the upper half of each product, folded into the lower, leaves no such rule.
     */
    long next(long hash, char c) {
        long product = (hash ^ c) * factor;
        return product ^ product >>> 32;
    }

    /**
     * The name that some characters are.
     *
     * @param hash made of all of them with {@link #next}, from {@link #hash} on
     * @return the name, or null when it is none in a document with namespaces (Namespaces in XML, section 4)
     */
    Name find(char[] from, int start, int length, long hash) {
        int slot = slot(hash);
        for (Name name = table[slot]; name != null; name = name.next) {
            if (name.hash == hash && same(name.text, from, start, length)) {
                return name;
            }
        }
        return add(new String(from, start, length), hash, slot);
    }

    private int slot(long hash) {
        return (int) hash & table.length - 1;
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

    private Name add(String text, long hash, int slot) {
        int colon = text.indexOf(':');
        String local = text.substring(colon + 1).intern();
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
        characters += text.length();
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
