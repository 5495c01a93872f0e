package org.protypos.cli.view;

import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.Terminal;
import org.protypos.message.tree.MessageElement;

/** Shows a message as a tree of names and values, as a person would write it down. */
final class MessageView {
    private static final int LONGEST_VALUE = 200;

    private final List<String[]> rows = new ArrayList<>();

    private MessageView() {}

    static void print(MessageElement element, PrintWriter out) {
        MessageView view = new MessageView();
        view.add(element, 0);
        Columns columns = new Columns(2);
        view.rows.forEach(row -> columns.row(row[0], row[1]));
        columns.print(out);
    }

    private void add(MessageElement element, int depth) {
        String text = element.isNil() ? "nil" : element.children().isEmpty() ? element.text() : "";
        row(depth, element.name().getLocalPart(), text);
        for (Map.Entry<QName, String> attribute : element.attributes().entrySet()) {
            boolean instance = attribute.getKey().getNamespaceURI().endsWith("XMLSchema-instance");
            if (instance && attribute.getKey().getLocalPart().equals("nil")) {
                continue;
            }
            row(depth + 1, "@" + (instance ? "xsi:" : "") + attribute.getKey().getLocalPart(), attribute.getValue());
        }
        element.children().forEach(child -> add(child, depth + 1));
    }

    private void row(int depth, String name, String text) {
        String value = text.length() > LONGEST_VALUE ? text.substring(0, LONGEST_VALUE - 3) + "..." : text;
        rows.add(new String[] {"  ".repeat(depth) + Terminal.plain(name), Terminal.plain(value.strip())});
    }
}
