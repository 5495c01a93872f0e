package org.protypos.schema.parse;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/**
 * What is noted while schemas are read, for what shows only when all of them are: extensions in complex content that add
 * attributes alone, whose content is that of their base, text of a simple type too (XML Schema Part 1, section 3.4.2,
 * complex content, clause 4.2.1), and whether somebody refers to the element that holds a schema, or to what XML itself
 * defines.
 */
final class ReadingNotes {
    /** The element that holds a schema. */
    static final QName SCHEMA = new QName(Xml.XSD, "schema");

    private final Set<Element> texts;
    private final Map<Element, ComplexType> empty = new LinkedHashMap<>();
    private boolean refersToSchemas;
    private boolean refersToXml;

    /** @param texts the definitions that are known to inherit text */
    ReadingNotes(Set<Element> texts) {
        this.texts = texts;
    }

    /** Notes a reference to a global element. */
    void reference(QName element) {
        refersToSchemas |= element.equals(SCHEMA);
    }

    /** Whether there was a reference to the element that holds a schema. */
    boolean refersToSchemas() {
        return refersToSchemas;
    }

    /** Notes that a namespace is imported, or that an attribute of it is referred to. */
    void use(String namespace) {
        refersToXml |= namespace.equals(Xml.XML);
    }

    /** Whether a schema refers to attributes that XML itself defines; nobody else knows of them. */
    boolean refersToXml() {
        return refersToXml;
    }

    /** Whether a definition is known to inherit text. */
    boolean isText(Element definition) {
        return texts.contains(definition);
    }

    /** Remembers an extension that adds nothing to the content of its base. */
    void add(Element definition, ComplexType type) {
        empty.put(definition, type);
    }

    /** The definitions that were remembered and turn out to inherit text. */
    Set<Element> found(SchemaComponents components) {
        Set<Element> found = new HashSet<>();
        Map<ComplexType, Boolean> known = new IdentityHashMap<>();
        empty.forEach((definition, type) -> {
            if (inherits(type, components, known)) {
                found.add(definition);
            }
        });
        return found;
    }

    /** Each type is looked at once, for chains of extensions may be long; one that leads to itself inherits nothing. */
    private static boolean inherits(ComplexType type, SchemaComponents components, Map<ComplexType, Boolean> known) {
        List<ComplexType> chain = new ArrayList<>();
        ComplexType at = type;
        while (at != null && isEmptyExtension(at) && known.putIfAbsent(at, false) == null) {
            chain.add(at);
            at = components.resolve(at.base()) instanceof ComplexType base ? base : null;
        }
        boolean text =
                at != null && (at.content() instanceof ComplexType.SimpleContent || known.getOrDefault(at, false));
        chain.forEach(one -> known.put(one, text));
        return known.getOrDefault(type, text);
    }

    /** Whether a type adds neither elements nor text to the content of its base (clauses 2.1 and 4.2.1). */
    static boolean isEmptyExtension(ComplexType type) {
        return addsNoElements(type) && !type.mixed();
    }

    /** Whether a type extends its base by no elements. */
    static boolean addsNoElements(ComplexType type) {
        return type.derivation() == ComplexType.Derivation.EXTENSION
                && type.content() instanceof ComplexType.ElementContent content
                && (content.particle() == null || isEmpty(content.particle()));
    }

    private static boolean isEmpty(Particle particle) {
        return particle.most() == 0
                || particle.term() instanceof ModelGroup group
                        && group.particles().isEmpty()
                        && (group.compositor() != ModelGroup.Compositor.CHOICE || particle.least() == 0);
    }
}
