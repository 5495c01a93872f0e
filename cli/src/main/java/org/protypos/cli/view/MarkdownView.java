package org.protypos.cli.view;

import java.io.PrintWriter;
import java.util.List;
import java.util.stream.Collectors;
import org.protypos.api.ApiService;
import org.protypos.diagnostic.Printable;
import org.protypos.generator.PlannedContract;
import org.protypos.reference.Component;
import org.protypos.reference.ContractReference;
import org.protypos.reference.Node;
import org.protypos.reference.Usages;
import org.protypos.target.Outline;

/** Writes what a contract offers as Markdown (CommonMark): for wikis, and for people who look at changes. */
public final class MarkdownView {
    private final PlannedContract planned;
    private final ContractReference reference;
    private final PrintWriter out;

    /** Writes to somewhere. */
    public MarkdownView(PlannedContract planned, ContractReference reference, PrintWriter out) {
        this.planned = planned;
        this.reference = reference;
        this.out = out;
    }

    /**
     * Writes the whole contract: services, operations with their messages, and types.
     *
     * @param depth how many levels of a message are told, or null for as many as one can read
     */
    public void contract(Integer depth) {
        Outline outline = planned.code().outline();
        for (Outline.Service service : outline.services()) {
            out.println("# " + text(service.api().name().getLocalPart()));
            out.println();
            for (ApiService.Port port : service.api().ports()) {
                out.println("- **" + text(port.name()) + "** " + text(port.speaks()) + ", " + code(port.address()));
            }
            out.println();
        }
        for (Outline.Interface type : outline.interfaces()) {
            out.println("# " + text(type.api().name().getLocalPart()));
            out.println();
            paragraph(type.api().documentation());
            for (Outline.Operation operation : type.operations()) {
                Component component = reference
                        .components()
                        .designated(operation.api().subject().designator());
                if (component != null) {
                    component(component, depth, operation.method());
                }
            }
        }
        List<Component> types = reference.components().all().stream()
                .filter(one -> one.kind() == Component.Kind.TYPE)
                .toList();
        if (!types.isEmpty()) {
            out.println("# Types");
            out.println();
            types.forEach(type -> component(type, 2, ""));
        }
    }

    /** Writes some components. */
    public void components(List<Component> components, Integer depth) {
        components.forEach(component -> component(component, depth, ""));
    }

    private void component(Component component, Integer depth, String signature) {
        out.println("## " + text(component.title()));
        out.println();
        paragraph(component.documentation());
        if (!signature.isEmpty()) {
            out.println(code(signature));
            out.println();
        }
        paragraph(String.join("; ", reference.traits(component)));
        List<Node> nodes = reference.structure(component, depth == null ? reference.readableDepth(component) : depth);
        nodes.forEach(node -> node(node, 0));
        if (!nodes.isEmpty()) {
            out.println();
        }
        List<Usages.Use> uses = reference.usages().of(component);
        if (!uses.isEmpty()) {
            out.println("Used by "
                    + uses.stream()
                            .map(use -> text(use.user().title()))
                            .distinct()
                            .collect(Collectors.joining(", "))
                    + ".");
            out.println();
        }
    }

    private void paragraph(String words) {
        if (words != null && !words.isBlank()) {
            out.println(text(words.strip().replaceAll("\\s+", " ")));
            out.println();
        }
    }

    private void node(Node node, int level) {
        StringBuilder line = new StringBuilder("  ".repeat(level) + "- **" + text(node.label()) + "**");
        line.append(node.type().isEmpty() ? "" : " " + code(node.type()));
        line.append(node.occurs().isEmpty() ? "" : " " + text(node.occurs()));
        line.append(node.demands().isEmpty() ? "" : "; " + text(String.join("; ", node.demands())));
        line.append(node.documentation().isEmpty() ? "" : ". " + text(node.documentation()));
        out.println(line + (node.isCut() ? " …" : ""));
        node.children().forEach(child -> node(child, level + 1));
    }

    /** Text that means nothing but itself. */
    private static String text(String words) {
        return plain(words).replaceAll("([\\\\`*_{}\\[\\]<>#|!~&])", "\\\\$1");
    }

    /** Text as code: a fence that is longer than any inside. */
    private static String code(String words) {
        String fence = "`";
        while (words.contains(fence)) {
            fence += "`";
        }
        String gap = words.startsWith("`") || words.endsWith("`") ? " " : "";
        return words.isBlank() ? "" : fence + gap + plain(words) + gap + fence;
    }

    private static String plain(String words) {
        return Printable.without(words, ' ').replaceAll("\\s+", " ");
    }
}
