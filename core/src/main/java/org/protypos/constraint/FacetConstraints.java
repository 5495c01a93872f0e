package org.protypos.constraint;

import static org.protypos.schema.facet.FacetKind.ENUMERATION;
import static org.protypos.schema.facet.FacetKind.FRACTION_DIGITS;
import static org.protypos.schema.facet.FacetKind.LENGTH;
import static org.protypos.schema.facet.FacetKind.MAX_EXCLUSIVE;
import static org.protypos.schema.facet.FacetKind.MAX_INCLUSIVE;
import static org.protypos.schema.facet.FacetKind.MAX_LENGTH;
import static org.protypos.schema.facet.FacetKind.MIN_EXCLUSIVE;
import static org.protypos.schema.facet.FacetKind.MIN_INCLUSIVE;
import static org.protypos.schema.facet.FacetKind.MIN_LENGTH;
import static org.protypos.schema.facet.FacetKind.PATTERN;
import static org.protypos.schema.facet.FacetKind.TOTAL_DIGITS;
import static org.protypos.schema.facet.FacetKind.WHITE_SPACE;

import java.math.BigInteger;
import java.util.Collections;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Printable;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.BuiltIn;
import org.protypos.schema.Builtins;
import org.protypos.schema.ComplexType;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetKind;

/**
 * Whether the facets of a simple type are about values that it has, go together, and allow no more than those of its base
 * (XML Schema Part 2, sections 4.1.5 and 4.3), and whether a list is one of items.
 */
final class FacetConstraints {
    static final Set<FacetKind> OF_LENGTH = EnumSet.of(LENGTH, MIN_LENGTH, MAX_LENGTH);
    static final Set<FacetKind> LOWER = EnumSet.of(MIN_INCLUSIVE, MIN_EXCLUSIVE);
    static final Set<FacetKind> UPPER = EnumSet.of(MAX_INCLUSIVE, MAX_EXCLUSIVE);
    static final Set<FacetKind> OF_DIGITS = EnumSet.of(TOTAL_DIGITS, FRACTION_DIGITS);
    private static final List<String> TREATMENTS = List.of("preserve", "replace", "collapse");

    private final Vocabulary vocabulary;
    private final MarkupConstraints markup;
    private final Findings findings;

    FacetConstraints(Vocabulary vocabulary, MarkupConstraints markup, Findings findings) {
        this.vocabulary = vocabulary;
        this.markup = markup;
        this.findings = findings;
    }

    void check(SimpleType type) {
        if (type.variety() == SimpleType.Variety.LIST) {
            ValueRule item = rule(type.base());
            if (item != null && holdsList(item)) {
                findings.warning(
                        "list-of-lists",
                        type.place(),
                        Told.name(type) + " is a list of what is a list itself",
                        "name the type of one item");
            }
        } else if (type.variety() == SimpleType.Variety.RESTRICTION && type.base() != null) {
            narrowed(type, type.base(), type.facets());
        }
    }

    void check(ComplexType type) {
        if (type.content() instanceof ComplexType.SimpleContent content) {
            narrowed(type, content.type() != null ? content.type() : type.base(), content.facets());
        }
    }

    private static boolean holdsList(ValueRule rule) {
        return rule.item() != null
                || rule.members() != null && rule.members().stream().anyMatch(FacetConstraints::holdsList);
    }

    private ValueRule rule(TypeReference reference) {
        TypeModel model = vocabulary.type(reference);
        return model == null ? null : model.text();
    }

