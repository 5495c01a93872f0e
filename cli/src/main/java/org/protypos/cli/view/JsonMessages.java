package org.protypos.cli.view;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.BiFunction;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.SourceText;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.RequestBuilder;
import org.protypos.message.json.JsonMessageReader;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageText;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Turns files with messages in JSON into messages in XML. */
public final class JsonMessages {
    private final Contract contract;
    private final String as;
    private final CommandSpec spec;
    private final Findings findings;

    /**
     * Prepares for some files.
     *
     * @param as what the messages are, or null when nobody said
     * @param findings is told what has no place in the contract
     */
    public JsonMessages(Contract contract, String as, CommandSpec spec, Findings findings) {
        this.contract = contract;
        this.as = as;
        this.spec = spec;
        this.findings = findings;
    }

    /**
     * Gives files with those in JSON turned into XML; the others stay as they are.
     *
     * @param path where a file lies
     * @param made makes a file of its path and its message
     * @throws ParameterException when nobody said what the messages are, or the contract has no such thing
     */
    public <T> List<T> inXml(List<T> files, Function<T, Path> path, BiFunction<Path, byte[], T> made)
            throws IOException {
        List<T> all = new ArrayList<>();
        for (T file : files) {
            Path at = path.apply(file);
            if (!at.toString().toLowerCase(Locale.ROOT).endsWith(".json")) {
                all.add(file);
                continue;
            }
            SourceText text = GivenFile.text(at, at.toString());
            JsonValue value = JsonText.parse(text, findings);
            if (value != null) {
                all.add(made.apply(at, MessageText.of(message(value)).getBytes(StandardCharsets.UTF_8)));
            }
        }
        return all;
    }

    private MessageElement message(JsonValue value) {
        Vocabulary vocabulary = new Vocabulary(contract.schema());
        List<CalledOperation> operations = CalledOperation.of(contract);
        for (CalledOperation called : operations) {
            if (called.operation().name().equals(as)) {
                return new RequestBuilder(called.carried(), vocabulary, findings).request(value);
            }
        }
        for (QName name : contract.schema().elements().keySet()) {
            if (name.getLocalPart().equals(as) || name.toString().equals(as)) {
                return new JsonMessageReader(vocabulary, findings)
                        .element(value, name, vocabulary.typeOf(vocabulary.element(name)), "");
            }
        }
        List<String> known = new ArrayList<>();
        operations.forEach(called -> known.add(called.operation().name()));
        contract.schema().elements().keySet().forEach(name -> known.add(name.getLocalPart()));
        throw new ParameterException(
                spec.commandLine(),
                as == null
                        ? "--as: say what the messages in JSON are, an operation or a global element"
                        : "--as: the contract has no operation and no global element " + as
                                + NearestName.of(as, known)
                                        .map(near -> "; did you mean " + near + "?")
                                        .orElse(""));
    }
}
