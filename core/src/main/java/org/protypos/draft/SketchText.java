package org.protypos.draft;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.protypos.authoring.DraftParticle;
import org.protypos.diagnostic.Printable;
import org.protypos.draft.Sketch.SketchOperation;
import org.protypos.draft.Sketch.SketchPort;
import org.protypos.draft.Sketch.Style;

/** Writes a sketch: what goes without saying is not said. */
public final class SketchText {
    private static final Set<String> WORDS =
            Set.of("true", "false", "yes", "no", "on", "off", "null", "y", "n", "t", "f");

    private final StringBuilder out = new StringBuilder();
    private int depth;

    private SketchText() {}

    /** The text of a sketch, in YAML. */
    public static String of(Sketch sketch) {
        SketchText text = new SketchText();
        text.sketch(sketch);
        return text.out.toString();
    }

    private void line(String key, String value) {
        out.append("  ".repeat(depth)).append(scalar(key)).append(':');
        if (value != null) {
            out.append(' ').append(scalar(value));
        }
        out.append('\n');
    }

    private void optional(String key, String value) {
        if (value != null) {
            line(key, value);
        }
    }

    /** A text as YAML has it: plain where it cannot be taken for anything else. */
    static String scalar(String text) {
        boolean plain = text.matches("[\\p{L}_][\\p{L}\\p{N} _.,()/?*+'\\[\\]{}=^$\\\\<>:-]*")
                && !text.contains(": ")
                && !text.endsWith(":")
                && !text.endsWith(" ")
                && !WORDS.contains(text.toLowerCase(Locale.ROOT));
        return plain || text.matches("[?*+]") ? text : Printable.quoted(text);
    }

    private void sketch(Sketch sketch) {
        line("sketch", sketch.name());
        Sketch.Section main = sketch.sections().get(0);
        line("namespace", main.namespace());
        optional("documentation", sketch.documentation());
        optional("interface", sketch.portType().equals(sketch.name()) ? null : sketch.portType());
        optional("service", sketch.service().equals(sketch.name() + "Service") ? null : sketch.service());
        optional("style", sketch.style() == Style.RPC ? "rpc" : null);
        section(main, true);
        List<Sketch.Section> also =
                sketch.sections().subList(1, sketch.sections().size());
        if (!also.isEmpty()) {
            out.append('\n');
            line("also", null);
            depth++;
            for (Sketch.Section section : also) {
                line(section.prefix(), null);
                depth++;
                line("namespace", section.namespace());
                section(section, false);
                depth--;
            }
            depth--;
        }
        if (!sketch.operations().isEmpty()) {
            out.append('\n');
            line("operations", null);
            depth++;
            sketch.operations().forEach(this::operation);
            depth--;
        }
        if (!sketch.ports().isEmpty()) {
            out.append('\n');
            line("ports", null);
            depth++;
            for (SketchPort port : sketch.ports()) {
                line(port.name(), null);
                depth++;
                line("protocol", port.protocol().name().toLowerCase(Locale.ROOT));
                line("address", port.address());
                depth--;
            }
            depth--;
        }
    }

    private void section(Sketch.Section section, boolean apart) {
        optional("form", section.isQualified() ? null : "unqualified");
        if (!section.types().isEmpty()) {
            gap(apart);
            line("types", null);
            depth++;
            section.types()
                    .forEach((name, type) ->
                            type.act(values -> values(name, values), structure -> structure(name, structure)));
            depth--;
        }
        if (!section.elements().isEmpty()) {
            gap(apart);
            line("elements", null);
            depth++;
            section.elements().values().forEach(this::member);
            depth--;
        }
    }

    private void gap(boolean apart) {
        if (apart) {
            out.append('\n');
        }
    }

    private void values(String name, SketchType.Values values) {
        if (values.documentation() == null) {
            line(name, values.term().toString());
            return;
        }
        line(name, null);
        depth++;
        line("type", values.term().toString());
        line("documentation", values.documentation());
        depth--;
    }

    private void structure(String name, SketchType.Structure structure) {
        boolean empty = structure.members().isEmpty()
                && structure.base() == null
                && structure.documentation() == null
                && !structure.isAbstract()
                && !structure.isMixed();
        if (empty) {
            out.append("  ".repeat(depth)).append(scalar(name)).append(": {}\n");
            return;
        }
        line(name, null);
        depth++;
        optional("documentation", structure.documentation());
        optional("extends", structure.base());
        if (structure.isAbstract()) {
            out.append("  ".repeat(depth)).append("abstract: true\n");
        }
        if (structure.isMixed()) {
            out.append("  ".repeat(depth)).append("mixed: true\n");
        }
        members(structure.members());
        depth--;
    }

    private void members(List<SketchMember> members) {
        int[] numbers = new int[DraftParticle.Kind.values().length];
        for (SketchMember member : members) {
            if (member instanceof SketchMember.Group group) {
                String word =
                        switch (group.kind()) {
                            case CHOICE -> "either";
                            case SEQUENCE -> "together";
                            case ALL -> "unordered";
                        };
                int number = ++numbers[group.kind().ordinal()];
                line(word + (number == 1 ? "" : " " + number) + TypeTerm.sign(group.least(), group.most()), null);
                depth++;
                members(group.members());
                depth--;
            } else {
                member(member);
            }
        }
    }

    private void member(SketchMember member) {
        if (member instanceof SketchMember.Anything anything) {
            line("anything" + TypeTerm.sign(anything.least(), anything.most()), null);
        } else if (member instanceof SketchMember.Reference reference) {
            line(escaped(reference.name()), "element" + TypeTerm.sign(reference.least(), reference.most()));
        } else if (member instanceof SketchMember.Named named) {
            String name = named.isAttribute() ? "@" + named.name() : escaped(named.name());
            if (named.documentation() == null) {
                line(name, named.term().toString());
                return;
            }
            line(name, null);
            depth++;
            line("type", named.term().toString());
            line("documentation", named.documentation());
            depth--;
        }
    }

    /** A name that would be taken for something else. */
    private static String escaped(String name) {
        return SketchReader.KEYWORDS.contains(name)
                        || SketchReader.GROUP.matcher(name).matches()
                        || SketchReader.ANYTHING.matcher(name).matches()
                ? "<" + name + ">"
                : name;
    }

    private void operation(SketchOperation operation) {
        line(operation.name(), null);
        depth++;
        optional("documentation", operation.documentation());
        content("in", operation.in());
        if (operation.out() != null) {
            content("out", operation.out());
        }
        if (!operation.faults().isEmpty()) {
            line("faults", null);
            depth++;
            operation.faults().forEach(this::line);
            depth--;
        }
        names("headers", operation.headers());
        names("answerHeaders", operation.answerHeaders());
        optional("action", operation.action());
        depth--;
    }

    private void names(String key, List<String> names) {
        if (names.size() == 1) {
            line(key, names.get(0));
        } else if (!names.isEmpty()) {
            line(key, null);
            names.forEach(name -> out.append("  ".repeat(depth))
                    .append("- ")
                    .append(scalar(name))
                    .append('\n'));
        }
    }

    private void content(String key, Sketch.Content content) {
        if (content.element() != null) {
            line(key, content.element());
            return;
        }
        if (content.members().isEmpty()) {
            line(key, null);
            return;
        }
        line(key, null);
        depth++;
        members(content.members());
        depth--;
    }
}