    private void narrowed(SchemaType type, TypeReference base, List<Facet> facets) {
        ValueRule rule = rule(base);
        if (rule == null || type.place() == null) {
            return;
        }
        if (type instanceof SimpleType && Builtins.name("anySimpleType").equals(base.name())) {
            findings.warning(
                    "base-kind",
                    base.place(),
                    "nothing is a restriction of anySimpleType, which is all simple types",
                    "name a type such as string");
            return;
        }
        Set<FacetKind> applicable = ApplicableFacets.of(rule);
        Map<FacetKind, Facet> own = new EnumMap<>(FacetKind.class);
        for (Facet facet : facets) {
            if (!applicable.contains(facet.kind())) {
                findings.warning(
                        "facet-unfit",
                        facet.place(),
                        "xs:" + facet.kind() + " says nothing of " + ApplicableFacets.described(rule),
                        "leave it out, or use a facet of such values");
            } else if (facet.kind() == ENUMERATION) {
                listed(facet, rule);
            } else if (facet.kind() != PATTERN && own.put(facet.kind(), facet) != null) {
                findings.warning(
                        "facet-twice",
                        facet.place(),
                        "xs:" + facet.kind() + " is there already",
                        "leave one of them out");
            }
        }
        Map<FacetKind, Facet> inherited = inherited(vocabulary.schema().resolve(base));
        lengths(own, inherited);
        digits(own, inherited, rule);
        bounds(own, inherited, rule);
        space(own, rule);
        own.forEach((kind, facet) -> {
            Facet fixed = inherited.get(kind);
            if (fixed != null
                    && markup.isFixed(fixed.place())
                    && !fixed.value().strip().equals(facet.value().strip())) {
                findings.warning(
                        "facet-fixed",
                        facet.place(),
                        "xs:" + kind + " is fixed as \""
                                + Printable.of(fixed.value().strip()) + "\" in the base"
                                + Told.at(fixed.place(), facet.place()),
                        "leave it out");
            }
        });
    }

    private void listed(Facet facet, ValueRule base) {
        ValueRule.Complaint complaint = base.complaint(facet.value(), facet.namespaces());
        if (complaint != null) {
            findings.warning(
                    "value-of-type",
                    facet.place(),
                    "\"" + Printable.of(facet.value()) + "\" is no value of the type that is narrowed: "
                            + complaint.message(),
                    "write one, or leave it out: no message can hold it");
        } else if ("NOTATION".equals(base.builtin())
                && !vocabulary.schema().notations().containsKey(notation(facet))) {
            findings.warning(
                    "unresolved-name",
                    facet.place(),
                    "there is no notation " + Printable.of(facet.value()),
                    "declare it with xs:notation");
        }
    }

    private static QName notation(Facet facet) {
        String[] parts = facet.value().strip().split(":", 2);
        String namespace = facet.namespaces().apply(parts.length < 2 ? "" : parts[0]);
        return new QName(namespace == null ? "" : namespace, parts[parts.length - 1]);
    }

    /** What the bases say, the nearest first; of bounds on one side the nearer one of both kinds. */
    private Map<FacetKind, Facet> inherited(SchemaType base) {
        Map<FacetKind, Facet> facets = new EnumMap<>(FacetKind.class);
        Set<SchemaType> seen = Collections.newSetFromMap(new IdentityHashMap<>());
        SchemaType at = base;
        while (at != null && seen.add(at)) {
            List<Facet> here = List.of();
            TypeReference next = null;
            if (at instanceof SimpleType simple) {
                here = simple.facets();
                next = simple.variety() == SimpleType.Variety.RESTRICTION ? simple.base() : null;
            } else if (at instanceof ComplexType complex
                    && complex.content() instanceof ComplexType.SimpleContent content) {
                here = content.facets();
                next = content.type() != null ? content.type() : complex.base();
            }
            for (Facet facet : here) {
                boolean nearer = LOWER.contains(facet.kind()) && first(facets, LOWER) != null
                        || UPPER.contains(facet.kind()) && first(facets, UPPER) != null;
                if (!nearer) {
                    facets.putIfAbsent(facet.kind(), facet);
                }
            }
            at = next == null ? null : vocabulary.schema().resolve(next);
        }
        return facets;
    }

