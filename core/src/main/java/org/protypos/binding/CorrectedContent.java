package org.protypos.binding;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.naming.Subject;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;

/** Content models with corrections laid over them. */
final class CorrectedContent {
    private static final Term.Cases<QName> NAMES = new Term.Cases<>(
            ElementDeclaration::name, ElementReference::name, group -> null, model -> null, wildcard -> null);

    private final SchemaComponents schema;
    private final Corrections corrections;
    private final CorrectedSchema around;

    CorrectedContent(SchemaComponents schema, Corrections corrections, CorrectedSchema around) {
        this.schema = schema;
        this.corrections = corrections;
        this.around = around;
    }

    /**
     * The content of a type.
     *
     * @param particle the content model, or null when it is empty
     * @param place where the type is
     */
    Particle content(Particle particle, CorrectedSchema.Path path, Place place) {
        Particle corrected = particle == null ? null : particle(particle, path);
        for (Rule rule : corrections.allAbout(path.designator(), Correction::added)) {
            Correction.Addition added = rule.effect().correction().added();
            if (added.kind() == Correction.Kind.ELEMENT) {
                corrected = with(corrected, rule, added, path, place);
            }
        }
        return corrected;
    }

    private Particle with(
            Particle content, Rule rule, Correction.Addition added, CorrectedSchema.Path path, Place place) {
        boolean there = content != null && holds(content.term(), added.name());
        String text = "element " + added.name() + " of type " + corrections.shown(added.type()) + ", occurs "
                + added.occurs();
        corrections.changed(rule, path.designator(), place, there ? text : "no such element", text);
        if (there || around.isMissing(rule, added.type())) {
            return content;
        }
        Particle more = new Particle(
                new ElementDeclaration(
                        added.name(),
                        TypeReference.to(added.type(), rule.place()),
                        false,
                        false,
                        null,
                        null,
                        null,
                        null,
                        List.of(),
                        Set.of(),
                        "",
                        rule.place()),
                added.occurs().least(),
                added.occurs().most());
        if (added.after() != null) {
            ModelGroup model = content == null ? null : schema.group(content.term());
            if (model != null && holds(model, added.after())) {
                return new Particle(after(model, added.after(), more), content.least(), content.most());
            }
            corrections.refused(
                    rule,
                    "there is no element " + added.after() + " that it could follow",
                    "name an element of the type, or leave \"after:\" out for the last place");
            return content;
        }
        List<Particle> parts = new ArrayList<>();
        ModelGroup.Compositor compositor = ModelGroup.Compositor.SEQUENCE;
        if (content != null
                && content.term() instanceof ModelGroup group
                && group.compositor() != ModelGroup.Compositor.CHOICE
                && content.most() == 1) {
            parts.addAll(group.particles());
            compositor = group.compositor();
        } else if (content != null) {
            parts.add(content);
        }
        parts.add(more);
        int least = content == null || parts.size() == 2 ? 1 : content.least();
        return new Particle(new ModelGroup(compositor, List.copyOf(parts), place), least, 1);
    }

    private boolean holds(Term term, QName name) {
        ModelGroup group = schema.group(term);
        return group != null
                ? group.particles().stream().anyMatch(particle -> holds(particle.term(), name))
                : name.equals(nameOf(term));
    }

    private static QName nameOf(Term term) {
        return term.map(NAMES);
    }

    /** A group with a particle behind the element of a name; of alternatives it belongs to the one that it follows. */
    private ModelGroup after(ModelGroup group, QName name, Particle more) {
        List<Particle> parts = new ArrayList<>();
        for (Particle part : group.particles()) {
            ModelGroup inner = schema.group(part.term());
            boolean follows = name.equals(nameOf(part.term()));
            if (inner != null && holds(inner, name)) {
                parts.add(new Particle(after(inner, name, more), part.least(), part.most()));
            } else if (follows && group.compositor() == ModelGroup.Compositor.CHOICE) {
                parts.add(new Particle(
                        new ModelGroup(ModelGroup.Compositor.SEQUENCE, List.of(part, more), group.place()), 1, 1));
            } else {
                parts.add(part);
                if (follows) {
                    parts.add(more);
                }
            }
        }
        return new ModelGroup(group.compositor(), List.copyOf(parts), group.place());
    }

    /** A particle with what is said of it, or null when it is dropped. */
    private Particle particle(Particle particle, CorrectedSchema.Path path) {
        Term term = particle.term();
        ModelGroup group = schema.group(term);
        if (group != null && (group == term || corrections.reach(path.designator()))) {
            return new Particle(group(group, path), particle.least(), particle.most());
        }
        QName name = nameOf(term);
        if (name == null) {
            return particle;
        }
        CorrectedSchema.Path inner = path.to(Subject.element(path.designator(), name, null));
        Place place = term instanceof ElementDeclaration element ? element.place() : ((ElementReference) term).place();
        Rule dropping = corrections.dropping(inner.designator());
        if (dropping != null) {
            corrections.changed(dropping, inner.designator(), place, "element " + name, "no such element");
            return null;
        }
        Term corrected = term instanceof ElementDeclaration element ? around.element(element, inner, true) : term;
        return occurring(new Particle(corrected, particle.least(), particle.most()), inner.designator(), place);
    }

    private ModelGroup group(ModelGroup group, CorrectedSchema.Path path) {
        return new ModelGroup(
                group.compositor(),
                group.particles().stream()
                        .map(inner -> particle(inner, path))
                        .filter(Objects::nonNull)
                        .toList(),
                group.place());
    }

    private Particle occurring(Particle particle, String designator, Place place) {
        Rule rule = corrections.about(designator, Correction::occurs);
        if (rule == null) {
            return particle;
        }
        Correction.Occurs occurs = rule.effect().correction().occurs();
        corrections.changed(
                rule,
                designator,
                place,
                "occurs " + new Correction.Occurs(particle.least(), particle.most()),
                "occurs " + occurs);
        return new Particle(particle.term(), occurs.least(), occurs.most());
    }
}
