package org.protypos.generator;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.transform.TransformerFactory;
import javax.xml.transform.dom.DOMSource;
import javax.xml.transform.stream.StreamResult;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.constraint.ContractConstraints;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.draft.ContractSketch;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.Sections;
import org.w3c.dom.Attr;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.xml.sax.InputSource;

/**
 * Contracts from which one thing is missing, each thing once: what is refused is told, and of what is not refused everything
 * can be made.
 */
class IncompleteContractsTest {
    @TempDir
    Path folder;

    /** What can be done to an element or an attribute. */
    private enum Loss {
        REMOVED,
        EMPTY,
        TWICE
    }

    @ParameterizedTest
    @ValueSource(strings = {"incomplete/quay.txt", "incomplete/pilots.txt"})
    void nothingEndsInAMistake(String file) throws Exception {
        Sections sections = Sections.of(Path.of("src/test/resources").resolve(file));
        Path entry = sections.layOut(folder);
        String original = Files.readString(entry);
        assertThat(outcome(entry)).isEqualTo("sound");
        List<String> mistakes = new ArrayList<>();
        int elements = parsed(original).getElementsByTagName("*").getLength();
        int sound = 0;
        int refused = 0;
        for (int i = 1; i < elements; i++) {
            int attributes = element(parsed(original), i).getAttributes().getLength();
            for (int j = -1; j < attributes; j++) {
                for (Loss loss : Loss.values()) {
                    Document document = parsed(original);
                    String told = lose(element(document, i), j, loss);
                    Files.writeString(entry, text(document));
                    String outcome = told == null ? "" : outcome(entry);
                    sound += outcome.equals("sound") ? 1 : 0;
                    refused += outcome.equals("refused") ? 1 : 0;
                    if (outcome.startsWith("mistake")) {
                        mistakes.add(told + ": " + outcome);
                    }
                }
            }
        }
        assertThat(mistakes).isEmpty();
        assertThat(sound).isGreaterThan(50);
        assertThat(refused).isGreaterThan(30);
    }

    private static Document parsed(String text) throws Exception {
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        return factory.newDocumentBuilder().parse(new InputSource(new StringReader(text)));
    }

    private static Element element(Document document, int number) {
        return (Element) document.getElementsByTagName("*").item(number);
    }

    private static String text(Document document) throws Exception {
        StringWriter text = new StringWriter();
        TransformerFactory.newInstance().newTransformer().transform(new DOMSource(document), new StreamResult(text));
        return text.toString();
    }

    /** Does it, and tells what was done; null for what makes no sense. */
    private static String lose(Element element, int number, Loss loss) {
        String where = element.getNodeName() + " " + element.getAttribute("name");
        if (number < 0) {
            switch (loss) {
                case REMOVED -> element.getParentNode().removeChild(element);
                case EMPTY -> element.setTextContent("");
                case TWICE -> element.getParentNode().insertBefore(element.cloneNode(true), element);
            }
            return where + " " + loss;
        }
        Attr attribute = (Attr) element.getAttributes().item(number);
        if (attribute.getName().startsWith("xmlns") || loss == Loss.TWICE) {
            return null;
        }
        if (loss == Loss.REMOVED) {
            element.removeAttributeNode(attribute);
        } else {
            attribute.setValue(" ");
        }
        return where + " @" + attribute.getName() + " " + loss;
    }

    private static String outcome(Path entry) throws IOException {
        try {
            Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(entry.toString()), null));
            ContractConstraints.of(contract);
            if (!contract.isSound()) {
                return "refused";
            }
            ContractCheck check = new ContractCheck(contract);
            for (boolean full : new boolean[] {true, false}) {
                Samples samples = new Samples(contract, check.vocabulary(), full);
                for (QName name : samples.elements()) {
                    check.check(MessageReader.read("sample", samples.element(name)));
                }
            }
            ContractSketch.of(contract, new Findings());
            Generator.of(contract).generate(Order.into(entry.resolveSibling("code")));
            return "sound";
        } catch (RuntimeException e) {
            return "mistake " + e + Stream.of(e.getStackTrace()).limit(5).toList();
        }
    }
}
