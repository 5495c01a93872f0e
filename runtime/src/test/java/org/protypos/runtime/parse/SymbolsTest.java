package org.protypos.runtime.parse;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.lang.reflect.Array;
import java.lang.reflect.Field;
import java.lang.reflect.Modifier;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.Set;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.junit.jupiter.api.Test;

/** The names of messages are kept so that nobody can make them costly. */
class SymbolsTest {
    private final Symbols symbols = Symbols.secret();

    private long hash(CharSequence text) {
        long hash = symbols.hash();
        for (int i = 0; i < text.length(); i++) {
            hash = symbols.next(hash, text.charAt(i));
        }
        return hash;
    }

    /** The sequence of Thue and Morse and its complement fall together as polynomials of every odd factor. */
    @Test
    void namesMadeToFallTogetherDoNot() {
        Set<Integer> halves = new HashSet<>();
        int count = 0;
        for (char[] letters : new char[][] {{'a', 'b'}, {'x', 'y'}, {'A', 'Q'}, {'0', '\u4e2d'}}) {
            for (int length = 1 << 6; length <= 1 << 12; length *= 2) {
                StringBuilder one = new StringBuilder();
                StringBuilder two = new StringBuilder();
                for (int i = 0; i < length; i++) {
                    int bit = Integer.bitCount(i) & 1;
                    one.append(letters[bit]);
                    two.append(letters[1 - bit]);
                }
                halves.add((int) hash(one));
                halves.add((int) hash(two));
                count += 2;
            }
        }
        assertThat(halves).hasSize(count);
    }

    @Test
    void similarNamesSpread() {
        int[] slots = new int[1 << 12];
        for (int i = 0; i < slots.length; i++) {
            slots[(int) hash("element" + i) & slots.length - 1]++;
        }
        int longest = 0;
        for (int slot : slots) {
            longest = Math.max(longest, slot);
        }
        assertThat(longest).isLessThan(16);
    }

    private static void read(MessageScanner scanner, String message) throws XMLStreamException {
        scanner.begin(new ByteArrayInputStream(message.getBytes(StandardCharsets.UTF_8)), null);
        int event = scanner.getEventType();
        while (event != XMLStreamConstants.END_DOCUMENT) {
            event = scanner.next();
        }
        scanner.close();
    }

    /** What a scanner holds on to, in characters and places of lists. */
    private static long held(Object root) throws IllegalAccessException {
        Set<Object> seen = Collections.newSetFromMap(new IdentityHashMap<>());
        Deque<Object> open = new ArrayDeque<>();
        open.push(root);
        long held = 0;
        while (!open.isEmpty()) {
            Object object = open.pop();
            if (!seen.add(object)) {
                continue;
            }
            if (object.getClass().isArray()) {
                held += Array.getLength(object);
                boolean objects = object instanceof Object[];
                for (int i = 0; objects && i < Array.getLength(object); i++) {
                    push(open, Array.get(object, i));
                }
            } else if (object instanceof CharSequence text) {
                held += text.length();
            } else if (object instanceof java.util.Map<?, ?> map) {
                map.forEach((key, value) -> {
                    push(open, key);
                    push(open, value);
                });
            } else if (object.getClass().getName().startsWith("org.protypos")) {
                for (Class<?> part = object.getClass();
                        part.getName().startsWith("org.protypos");
                        part = part.getSuperclass()) {
                    for (Field field : part.getDeclaredFields()) {
                        if (!Modifier.isStatic(field.getModifiers())
                                && !field.getType().isPrimitive()) {
                            field.setAccessible(true);
                            push(open, field.get(object));
                        }
                    }
                }
            }
        }
        return held;
    }

    private static void push(Deque<Object> open, Object value) {
        if (value != null) {
            open.push(value);
        }
    }

    @Test
    void aRestingScannerKeepsLittle() throws XMLStreamException, IllegalAccessException {
        StringBuilder elements = new StringBuilder("<r>");
        StringBuilder attributes = new StringBuilder("<r ");
        for (int i = 0; i < 60_000; i++) {
            elements.append("<element").append(i).append("/>");
            attributes.append(i < 9_000 ? " attribute" + i + "='" + "v".repeat(200) + "'" : "");
        }
        String nested = "<e xmlns:p='urn:p'>".repeat(20_000) + "</e>".repeat(20_000);
        String longNames = "<r>" + ("<" + "n".repeat(200_000) + "/>").repeat(3) + "</r>";
        for (String message : new String[] {
            elements.append("</r>").toString(), attributes.append("/>").toString(), nested, longNames
        }) {
            MessageScanner scanner = new MessageScanner();
            read(scanner, message);
            assertThat(held(scanner)).as(message.substring(0, 20)).isLessThan(150_000);
            read(scanner, "<again xmlns:p='urn:p'><p:a p:b='c'/></again>");
        }
    }
}