    private static Facet first(Map<FacetKind, Facet> facets, Set<FacetKind> kinds) {
        return kinds.stream()
                .map(facets::get)
                .filter(facet -> facet != null)
                .findFirst()
                .orElse(null);
    }

    private void lengths(Map<FacetKind, Facet> own, Map<FacetKind, Facet> inherited) {
        same(own.get(LENGTH), inherited.get(LENGTH));
        atLeast(own.get(MIN_LENGTH), inherited.get(MIN_LENGTH));
        atMost(own.get(MAX_LENGTH), inherited.get(MAX_LENGTH));
        Facet least = nearest(MIN_LENGTH, own, inherited);
        Facet most = nearest(MAX_LENGTH, own, inherited);
        Facet length = nearest(LENGTH, own, inherited);
        together(own, least, most);
        together(own, least, length);
        together(own, length, most);
    }

    private void digits(Map<FacetKind, Facet> own, Map<FacetKind, Facet> inherited, ValueRule rule) {
        atMost(own.get(TOTAL_DIGITS), inherited.get(TOTAL_DIGITS));
        atMost(own.get(FRACTION_DIGITS), inherited.get(FRACTION_DIGITS));
        together(own, nearest(FRACTION_DIGITS, own, inherited), nearest(TOTAL_DIGITS, own, inherited));
        Facet total = own.get(TOTAL_DIGITS);
        if (count(total) != null && count(total).signum() == 0) {
            findings.warning(
                    "facet-unfit",
                    total.place(),
                    shown(total) + " leaves no value: a number has one digit at least",
                    "write how many digits there may be, or leave it out");
        }
        Facet fraction = own.get(FRACTION_DIGITS);
        boolean whole = rule.builtin() != null && BuiltIn.of(rule.builtin()).isWhole();
        if (whole && count(fraction) != null && count(fraction).signum() > 0) {
            findings.warning(
                    "facet-wider",
                    fraction.place(),
                    "xs:fractionDigits allows digits behind the point, which a whole number has not",
                    "leave it out");
        }
    }

    private static Facet nearest(FacetKind kind, Map<FacetKind, Facet> own, Map<FacetKind, Facet> inherited) {
        return own.getOrDefault(kind, inherited.get(kind));
    }

    private static BigInteger count(Facet facet) {
        String text = facet == null ? "" : facet.value().strip();
        return text.matches("\\+?[0-9]{1,40}") ? new BigInteger(text) : null;
    }

    private void same(Facet own, Facet base) {
        if (count(own) != null && count(base) != null && !count(own).equals(count(base))) {
            wider(own, base);
        }
    }

    private void atLeast(Facet own, Facet base) {
        if (count(own) != null && count(base) != null && count(own).compareTo(count(base)) < 0) {
            wider(own, base);
        }
    }

    private void atMost(Facet own, Facet base) {
        if (count(own) != null && count(base) != null && count(own).compareTo(count(base)) > 0) {
            wider(own, base);
        }
    }

    private void wider(Facet own, Facet base) {
        findings.warning(
                "facet-wider",
                own.place(),
                shown(own) + " allows what the base does not: there it is " + shown(base)
                        + Told.at(base.place(), own.place()),
                "say less than the base, or leave it out");
    }

    private static String shown(Facet facet) {
        return "xs:" + facet.kind() + " \"" + Printable.of(facet.value().strip()) + "\"";
    }

    /** Says that two facets leave no value; nothing if both are of bases, where it was said. */
    private void together(Map<FacetKind, Facet> own, Facet less, Facet more) {
        boolean mine = own.containsValue(less) || own.containsValue(more);
        if (mine && count(less) != null && count(more) != null && count(less).compareTo(count(more)) > 0) {
            nothing(own, less, more);
        }
    }

    private void nothing(Map<FacetKind, Facet> own, Facet less, Facet more) {
        Facet told = own.containsValue(more) ? more : less;
        Facet other = told == more ? less : more;
        findings.warning(
                "facets-exclude",
                told.place(),
                shown(told) + " does not go with " + shown(other) + Told.at(other.place(), told.place()),
                "change one of them: no value keeps both");
    }

