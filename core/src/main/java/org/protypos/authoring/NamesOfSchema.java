package org.protypos.authoring;

import java.util.function.Consumer;
import javax.xml.namespace.QName;

/** Finds the names that a schema speaks of: what it has to import. */
final class NamesOfSchema {
    private final Consumer<QName> each;

    private NamesOfSchema(Consumer<QName> each) {
        this.each = each;
    }

    static void of(DraftSchema schema, Consumer<QName> each) {
        NamesOfSchema names = new NamesOfSchema(each);
        schema.elements().forEach(names::element);
        schema.attributes().forEach(names::attribute);
        schema.types().forEach(names::type);
    }

    private void type(DraftType type) {
        type.act(simple -> value(simple.value()), this::complex);
    }

    private void complex(DraftType.Complex complex) {
        if (complex.base() != null) {
            each.accept(complex.base());
        }
        if (complex.text() != null) {
            value(complex.text());
        }
        if (complex.content() != null) {
            group(complex.content());
        }
        complex.attributes().forEach(this::attribute);
    }

    private void group(DraftParticle.Group group) {
        for (DraftParticle particle : group.particles()) {
            particle.act(this::element, anything -> {}, this::group);
        }
    }

    /** An element without a namespace is a local one, so nothing has to be imported for it. */
    private void element(DraftParticle.Element element) {
        if (element.isReference() || !element.name().getNamespaceURI().isEmpty()) {
            each.accept(element.name());
        }
        if (element.value() != null) {
            value(element.value());
        }
        if (element.inline() != null) {
            type(element.inline());
        }
    }

    private void attribute(DraftAttribute attribute) {
        if (!attribute.name().getNamespaceURI().isEmpty()) {
            each.accept(attribute.name());
        }
        if (attribute.value() != null) {
            value(attribute.value());
        }
    }

    private void value(DraftValue value) {
        each.accept(value.type());
        value.others().forEach(each);
    }
}
