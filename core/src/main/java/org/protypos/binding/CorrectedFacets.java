package org.protypos.binding;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.protypos.constraint.ApplicableFacets;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.Printable;
import org.protypos.message.model.Vocabulary;
import org.protypos.naming.Subject;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetKind;

/** The facets of types with corrections laid over them, of those that say something of their values. */
final class CorrectedFacets {
    private final Vocabulary vocabulary;
    private final Corrections corrections;

    /**
     * Corrects facets.
     *
     * @param vocabulary of the schema as it is published
     */
    CorrectedFacets(Vocabulary vocabulary, Corrections corrections) {
        this.vocabulary = vocabulary;
        this.corrections = corrections;
    }

    /** The facets of a simple type, and the values that it lists, with what is said of them. */
    List<Facet> of(SimpleType type, CorrectedSchema.Path path) {
        List<Facet> facets = new ArrayList<>();
        for (Facet facet : type.facets()) {
            String designator =
                    Subject.value(path.designator(), facet.value(), null).designator();
            Rule rule = facet.kind() == FacetKind.ENUMERATION ? corrections.dropping(designator) : null;
            if (rule == null) {
                facets.add(facet);
            } else {
                corrections.changed(rule, designator, facet.place(), "value '" + facet.value() + "'", "no such value");
            }
        }
        for (Rule rule : corrections.allAbout(path.designator(), Correction::added)) {
            value(rule, type, facets, path);
        }
        return of(type, facets, path);
    }

    /**
     * The facets of a restriction with what is said of them.
     *
     * @param type whose facets they are
     */
    List<Facet> of(SchemaType type, List<Facet> facets, CorrectedSchema.Path path) {
        Place place = type.place();
        List<Facet> corrected = new ArrayList<>(facets);
        for (FacetKind kind : Correction.FACETS) {
            Rule rule = corrections.about(
                    path.designator(),
                    correction ->
                            correction.facets() != null && correction.facets().containsKey(kind) ? true : null);
            String value =
                    rule == null ? null : rule.effect().correction().facets().get(kind);
            if (rule != null && (value == null || says(rule, kind, value, type, path))) {
                String before = corrected.stream()
                        .filter(facet -> facet.kind() == kind)
                        .map(Facet::value)
                        .collect(Collectors.joining(" or "));
                corrections.changed(
                        rule,
                        path.designator(),
                        place,
                        before.isEmpty() ? "no " + kind : kind + " " + before,
                        value == null ? "no " + kind : kind + " " + value);
                corrected.removeIf(facet -> facet.kind() == kind);
                if (value != null) {
                    corrected.add(new Facet(kind, value, null, "", rule.place()));
                }
            }
        }
        Rule listed = corrections.about(path.designator(), Correction::values);
        if (listed != null) {
            listed.effect().correction().values().forEach(value -> listed(listed, value, corrected, path, place));
        }
        return corrected;
    }

    /** Whether a facet says something of the values of a type; what it will have with another base is not known. */
    private boolean says(Rule rule, FacetKind kind, String value, SchemaType type, CorrectedSchema.Path path) {
        if (corrections.about(path.designator(), Correction::base) != null) {
            return true;
        }
        ValueRule values = vocabulary.type(new TypeReference(null, type, null)).text();
        if (!ApplicableFacets.of(values).contains(kind)) {
            corrections.refused(
                    rule,
                    kind + " says nothing of " + ApplicableFacets.described(values) + ", which " + path.designator()
                            + " is",
                    "leave it out, or use a facet of such values");
            return false;
        }
        boolean fits = kind.form() != FacetKind.Form.BOUND
                || ValueRule.of(values.builtin()).complaint(value, null) == null;
        if (!fits) {
            corrections.refused(
                    rule,
                    kind + " needs a value of " + values.builtin() + ", not \"" + Printable.of(value) + "\"",
                    "write one");
        }
        return fits;
    }

    private void listed(
            Rule rule, Correction.Listed value, List<Facet> facets, CorrectedSchema.Path path, Place place) {
        boolean there = facets.stream()
                .anyMatch(facet ->
                        facet.kind() == FacetKind.ENUMERATION && facet.value().equals(value.value()));
        String yes = "value '" + value.value() + "'";
        String no = "no value '" + value.value() + "'";
        corrections.changed(rule, path.designator(), place, there ? yes : no, value.isThere() ? yes : no);
        if (there && !value.isThere()) {
            facets.removeIf(facet ->
                    facet.kind() == FacetKind.ENUMERATION && facet.value().equals(value.value()));
        } else if (!there && value.isThere()) {
            facets.add(new Facet(FacetKind.ENUMERATION, value.value(), null, "", rule.place()));
        }
    }

    private void value(Rule rule, SimpleType type, List<Facet> facets, CorrectedSchema.Path path) {
        String value = rule.effect().correction().added().value();
        if (value == null) {
            corrections.refused(
                    rule,
                    path.designator() + " holds text alone, and neither elements nor attributes",
                    "write a value like \"'crane'\", or name a type that holds such");
            return;
        }
        if (facets.stream().noneMatch(facet -> facet.kind() == FacetKind.ENUMERATION)) {
            corrections.refused(
                    rule,
                    path.designator() + " has no list of values that one could be added to",
                    "name the type that lists them");
            return;
        }
        boolean there = facets.stream()
                .anyMatch(facet ->
                        facet.kind() == FacetKind.ENUMERATION && facet.value().equals(value));
        corrections.changed(
                rule,
                path.designator(),
                type.place(),
                there ? "value '" + value + "'" : "no such value",
                "value '" + value + "'");
        if (!there) {
            facets.add(new Facet(FacetKind.ENUMERATION, value, null, "", rule.place()));
        }
    }
}
