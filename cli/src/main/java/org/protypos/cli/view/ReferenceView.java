package org.protypos.cli.view;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;
import org.protypos.diagnostic.Place;
import org.protypos.reference.Component;
import org.protypos.reference.ContractReference;
import org.protypos.reference.Node;
import org.protypos.reference.Usages;

/** Shows components of a contract in full: the structure of each as a tree, and who uses it. */
public final class ReferenceView {
    private static final int GAP = 2;
    private static final int LEAST_REMARK = 24;
    private static final int WIDEST_TYPE = 28;
    private static final int MOST_USES = 40;

    private final ContractReference reference;
    private final List<Component> components;
    private final Integer depth;
    private final boolean usesAlone;
    private final String language;

    /**
     * Shows some components.
     *
     * @param depth how many levels of their structure are told, or null for as many as one can read
     * @param usesAlone whether only is told who uses them
     * @param language the language of the names in code, as people speak of it
     */
    public ReferenceView(
            ContractReference reference,
            List<Component> components,
            Integer depth,
            boolean usesAlone,
            String language) {
        this.reference = reference;
        this.components = components;
        this.depth = depth;
        this.usesAlone = usesAlone;
        this.language = language;
    }

    /** Prints them for people, in lines of a width. */
    public void text(PrintWriter out, int width) {
        for (Component component : components) {
            if (component != components.get(0)) {
                out.println();
            }
            out.println(Terminal.bold(Terminal.plain(component.title()))
                    + Terminal.dim("  " + Terminal.plain(where(component))));
            if (!component.documentation().isBlank()) {
                lines(component.documentation().strip().replaceAll("\\s+", " "), width - GAP)
                        .forEach(line -> out.println("  " + Terminal.plain(line)));
            }
            List<String> traits = reference.traits(component);
            if (!traits.isEmpty()) {
                lines(String.join("; ", traits), width - GAP).forEach(line -> out.println("  " + Terminal.plain(line)));
            }
            if (!reference.inCode(component).isEmpty()) {
                lines(reference.inCode(component) + " in " + language, width - GAP)
                        .forEach(line -> out.println("  " + Terminal.cyan(Terminal.plain(line))));
            }
            if (!usesAlone) {
                structure(out, component, width);
            }
            uses(out, component);
        }
    }

    private int levels(Component component) {
        return depth == null ? reference.readableDepth(component) : depth;
    }

    private static String where(Component component) {
        String namespace = component.name().getNamespaceURI();
        return (component.within().isEmpty() && !namespace.isEmpty() ? "{" + namespace + "}  " : "")
                + place(component.place());
    }

    private static String place(Place place) {
        return place == null ? "" : place.toString();
    }

    /** A place in a document that is called by its own name, for lines are short. */
    private static String shortPlace(Place place) {
        return place == null ? "" : place.toString().replaceFirst("^.*/", "");
    }

    /** A line of the tree, before it is known how wide its columns are. */
    private record Row(String label, String type, String occurs, String inCode, String remark, boolean isHeading) {}

    private void structure(PrintWriter out, Component component, int width) {
        List<Row> rows = new ArrayList<>();
        reference.structure(component, levels(component)).forEach(node -> row(node, 0, rows));
        if (rows.isEmpty()) {
            return;
        }
        out.println();
        int[] widths = new int[4];
        for (Row row : rows) {
            if (!row.isHeading()) {
                widths[0] = Math.max(widths[0], row.label().length());
                widths[1] = Math.max(widths[1], Math.min(WIDEST_TYPE, row.type().length()));
                widths[2] = Math.max(widths[2], row.occurs().length());
                widths[3] = Math.max(widths[3], row.inCode().length());
            }
        }
        for (Row row : rows) {
            print(out, row, widths, width);
        }
    }

    private static void print(PrintWriter out, Row row, int[] widths, int width) {
        if (row.isHeading()) {
            out.println("  " + Terminal.bold(Terminal.plain(row.label()))
                    + (row.remark().isEmpty() ? "" : "  " + Terminal.dim(Terminal.plain(row.remark()))));
            return;
        }
        String cells =
                "  " + padded(row.label(), widths[0]) + padded(row.type(), widths[1]) + padded(row.occurs(), widths[2]);
        String code = padded(row.inCode(), widths[3]);
        int indent = 2 + widths[0] + widths[1] + widths[2] + widths[3] + 4 * GAP;
        int room = width - indent;
        String line = Terminal.plain(cells) + Terminal.cyan(Terminal.plain(code));
        if (row.remark().isEmpty()) {
            out.println(line.stripTrailing());
            return;
        }
        boolean beside = room >= LEAST_REMARK;
        // Where a window is narrow, remarks stand below, a little deeper than what they are about.
        int from = beside
                ? indent
                : row.label().length() - row.label().stripLeading().length() + 2 * GAP + 2;
        List<String> remarks = lines(row.remark(), Math.max(width - from, LEAST_REMARK));
        out.println((beside ? line + Terminal.plain(remarks.get(0)) : line).stripTrailing());
        remarks.stream().skip(beside ? 1 : 0).forEach(more -> out.println(" ".repeat(from) + Terminal.plain(more)));
    }

