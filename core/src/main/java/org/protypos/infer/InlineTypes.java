package org.protypos.infer;

import java.util.ArrayList;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.authoring.DraftParticle;
import org.protypos.authoring.DraftSchema;
import org.protypos.authoring.DraftType;
import org.protypos.authoring.DraftValue;
import org.protypos.source.Xml;

/** Puts types into the elements that are of them, so that an element can be added to a schema without adding types to it. */
public final class InlineTypes {
    private static final int DEEPEST = 20;

    private InlineTypes() {}

    /** An element whose type stands in it; null when that is of itself, or of others. */
    public static DraftParticle.Element of(DraftSchema schema, DraftParticle.Element element) {
        return inline(schema, element, 0);
    }

    private static DraftParticle.Element inline(DraftSchema schema, DraftParticle.Element element, int depth) {
        QName type = element.value() == null ? null : element.value().type();
        if (type == null || depth > DEEPEST) {
            return null;
        }
        if (type.getNamespaceURI().equals(Xml.XSD)) {
            return element;
        }
        for (DraftType one : schema.types()) {
            if (!one.name().equals(type)) {
                continue;
            }
            if (one instanceof DraftType.Simple simple) {
                return with(element, simple.value(), null);
            }
            DraftType.Complex inner = inner(schema, (DraftType.Complex) one, depth);
            return inner == null ? null : with(element, null, inner);
        }
        return null;
    }

    private static DraftParticle.Element with(
            DraftParticle.Element element, DraftValue value, DraftType.Complex inline) {
        return new DraftParticle.Element(
                element.name(),
                value,
                element.least(),
                element.most(),
                element.isNillable(),
                false,
                null,
                null,
                inline);
    }

    private static DraftType.Complex inner(DraftSchema schema, DraftType.Complex type, int depth) {
        if (type.base() != null || type.isAbstract()) {
            return null;
        }
        DraftParticle.Group content = type.content() == null ? null : inner(schema, type.content(), depth);
        boolean plain = type.attributes().stream()
                        .allMatch(attribute -> attribute
                                        .name()
                                        .getNamespaceURI()
                                        .isEmpty()
                                && attribute.value().type().getNamespaceURI().equals(Xml.XSD))
                && (type.text() == null || type.text().type().getNamespaceURI().equals(Xml.XSD));
        return type.content() != null && content == null || !plain
                ? null
                : new DraftType.Complex(
                        null,
                        null,
                        false,
                        type.isMixed(),
                        type.text(),
                        content,
                        type.takesAnyAttributes(),
                        type.attributes(),
                        null);
    }

    private static DraftParticle.Group inner(DraftSchema schema, DraftParticle.Group group, int depth) {
        List<DraftParticle> particles = new ArrayList<>();
        for (DraftParticle particle : group.particles()) {
            DraftParticle made = particle instanceof DraftParticle.Element element
                    ? inline(schema, element, depth + 1)
                    : particle instanceof DraftParticle.Group inner ? inner(schema, inner, depth) : particle;
            if (made == null) {
                return null;
            }
            particles.add(made);
        }
        return new DraftParticle.Group(group.kind(), group.least(), group.most(), particles);
    }
}
