package org.protypos.message;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Random;
import java.util.TreeMap;
import javax.xml.namespace.QName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.diagnostic.Findings;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;

/** Trees that say what they mean only by names and namespaces mean the same when they are written and read again. */
class MessageTextTest {
    private static final String[] NAMESPACES = {"", "urn:a", "urn:b", "urn:c", "http://www.w3.org/XML/1998/namespace"};
    private static final String[] PREFIXES = {"", "p", "q", "n1"};

    private static String said(MessageElement element) {
        StringBuilder said = new StringBuilder("<" + element.name());
        new TreeMap<>(map(element))
                .forEach((name, value) ->
                        said.append(' ').append(name).append('=').append(value));
        for (Object item : element.content()) {
            said.append(item instanceof MessageElement child ? said(child) : "[" + item + "]");
        }
        return said.append('>').toString();
    }

    private static TreeMap<String, String> map(MessageElement element) {
        TreeMap<String, String> attributes = new TreeMap<>();
        element.attributes().forEach((name, value) -> attributes.put(name.toString(), value));
        return attributes;
    }

    private static MessageElement tree(Random random, int depth) {
        String namespace = NAMESPACES[random.nextInt(4)];
        MessageElement element = new MessageElement(new QName(namespace, "e" + random.nextInt(3)), null);
        for (int i = random.nextInt(3); i > 0; i--) {
            // Any declaration may be there, one that hides another's prefix among them; none stands for no namespace.
            element.prefixes().put(PREFIXES[random.nextInt(PREFIXES.length)], NAMESPACES[1 + random.nextInt(3)]);
        }
        for (int i = random.nextInt(3); i > 0; i--) {
            element.attributes()
                    .put(new QName(NAMESPACES[random.nextInt(NAMESPACES.length)], "a" + i), "<&\"'>\t\n " + i);
        }
        for (int i = depth == 0 ? 0 : random.nextInt(4); i > 0; i--) {
            if (random.nextInt(4) == 0) {
                element.add("text & ]]> <" + i);
            } else {
                element.add(tree(random, depth - 1));
            }
        }
        return element;
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3})
    void namesMeanTheSameWhateverIsDeclared(long seed) {
        Random random = new Random(seed);
        for (int i = 0; i < 1_500; i++) {
            MessageElement tree = tree(random, 4);
            String text = MessageText.compact(tree);
            Findings findings = new Findings();
            MessageElement read = MessageReader.read("message", text.getBytes(StandardCharsets.UTF_8), findings);
            assertThat(findings.sorted()).as(text).isEmpty();
            assertThat(said(read)).as(text).isEqualTo(said(tree));
        }
    }
}
