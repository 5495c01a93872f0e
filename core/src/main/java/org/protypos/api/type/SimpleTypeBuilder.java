package org.protypos.api.type;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.naming.Subject;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetKind;

/** Decides what simple types hold: built-in kinds, and enumerations where values are text. */
final class SimpleTypeBuilder {
    private final SchemaComponents schema;
    private final Remarks remarks;
    private final Map<SimpleType, Boolean> decided = new IdentityHashMap<>();

    SimpleTypeBuilder(SchemaComponents schema, Remarks remarks) {
        this.schema = schema;
        this.remarks = remarks;
    }

    /** Whether a type is a set of named values: it enumerates, or unites types that do, and its values are text. */
    boolean isEnumeration(SimpleType type) {
        Boolean known = decided.get(type);
        if (known == null) {
            known = decide(type);
            decided.put(type, known);
        }
        return known;
    }

    private boolean decide(SimpleType type) {
        if (type.variety() == SimpleType.Variety.UNION ? !unitesEnumerations(type) : !enumerates(type)) {
            return false;
        }
        ScalarKind kind = textKind(type);
        return kind != null && kind.isText();
    }

    private static boolean enumerates(SimpleType type) {
        return type.variety() == SimpleType.Variety.RESTRICTION
                && type.facets().stream().anyMatch(facet -> facet.kind() == FacetKind.ENUMERATION);
    }

    private boolean unitesEnumerations(SimpleType union) {
        return !union.members().isEmpty() && schema.members(union).stream().allMatch(this::isEnumeration);
    }

    /** The facets that name the values of a type, those of the members of a union one after the other. */
    private List<Facet> values(SimpleType type) {
        List<Facet> values = new ArrayList<>();
        if (type.variety() == SimpleType.Variety.UNION) {
            schema.members(type).forEach(member -> values.addAll(values(member)));
        } else {
            type.facets().stream()
                    .filter(facet -> facet.kind() == FacetKind.ENUMERATION)
                    .forEach(values::add);
        }
        return values;
    }

    /** The kind of text that values are, or null when they are none or of several kinds. */
    private ScalarKind textKind(SimpleType type) {
        return switch (type.variety()) {
            case BUILT_IN -> type.builtIn().isList() ? null : ScalarKind.of(type.builtIn());
            case LIST -> null;
            case UNION -> {
                List<ScalarKind> kinds = schema.members(type).stream()
                        .map(this::textKind)
                        .distinct()
                        .toList();
                yield kinds.size() == 1 ? kinds.get(0) : null;
            }
            case RESTRICTION -> {
                SchemaType base = schema.resolve(type.base());
                ScalarKind kind = base instanceof SimpleType simple ? textKind(simple) : null;
                yield kind == null || !kind.isText() ? kind : whiteSpace(type.facets(), kind);
            }
        };
    }

    /** The text that the values of a union are: the members decide for each text which of them has it. */
    ScalarKind united(SimpleType union) {
        return holdsNames(union) ? ScalarKind.NAMES : ScalarKind.STRING;
    }

    private boolean holdsNames(SimpleType type) {
        return switch (type.variety()) {
            case BUILT_IN -> ScalarKind.of(type.builtIn()) == ScalarKind.QNAME;
            case LIST, RESTRICTION -> schema.resolve(type.base()) instanceof SimpleType base && holdsNames(base);
            case UNION -> schema.members(type).stream().anyMatch(this::holdsNames);
        };
    }

    private static ScalarKind whiteSpace(List<Facet> facets, ScalarKind otherwise) {
        for (Facet facet : facets) {
            if (facet.kind() == FacetKind.WHITE_SPACE) {
                return switch (facet.value()) {
                    case "collapse" -> ScalarKind.TOKEN;
                    case "replace" -> ScalarKind.NORMALIZED;
                    default -> otherwise;
                };
            }
        }
        return otherwise;
    }

    static ApiValue builtin(SimpleType type) {
        return type.builtIn().isList()
                ? new ApiValue.Items(new ApiValue.Scalar(ScalarKind.TOKEN))
                : new ApiValue.Scalar(ScalarKind.of(type.builtIn()));
    }

    /** What a restriction that names no values makes of what its base holds. */
    static ApiValue narrowed(SimpleType type, ApiValue base) {
        ScalarKind text = whiteSpace(type.facets(), null);
        return text == null ? base : new ApiValue.Respaced(base, text);
    }

    /** The text that the values of an enumeration are. */
    ApiValue text(SimpleType type) {
        return new ApiValue.Scalar(textKind(type));
    }

    /** Makes an enumeration of a type. */
    EnumeratedType enumeration(SimpleType type, Origin origin, Subject subject, StructuredType host, QName name) {
        String designator = subject.designator();
        Set<String> seen = new HashSet<>();
        List<EnumeratedType.Value> all = new ArrayList<>();
        ScalarKind base = textKind(type);
        ValueRule text = ValueRule.of(base.builtin().local());
        for (Facet facet : values(type)) {
            String value = text.normalized(facet.value());
            if (seen.add(value)) {
                Subject constant = Subject.value(designator, value, facet.place());
                all.add(new EnumeratedType.Value(constant, value, remarks.of(constant, facet.documentation())));
            }
        }
        return new EnumeratedType(
                origin,
                subject,
                host,
                name,
                base,
                type.variety() == SimpleType.Variety.UNION ? united(type) : base,
                List.copyOf(all),
                remarks.of(subject, type.documentation()));
    }
}