    private void bounds(Map<FacetKind, Facet> own, Map<FacetKind, Facet> inherited, ValueRule rule) {
        if (rule.builtin() == null || rule.item() != null) {
            return;
        }
        ValueRule builtin = ValueRule.of(rule.primitive());
        for (Set<FacetKind> side : List.of(LOWER, UPPER)) {
            Facet mine = first(own, side);
            if (side.stream().allMatch(own::containsKey)) {
                findings.warning(
                        "facet-twice",
                        mine.place(),
                        "there are an inclusive and an exclusive bound on one side",
                        "leave one of them out");
            }
            Facet theirs = first(inherited, side);
            if (isValue(builtin, mine) && isValue(builtin, theirs) && isBeyond(builtin, mine, theirs, side == UPPER)) {
                wider(mine, theirs);
            }
        }
        Facet least = first(own, LOWER) != null ? first(own, LOWER) : first(inherited, LOWER);
        Facet most = first(own, UPPER) != null ? first(own, UPPER) : first(inherited, UPPER);
        boolean mine = own.containsValue(least) || own.containsValue(most);
        if (mine && isValue(builtin, least) && isValue(builtin, most)) {
            boolean strictly = (least.kind() == MIN_EXCLUSIVE) != (most.kind() == MAX_EXCLUSIVE);
            boolean same = same(builtin, least, most);
            if (strictly && same || isGreater(builtin, least, most)) {
                nothing(own, least, most);
            }
        }
    }

    private static boolean isValue(ValueRule builtin, Facet facet) {
        return facet != null && builtin.complaint(facet.value(), null) == null;
    }

    /** Whether a bound lets in what the bound of the base does not (sections 4.3.7.4 to 4.3.10.4). */
    private static boolean isBeyond(ValueRule builtin, Facet own, Facet base, boolean upper) {
        boolean inclusive = own.kind() == (upper ? MAX_INCLUSIVE : MIN_INCLUSIVE);
        boolean exclusive = base.kind() == (upper ? MAX_EXCLUSIVE : MIN_EXCLUSIVE);
        return inclusive && exclusive && same(builtin, own, base)
                || (upper ? isGreater(builtin, own, base) : isGreater(builtin, base, own));
    }

    private static boolean same(ValueRule builtin, Facet one, Facet other) {
        return builtin.key(one.value(), null).equals(builtin.key(other.value(), null));
    }

    private static boolean isGreater(ValueRule builtin, Facet one, Facet other) {
        return !same(builtin, one, other)
                && builtin.most(other.value().strip(), false).complaint(one.value(), null) != null
                && builtin.least(one.value().strip(), false).complaint(other.value(), null) != null;
    }

    private void space(Map<FacetKind, Facet> own, ValueRule rule) {
        Facet space = own.get(WHITE_SPACE);
        if (space == null) {
            return;
        }
        String value = space.value().strip();
        String before = treatment(rule);
        if (!TREATMENTS.contains(value)) {
            findings.warning(
                    "facet-value",
                    space.place(),
                    "xs:whiteSpace needs one of " + String.join(", ", TREATMENTS) + ", not \"" + Printable.of(value)
                            + "\"",
                    "write one of them");
        } else if (TREATMENTS.indexOf(value) < TREATMENTS.indexOf(before)) {
            findings.warning(
                    "facet-wider",
                    space.place(),
                    "xs:whiteSpace \"" + value + "\" keeps what the base takes away: there it is \"" + before + "\"",
                    "leave it out");
        }
    }

    /** How white space is treated, as what becomes of some tells. */
    private static String treatment(ValueRule rule) {
        String kept = rule.normalized(" \t");
        return kept.isEmpty() ? "collapse" : kept.indexOf('\t') < 0 ? "replace" : "preserve";
    }
}
