package org.protypos.exchange.call;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.protypos.schema.BuiltIn;
import org.protypos.schema.ComplexType;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.facet.FacetStep;
import org.protypos.source.Xml;

/** What a field for one value is to be like: its kind, what may be chosen, and what else the contract asks for. */
public final class ValueField {
    private static final Set<String> OWN = Set.of("boolean", "date", "time", "dateTime", "base64Binary");
    private static final int MOST_STEPS = 100;
    private static final int MOST_SHOWN = 12;

    private final SchemaComponents schema;
    private final List<String> hints = new ArrayList<>();
    private List<String> values = List.of();
    private String kind = "text";
    private boolean list;

    private ValueField(SchemaComponents schema) {
        this.schema = schema;
    }

    /** Writes what a field for values of a type is like. */
    public static void write(SchemaComponents schema, SchemaType type, JsonGenerator out) throws IOException {
        ValueField field = new ValueField(schema);
        field.follow(type);
        out.writeStartObject();
        out.writeStringField("kind", field.list || field.values.isEmpty() ? field.kind : "choice");
        out.writeStringField("hint", String.join("; ", field.hints));
        out.writeArrayFieldStart("values");
        for (String value : field.values) {
            out.writeString(value);
        }
        out.writeEndArray();
        out.writeEndObject();
    }

    /** Says in words what values of a type may be. */
    static String words(SchemaComponents schema, SchemaType type) {
        ValueField field = new ValueField(schema);
        field.follow(type);
        if (!field.list && !field.values.isEmpty()) {
            int shown = Math.min(MOST_SHOWN, field.values.size());
            return TakenValues.listed(field.values.subList(0, shown))
                    + (shown < field.values.size() ? " and others" : "");
        }
        String kind =
                switch (field.kind) {
                    case "whole" -> "a whole number";
                    case "number" -> "a number";
                    case "boolean" -> "true or false";
                    case "base64Binary" -> "bytes in base64";
                    case "date" -> "a date such as 2027-05-09";
                    case "time" -> "a time such as 14:30:00";
                    case "dateTime" -> "a time such as 2027-05-09T14:30:00Z";
                    default -> "text";
                };
        return kind + (field.hints.isEmpty() ? "" : ", " + String.join("; ", field.hints));
    }

    /** Goes from a type to the built-in one that it comes from; what is nearest to the type counts. */
    private void follow(SchemaType start) {
        SchemaType type = start;
        for (int steps = 0; type != null && steps < MOST_STEPS; steps++) {
            if (type.name() != null && type.name().getNamespaceURI().equals(Xml.XSD)) {
                builtin(type.name().getLocalPart());
                return;
            }
            type = type.map(this::complex, this::simple);
        }
    }

    private SchemaType simple(SimpleType type) {
        switch (type.variety()) {
            case RESTRICTION -> {
                FacetStep.of(type.facets()).forEach(this::facet);
                return schema.resolve(type.base());
            }
            case LIST -> {
                list = true;
                hints.add(0, "several, with spaces between them");
                return schema.resolve(type.base());
            }
            case UNION -> {
                union(type);
                return null;
            }
            default -> {
                return null;
            }
        }
    }

    /** A union can only be chosen from when all that it may be is. */
    private void union(SimpleType type) {
        List<String> all = new ArrayList<>();
        boolean chosen = true;
        for (SimpleType one : schema.members(type)) {
            ValueField member = new ValueField(schema);
            member.follow(one);
            chosen &= !member.values.isEmpty() && !member.list;
            all.addAll(member.values);
        }
        if (values.isEmpty() && chosen) {
            values = all;
        } else if (values.isEmpty() && !all.stream().allMatch(String::isEmpty)) {
            hints.add("such as " + String.join(", ", all.subList(0, Math.min(8, all.size()))));
        }
    }

    private SchemaType complex(ComplexType type) {
        if (type.content() instanceof ComplexType.SimpleContent content) {
            FacetStep.of(content.facets()).forEach(this::facet);
            return content.type() != null ? schema.resolve(content.type()) : schema.resolve(type.base());
        }
        return null;
    }

    private void builtin(String name) {
        BuiltIn type = BuiltIn.of(name);
        if (type != null && type.isWhole()) {
            kind = "whole";
        } else if (type != null && type.isNumber()) {
            kind = "number";
        } else if (OWN.contains(name) && !list) {
            kind = name;
        } else if (name.equals("duration")) {
            hints.add("such as P2D or PT1H30M");
        }
        if (list && !values.isEmpty()) {
            hints.add("each one of " + String.join(", ", values));
        }
    }

    private void facet(FacetStep step) {
        if (step instanceof FacetStep.OneOf some) {
            values = values.isEmpty() ? some.values() : values;
            return;
        }
        String hint = step.map(new FacetStep.Cases<>(
                space -> null,
                matching -> "like " + matching.pattern(),
                some -> null,
                least -> (least.exclusive() ? "more than " : "at least ") + least.bound(),
                most -> (most.exclusive() ? "less than " : "at most ") + most.bound(),
                ValueField::length,
                digits -> digits.total() < Integer.MAX_VALUE
                        ? "at most " + digits.total() + " digits"
                        : "at most " + digits.fraction() + " digits after the point"));
        if (hint != null) {
            hints.add(hint);
        }
    }

    private static String length(FacetStep.Length length) {
        if (length.least() == length.most()) {
            return "length " + length.least();
        }
        return length.most() == Integer.MAX_VALUE
                ? "length at least " + length.least()
                : "length at most " + length.most();
    }
}
