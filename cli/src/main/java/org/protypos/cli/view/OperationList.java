package org.protypos.cli.view;

import java.io.PrintWriter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.Terminal;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.TakenValues;
import org.protypos.message.model.Vocabulary;

/** Lists operations with the values that they take, for who is about to call one. */
public record OperationList(List<CalledOperation> operations, Vocabulary vocabulary, String contract) {
    /** Prints the operations, one a line. */
    public void print(PrintWriter out) {
        Map<String, CalledOperation> byKey = new LinkedHashMap<>();
        operations.forEach(called -> byKey.putIfAbsent(called.key(), called));
        String first = null;
        for (CalledOperation called : byKey.values()) {
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
