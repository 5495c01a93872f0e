package org.protypos.plan;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;
import org.protypos.naming.Subject;
import org.protypos.schema.Facet;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;

/** Decides what simple types hold: built-in kinds, and enumerations where values are text. */
final class SimpleTypePlanner {
    /** More named values than this pass what one class can hold on some platforms; such types stay text. */
    private static final int MOST_CONSTANTS = 2_000;

    private final SchemaComponents schema;
    private final Naming naming;
    private final ShapePlanner shapes;
    private final Map<SimpleType, Boolean> decided = new IdentityHashMap<>();

    SimpleTypePlanner(SchemaComponents schema, Naming naming, ShapePlanner shapes) {
        this.shapes = shapes;
        this.schema = schema;
        this.naming = naming;
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
        return kind != null && kind.isText() && values(type).size() <= MOST_CONSTANTS;
    }

    private static boolean enumerates(SimpleType type) {
        return type.variety() == SimpleType.Variety.RESTRICTION
                && type.facets().stream().anyMatch(facet -> facet.kind().equals("enumeration"));
    }

    private boolean unitesEnumerations(SimpleType union) {
        return !union.members().isEmpty() && members(union).stream().allMatch(this::isEnumeration);
    }

    private List<SimpleType> members(SimpleType union) {
        List<SimpleType> members = new ArrayList<>();
        for (TypeReference member : union.members()) {
            if (schema.resolve(member) instanceof SimpleType simple) {
                members.add(simple);
            }
        }
        return members;
    }

    /** The facets that name the values of a type, those of the members of a union one after the other. */
    private List<Facet> values(SimpleType type) {
        List<Facet> values = new ArrayList<>();
        if (type.variety() == SimpleType.Variety.UNION) {
            members(type).forEach(member -> values.addAll(values(member)));
        } else {
            type.facets().stream()
                    .filter(facet -> facet.kind().equals("enumeration"))
                    .forEach(values::add);
        }
        return values;
    }

    /** The kind of text that values are, or null when they are none or of several kinds. */
    private ScalarKind textKind(SimpleType type) {
        return switch (type.variety()) {
            case BUILT_IN ->
                isBuiltinList(type) ? null : ScalarKind.of(type.name().getLocalPart());
            case LIST -> null;
            case UNION -> {
                List<ScalarKind> kinds =
                        members(type).stream().map(this::textKind).distinct().toList();
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
            case BUILT_IN -> ScalarKind.of(type.name().getLocalPart()) == ScalarKind.QNAME;
            case LIST, RESTRICTION -> schema.resolve(type.base()) instanceof SimpleType base && holdsNames(base);
            case UNION -> members(type).stream().anyMatch(this::holdsNames);
        };
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

    /** The text that the values of an enumeration are. */
    ValueType text(SimpleType type) {
        return new ValueType.Scalar(textKind(type));
    }

    ApiEnum enumeration(
            SimpleType type, String packageName, String name, ApiClass host, QName xmlType, Subject subject) {
        String designator = subject.designator();
        NameScope names = naming.scope(packageName + "." + name, List.of());
        names.expect(expected -> values(type)
                .forEach(facet -> expected.wants(
                        Subject.value(designator, facet.value(), facet.place()),
                        naming.rules().constantName(facet.value()))));
        Set<String> seen = new HashSet<>();
        List<ApiEnum.Constant> constants = new ArrayList<>();
        ScalarKind base = textKind(type);
        for (Facet facet : values(type)) {
            String value = base == ScalarKind.TOKEN ? facet.value().strip().replaceAll("\\s+", " ") : facet.value();
            if (seen.add(value)) {
                Subject constant = Subject.value(designator, value, facet.place());
                constants.add(new ApiEnum.Constant(
                        names.claim(constant, naming.rules().constantName(value), "_"),
                        value,
                        shapes.documentation(constant, facet.documentation())));
            }
        }
        return new ApiEnum(
                packageName,
                name,
                host,
                xmlType,
                base,
                List.copyOf(constants),
                shapes.interfaces(subject),
                shapes.documentation(subject, type.documentation()));
    }
}
