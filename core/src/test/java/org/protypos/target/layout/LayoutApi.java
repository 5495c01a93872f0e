package org.protypos.target.layout;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import org.protypos.api.Api;
import org.protypos.api.ApiInterface;
import org.protypos.api.ApiMessage;
import org.protypos.api.ApiOperation;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.EnumeratedType;
import org.protypos.api.type.Member;
import org.protypos.api.type.StructuredType;
import org.protypos.api.type.ValueFacets;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.Clash;
import org.protypos.naming.GivenNames;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;
import org.protypos.schema.facet.FacetStep;
import org.protypos.target.Beginning;
import org.protypos.target.LoweredApi;
import org.protypos.target.Outline;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;
import org.protypos.target.Surface;
import org.protypos.target.Toolchain;
import org.protypos.target.Wishes;

/** The messages of an API as records. */
final class LayoutApi implements LoweredApi {
    private static final int TEXT = 40;
    private static final int DOCUMENT = 500;
    private static final int TIMES = 5;

    private final Findings findings = new Findings();
    private final Naming naming;
    private final LayoutNames rules;
    private final List<Outline.Interface> interfaces = new ArrayList<>();
    private final Map<String, Layout> records = new TreeMap<>();

    /** A record that is being laid out. */
    private static final class Layout {
        private final StringBuilder text = new StringBuilder();
        private final NameScope names;
        private final Set<StructuredType> open = new HashSet<>();
        private int offset;

        Layout(NameScope names) {
            this.names = names;
        }

        void field(int depth, String name, String kind, int length) {
            text.append(String.format(Locale.ROOT, "%5d %s%-30s %s%n", offset, "  ".repeat(depth), name, kind));
            offset += length;
        }
    }

    LayoutApi(Api api, LayoutNames rules, Wishes wishes) {
        this.rules = rules;
        this.naming = new Naming(rules, wishes.rules(), wishes.past(), findings);
        NameScope programs = naming.scope("", Set.of());
        for (ApiInterface type : api.interfaces()) {
            List<Outline.Operation> operations = new ArrayList<>();
            for (ApiOperation operation : type.operations()) {
                String name = programs.claim(operation.subject(), rules.fieldName(operation.name()), "");
                record(name, "-IN", operation.input());
                if (operation.output() != null) {
                    record(name, "-OUT", operation.output());
                }
                operations.add(new Outline.Operation("CALL " + name, "", List.of(), operation));
            }
            interfaces.add(new Outline.Interface("", type.name().getLocalPart(), operations, type));
        }
    }

    private void record(String operation, String suffix, ApiMessage message) {
        String name = operation + suffix;
        Layout layout = new Layout(naming.scope(name, Set.of()));
        message.values().forEach(value -> member(layout, 0, value));
        records.put(name, layout);
    }

    private void member(Layout layout, int depth, Member member) {
        String wanted = rules.fieldName(member.name());
        String name = member.subject() == null
                ? layout.names.make(wanted, "")
                : layout.names.claim(member.subject(), wanted, "");
        int times = member.cardinality() == Member.Cardinality.MANY ? TIMES : 1;
        if (times > 1) {
            findings.warning(
                    "layout-bounded",
                    member.subject() == null ? null : member.subject().place(),
                    name + " may come any number of times, and the record has room for " + TIMES,
                    "choose another number");
            layout.field(depth, layout.names.make(name + "-COUNT", ""), "9(4)", 4);
        } else if (member.cardinality() == Member.Cardinality.OPTIONAL || member.nillable()) {
            layout.field(depth, layout.names.make(name + "-THERE", ""), "X", 1);
        }
        int begin = layout.offset;
        value(layout, depth, name + (times > 1 ? " OCCURS " + times : ""), member);
        layout.offset = begin + (layout.offset - begin) * times;
    }

    private void value(Layout layout, int depth, String name, Member member) {
        ApiValue value = member.value().plain();
        StructuredType type = value.structure();
        if (type != null && !type.isMixed() && !type.hasDerived() && layout.open.add(type)) {
            layout.field(depth, name, "", 0);
            for (StructuredType part = type; part != null; part = part.base()) {
                part.attributes().forEach(inner -> member(layout, depth + 1, inner));
                if (part.text() != null) {
                    member(layout, depth + 1, part.text());
                }
                part.elements().forEach(inner -> member(layout, depth + 1, inner));
            }
            layout.open.remove(type);
        } else if (value instanceof ApiValue.Enumerated enumerated) {
            int longest = enumerated.type().values().stream()
                    .map(EnumeratedType.Value::text)
                    .mapToInt(String::length)
                    .max()
                    .orElse(1);
            layout.field(depth, name, "X(" + longest + ")", longest);
        } else if (value instanceof ApiValue.Scalar scalar) {
            scalar(layout, depth, name, scalar, member.facets());
        } else {
            findings.warning(
                    "layout-document",
                    member.subject() == null ? null : member.subject().place(),
                    name + " has no fixed layout",
                    "it is text of " + DOCUMENT + " characters with its XML");
            layout.field(depth, name, "X(" + DOCUMENT + ") XML", DOCUMENT);
        }
    }

    private static void scalar(Layout layout, int depth, String name, ApiValue.Scalar scalar, ValueFacets facets) {
        int digits =
                switch (scalar.kind()) {
                    case BYTE, UNSIGNED_BYTE -> 3;
                    case SHORT, UNSIGNED_SHORT -> 5;
                    case INT, UNSIGNED_INT -> 10;
                    case LONG, UNSIGNED_LONG, INTEGER, DECIMAL -> 18;
                    default -> 0;
                };
        int length = digits > 0 ? digits : scalar.kind().isText() ? longest(facets) : TEXT;
        layout.field(depth, name, (digits > 0 ? "S9(" : "X(") + length + ")", length);
    }

    private static int longest(ValueFacets facets) {
        if (facets instanceof ValueFacets.Narrowed narrowed) {
            int most = narrowed.step() instanceof FacetStep.Length length ? length.most() : Integer.MAX_VALUE;
            return Math.min(most, longest(narrowed.base()));
        }
        return TEXT;
    }

    @Override
    public List<Clash> clashes() {
        return naming.clashes();
    }

    @Override
    public GivenNames names() {
        return naming.given();
    }

    @Override
    public List<Finding> findings() {
        return findings.sorted();
    }

    @Override
    public Outline outline() {
        return new Outline(List.of(), interfaces, records.size(), 0, List.of());
    }

    @Override
    public List<SourceFile> emit(Set<Product> products, boolean embedded, Supplier<List<String>> documents) {
        return records.entrySet().stream()
                .map(one -> new SourceFile(
                        one.getKey() + ".layout",
                        "* " + SourceFile.MARK + "\n" + one.getValue().text
                                + String.format(Locale.ROOT, "%5d%n", one.getValue().offset)))
                .toList();
    }

    @Override
    public List<Beginning> scaffold(Set<Product> products, boolean embedded) {
        return List.of();
    }

    @Override
    public List<SourceFile> project(String sources) {
        return List.of();
    }

    @Override
    public String next() {
        return "";
    }

    @Override
    public Surface surface() {
        Surface surface = new Surface();
        records.forEach((name, record) -> surface.add(
                name + record.text,
                new Surface.Symbol(name, name, "record " + name, Set.of(Surface.Audience.values()), Set.of())));
        return surface;
    }

    @Override
    public Toolchain.Types compiled(Set<QName> known) throws IOException {
        throw new IOException("layouts are not compiled");
    }
}
