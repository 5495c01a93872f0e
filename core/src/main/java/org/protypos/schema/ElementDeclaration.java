package org.protypos.schema;

import java.util.List;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * An element declaration (XML Schema Part 1, section 3.3).
 *
 * @param name its name; a local element of an unqualified form has no namespace
 * @param type its type, or null for that of the head of its substitution group
 * @param nillable whether {@code xsi:nil} is allowed
 * @param isAbstract whether only members of its substitution group may stand for it
 * @param defaultValue the value when it is empty, or null
 * @param fixedValue the only value it may have, or null
 * @param substitutionHead the element it may stand for, or null
 * @param expectedContentTypes the media types of its binary content, or null when the contract does not say (Describing
 *     Media Content of Binary Data in XML, section 3.2)
 * @param constraints its identity constraints
 * @param block the kinds of derivation, {@code substitution} among them, that may not stand in for what is declared
 */
public record ElementDeclaration(
        QName name,
        TypeReference type,
        boolean nillable,
        boolean isAbstract,
        String defaultValue,
        String fixedValue,
        QName substitutionHead,
        String expectedContentTypes,
        List<IdentityConstraint> constraints,
        Set<String> block,
        String documentation,
        Place place)
        implements Term {
    /** The value that an empty one stands for, its default or the fixed one (XML Schema Part 1, section 3.3.1); null for none. */
    public String standing() {
        return defaultValue != null ? defaultValue : fixedValue;
    }

    @Override
    public <R> R map(Cases<R> cases) {
        return cases.element().apply(this);
    }

    @Override
    public void act(Acts acts) {
        acts.element().accept(this);
    }
}