    private static String padded(String text, int width) {
        return text + " ".repeat(Math.max(0, width - text.length()) + GAP);
    }

    private void row(Node node, int level, List<Row> rows) {
        boolean heading = node.kind() == Node.Kind.MESSAGE;
        String remark = String.join("; ", node.demands());
        if (!node.documentation().isEmpty()) {
            remark += (remark.isEmpty() ? "" : ". ") + node.documentation();
        }
        String more = node.isCut() ? " …" : "";
        rows.add(new Row(
                "  ".repeat(level) + node.label() + more, node.type(), node.occurs(), node.inCode(), remark, heading));
        node.children().forEach(child -> row(child, level + 1, rows));
    }

    /** Text broken between words into lines of a length; what has no blank is not broken. */
    private static List<String> lines(String text, int length) {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String word : text.split(" ")) {
            if (!line.isEmpty() && line.length() + 1 + word.length() > length) {
                lines.add(line.toString());
                line.setLength(0);
            }
            line.append(line.isEmpty() ? "" : " ").append(word);
        }
        lines.add(line.toString());
        return lines;
    }

    private void uses(PrintWriter out, Component component) {
        List<Usages.Use> uses = reference.usages().of(component);
        if (component.kind() == Component.Kind.OPERATION) {
            return;
        }
        out.println();
        if (uses.isEmpty()) {
            out.println("  nothing in the contract uses it");
            return;
        }
        out.println(Terminal.bold("  used by"));
        Columns columns = new Columns(4);
        uses.stream()
                .limit(usesAlone ? Integer.MAX_VALUE : MOST_USES)
                .forEach(use -> columns.row(use.user().title(), use.as(), shortPlace(use.place())));
        columns.print(out);
        if (!usesAlone && uses.size() > MOST_USES) {
            out.println("    and " + (uses.size() - MOST_USES) + " more: --usages tells all");
        }
        List<Component> operations = reference.usages().operations(component);
        if (!operations.isEmpty()) {
            out.println("  in messages of "
                    + Terminal.plain(operations.stream()
                            .map(Component::called)
                            .distinct()
                            .collect(Collectors.joining(", "))));
        }
    }

    /** Writes them as one JSON document. */
    public void json(PrintWriter out) throws IOException {
        Json.print(out, document -> {
            document.writeArrayFieldStart("components");
            for (Component component : components) {
                component(document, component);
            }
            document.writeEndArray();
        });
    }

    private void component(JsonGenerator document, Component component) throws IOException {
        document.writeStartObject();
        named(document, component);
        document.writeStringField("designator", component.designator());
        document.writeStringField("documentation", component.documentation());
        document.writeStringField("inCode", reference.inCode(component));
        Json.strings(document, "traits", reference.traits(component));
        if (!usesAlone) {
            document.writeArrayFieldStart("structure");
            for (Node node : reference.structure(component, levels(component))) {
                node(document, node);
            }
            document.writeEndArray();
        }
        document.writeArrayFieldStart("usedBy");
        for (Usages.Use use : reference.usages().of(component)) {
            document.writeStartObject();
            named(document, use.user());
            document.writeStringField("as", use.as());
            document.writeEndObject();
        }
        document.writeEndArray();
        document.writeArrayFieldStart("operations");
        for (Component operation : reference.usages().operations(component)) {
            document.writeStartObject();
            named(document, operation);
            document.writeEndObject();
        }
        document.writeEndArray();
        document.writeEndObject();
    }

    private static void named(JsonGenerator document, Component component) throws IOException {
        document.writeStringField("kind", component.kind().words());
        document.writeStringField("name", component.called());
        document.writeStringField("namespace", component.name().getNamespaceURI());
        if (!component.within().isEmpty()) {
            document.writeStringField("within", component.within());
        }
        document.writeStringField("place", place(component.place()));
    }

    private static void node(JsonGenerator document, Node node) throws IOException {
        document.writeStartObject();
        document.writeStringField(
                "kind", node.kind().name().toLowerCase(Locale.ROOT).replace('_', ' '));
        document.writeStringField("label", node.label());
        document.writeStringField("type", node.type());
        document.writeStringField("occurs", node.occurs());
        Json.strings(document, "demands", node.demands());
        document.writeStringField("documentation", node.documentation());
        document.writeStringField("inCode", node.inCode());
        document.writeBooleanField("cut", node.isCut());
        document.writeArrayFieldStart("children");
        for (Node child : node.children()) {
            node(document, child);
        }
        document.writeEndArray();
        document.writeEndObject();
    }
}
