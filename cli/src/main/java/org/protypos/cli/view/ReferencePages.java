package org.protypos.cli.view;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.protypos.binding.Designators;
import org.protypos.constraint.ContractConstraints;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.exchange.call.MessageValues;
import org.protypos.generator.PlannedContract;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageReader;
import org.protypos.reference.ContractReference;
import org.protypos.reference.page.ReferencePage;
import org.protypos.target.LoweredApi;
import org.protypos.target.Target;
import org.protypos.target.Targets;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePort;

/** Gathers what stands in the page of a contract: names in all languages, example messages, findings. */
public final class ReferencePages {
    /** Longer examples nobody reads in a page. */
    private static final int LONGEST = 20_000;

    private final PlannedContract planned;
    private final Function<Target, PlannedContract> others;
    private final ContractReference reference;
    private final String title;
    private int room;

    /**
     * Begins.
     *
     * @param others gives the same contract for other languages
     */
    public ReferencePages(PlannedContract planned, Function<Target, PlannedContract> others, String title) {
        this.planned = planned;
        this.others = others;
        this.reference = reference(planned);
        this.title = title;
    }

    /** What there is to know of the components of a contract, with their names in code. */
    public static ContractReference reference(PlannedContract planned) {
        Contract contract = planned.contract();
        Map<String, String> names = new HashMap<>(planned.code().surface().names());
        names.putAll(planned.code().outline().methods());
        return new ContractReference(contract, names);
    }

    /** The page. */
    public ReferencePage page() {
        Contract contract = planned.contract();
        ReferencePage page = new ReferencePage(contract, reference, title);
        // The language that was asked for comes first.
        List<Target> targets = new ArrayList<>(List.of(planned.target()));
        Targets.all().stream().filter(one -> one != planned.target()).forEach(targets::add);
        for (Target target : targets) {
            PlannedContract other = target == planned.target() ? planned : others.apply(target);
            if (other.isSound()) {
                page.language(target.title(), names(contract, other.code()));
            }
        }
        // A page is for reading: examples take half as much room as the contract itself, and that of one.
        room = contract.documents().size() / 2 + LONGEST;
        examples(contract, page);
        Findings findings = new Findings();
        findings.addAll(planned.findings());
        findings.addAll(ContractConstraints.of(planned.published()));
        return page.rules(planned.rules()).findings(findings.sorted());
    }

    private static Map<String, String> names(Contract contract, LoweredApi code) {
        Map<String, String> names = new HashMap<>(code.surface().classes());
        names.putAll(code.outline().methods());
        return names;
    }

    private void examples(Contract contract, ReferencePage page) {
        ContractCheck check = new ContractCheck(contract);
        Samples least = new Samples(contract, check.vocabulary(), false);
        Samples full = new Samples(contract, check.vocabulary(), true);
        // Of several ports for one operation the first shows it.
        Set<String> seen = new HashSet<>();
        for (WirePort port : check.wire().ports()) {
            for (WireOperation operation : port.carried().operations()) {
                String designator = Designators.operation(port.carried().portType(), operation.operation())
                        .designator();
                if (seen.add(designator)) {
                    page.examples(designator, messages(operation, check, least, full));
                }
            }
        }
    }

    private Map<String, String> messages(WireOperation operation, ContractCheck check, Samples least, Samples full) {
        Map<String, String> messages = new LinkedHashMap<>();
        MessageValues values = new MessageValues(operation, check);
        String request = least.message(operation.request());
        add(messages, "A request with what must be", request);
        add(messages, "The same in JSON", json(values.request(MessageReader.read("sample", request), Map.of())));
        add(messages, "A request with all that may be", full.message(operation.request()));
        if (operation.answer() != null) {
            String answer = full.message(operation.answer());
            add(messages, "A response with all that may be", answer);
            add(messages, "That response in JSON", json(values.answer(MessageReader.read("sample", answer), Map.of())));
        }
        return messages;
    }

    private static String json(JsonValue value) {
        StringWriter text = new StringWriter();
        try (JsonGenerator json = new JsonFactory().createGenerator(text).useDefaultPrettyPrinter()) {
            JsonText.write(value, json);
        } catch (IOException e) {
            throw new UncheckedIOException("a text in memory takes everything", e);
        }
        return text.toString();
    }

    private void add(Map<String, String> messages, String name, String text) {
        if (text.length() <= Math.min(LONGEST, room)) {
            room -= text.length();
            messages.put(name, text);
        }
    }
}
