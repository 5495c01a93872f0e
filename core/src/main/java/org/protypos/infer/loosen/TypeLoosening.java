package org.protypos.infer.loosen;

import javax.xml.namespace.QName;
import org.protypos.authoring.Markup;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.Deviation;
import org.protypos.message.model.TypeModel;
import org.protypos.message.tree.MessageElement;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Adds the types that instances say they are of and no schema has: each extends what stands there by itself. */
final class TypeLoosening {
    private final SchemaFinder finder;
    private final SchemaEdits edits;
    private final SchemaReferences references;

    TypeLoosening(SchemaFinder finder, SchemaEdits edits, SchemaReferences references) {
        this.finder = finder;
        this.edits = edits;
        this.references = references;
    }

    /**
     * Adds the type that an element names; what is in it is added in the next round.
     *
     * @return whether that can be
     */
    boolean add(Deviation deviation, CheckedMessage checked) {
        MessageElement element = checked.types().keySet().stream()
                .filter(one -> one.place().equals(deviation.place()))
                .findFirst()
                .orElse(null);
        QName name = element == null
                ? null
                : element.resolve(element.attribute(Xml.XSI, "type").strip());
        TypeModel base = element == null ? null : checked.types().get(element);
        Element declared = element == null ? null : finder.declaration(element, checked);
        if (name == null || name.getNamespaceURI().equals(Xml.XSD) || declared == null) {
            return false;
        }
        if (!base.isAnything() && base.name() == null) {
            return false;
        }
        Element home =
                references.schema(name.getNamespaceURI(), declared.document().root());
        if (home == null || !edits.once(home, "type " + name)) {
            return true;
        }
        Markup lines = Markup.fragment();
        String complex = SchemaEdits.tag(home, "complexType");
        if (base.isAnything()) {
            lines.empty(complex, "name", name.getLocalPart());
        } else {
            String[] extended = SchemaReferences.reference(home, "base", base.name());
            if (extended == null) {
                return false;
            }
            Element there = base.place() == null ? null : finder.at(base.place());
            if (there != null) {
                references.imports(home, there.document().root());
            }
            String content = SchemaEdits.tag(home, base.text() == null ? "complexContent" : "simpleContent");
            lines.open(complex, "name", name.getLocalPart())
                    .open(content)
                    .empty(SchemaEdits.tag(home, "extension"), extended)
                    .close(content)
                    .close(complex);
        }
        edits.of(home).append(home, lines.toString());
        return true;
    }
}
