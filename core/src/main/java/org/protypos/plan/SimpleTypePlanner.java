package org.protypos.plan;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.naming.NameRules;
import org.protypos.naming.NameScope;
import org.protypos.schema.Facet;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;

/** Decides what simple types hold: built-in kinds, and enumerations where values are text. */
final class SimpleTypePlanner {
    /** More named values than this pass what one class can hold on some platforms; such types stay text. */
    private static final int MOST_CONSTANTS = 2_000;

    private final SchemaComponents schema;
    private final NameRules rules;

    SimpleTypePlanner(SchemaComponents schema, NameRules rules) {
        this.schema = schema;
        this.rules = rules;
    }

    /** Whether a type is a set of named values: it enumerates, and its values are text. */
    boolean isEnumeration(SimpleType type) {
        if (type.variety() != SimpleType.Variety.RESTRICTION) {
            return false;
        }
        long values = type.facets().stream()
                .filter(facet -> facet.kind().equals("enumeration"))
                .count();
        if (values > 0) {
            ScalarKind kind = textKind(type);
            return values <= MOST_CONSTANTS && kind != null && kind.isText();
        }
        return false;
    }

    /** The kind of text that a type restricts, or null when it restricts a list or a union. */
    private ScalarKind textKind(SimpleType type) {
        if (type.variety() == SimpleType.Variety.BUILT_IN) {
            return isBuiltinList(type) ? null : ScalarKind.of(type.name().getLocalPart());
        }
        if (type.variety() != SimpleType.Variety.RESTRICTION) {
            return null;
        }
        SchemaType base = schema.resolve(type.base());
        ScalarKind kind = base instanceof SimpleType simple ? textKind(simple) : null;
        return kind == null || !kind.isText() ? kind : whiteSpace(type.facets(), kind);
    }

    private static boolean isBuiltinList(SimpleType type) {
        return Set.of("NMTOKENS", "IDREFS", "ENTITIES").contains(type.name().getLocalPart());
    }

    private static ScalarKind whiteSpace(List<Facet> facets, ScalarKind otherwise) {
        for (Facet facet : facets) {
            if (facet.kind().equals("whiteSpace")) {
                return switch (facet.value()) {
                    case "collapse" -> ScalarKind.TOKEN;
                    case "replace" -> ScalarKind.NORMALIZED;
                    default -> otherwise;
                };
            }
        }
        return otherwise;
    }

    ValueType builtin(SimpleType type) {
        return isBuiltinList(type)
                ? new ValueType.Items(new ValueType.Scalar(ScalarKind.TOKEN))
                : new ValueType.Scalar(ScalarKind.of(type.name().getLocalPart()));
    }

    /** What a restriction that names no values makes of what its base holds. */
    ValueType narrowed(SimpleType type, ValueType base) {
        return base instanceof ValueType.Scalar scalar && scalar.kind().isText()
                ? new ValueType.Scalar(whiteSpace(type.facets(), scalar.kind()))
                : base;
    }

    ApiEnum enumeration(SimpleType type, String packageName, String name, ApiClass host, QName xmlType) {
        NameScope names = NameScope.of(List.of());
        Set<String> seen = new HashSet<>();
        List<ApiEnum.Constant> constants = new ArrayList<>();
        ScalarKind base = textKind(type);
        for (Facet facet : type.facets()) {
            if (facet.kind().equals("enumeration")) {
                String value = base == ScalarKind.TOKEN ? facet.value().strip().replaceAll("\\s+", " ") : facet.value();
                if (seen.add(value)) {
                    constants.add(new ApiEnum.Constant(
                            names.claim(rules.constantName(value), "_"), value, facet.documentation()));
                }
            }
        }
        return new ApiEnum(packageName, name, host, xmlType, base, List.copyOf(constants), type.documentation());
    }
}
