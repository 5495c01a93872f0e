package org.protypos.cli.view;

import java.io.IOException;
import java.io.PrintWriter;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.TakenValues;
import org.protypos.message.model.Vocabulary;

/** Lists operations with the values that they take, for who is about to call one. */
public record OperationList(List<CalledOperation> operations, Vocabulary vocabulary, String contract) {
    /** Those that differ: an operation is at several ports. */
    private Collection<CalledOperation> different() {
        Map<String, CalledOperation> byKey = new LinkedHashMap<>();
        operations.forEach(called -> byKey.putIfAbsent(called.key(), called));
        return byKey.values();
    }

    /** Writes the operations as one JSON document. */
    public void json(PrintWriter out) throws IOException {
        Json.print(out, json -> {
            json.writeArrayFieldStart("operations");
            for (CalledOperation called : different()) {
                json.writeStartObject();
                json.writeStringField("name", called.operation().name());
                json.writeArrayFieldStart("values");
                for (TakenValues.Taken taken : TakenValues.of(called.request(), vocabulary)) {
                    json.writeStartObject();
                    json.writeStringField("name", taken.name());
                    json.writeBooleanField("required", taken.required());
                    json.writeStringField("is", taken.is());
                    json.writeEndObject();
                }
                json.writeEndArray();
                Json.strings(
                        json,
                        "attachments",
                        called.request().attachments().stream()
                                .map(part -> part.name())
                                .toList());
                json.writeEndObject();
            }
            json.writeEndArray();
        });
    }

    /** Prints the operations, one a line. */
    public void print(PrintWriter out) {
        String first = null;
        for (CalledOperation called : different()) {
            first = first == null ? called.operation().name() : first;
            out.println(Terminal.bold(Terminal.plain(called.operation().name())));
            Columns columns = new Columns(2);
            for (TakenValues.Taken taken : TakenValues.of(called.request(), vocabulary)) {
                columns.row(taken.name() + "=", taken.required() ? "" : "optional", taken.is());
            }
            called.request().attachments().forEach(part -> columns.row("--attach " + part.name() + "=FILE", "", ""));
            columns.print(out);
            out.println();
        }
        out.println(
                first == null
                        ? "the contract has no operation that can be called"
                        : "next: protypos call " + contract + " " + first + " NAME=VALUE …");
    }
}
