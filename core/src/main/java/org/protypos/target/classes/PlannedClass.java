package org.protypos.target.classes;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.api.type.Content;
import org.protypos.api.type.Member;
import org.protypos.api.type.Narrowing;
import org.protypos.api.type.Origin;
import org.protypos.api.type.StructuredType;
import org.protypos.api.type.ValueFacets;
import org.protypos.naming.NameScope;
import org.protypos.schema.Wildcard;

/**
 * The class of a structured type. Types refer to each other in circles, so a class is there before its members are; the
 * planner fills it and nobody changes it after that.
 */
public final class PlannedClass {
    private final StructuredType type;
    private final String packageName;
    private final String name;
    private final PlannedClass host;
    private final NameScope nestedNames;
    private final List<String> interfaces;
    private PlannedClass base;
    private Property attributeWildcard;
    private Property text;
    private Content<Property> content;
    private final List<Property> attributes = new ArrayList<>();
    private final List<Property> elements = new ArrayList<>();
    private final Map<QName, KnownElement> inner = new LinkedHashMap<>();
    private final List<PlannedClass> nestedClasses = new ArrayList<>();
    private final List<PlannedEnum> nestedEnums = new ArrayList<>();
    private NameScope memberNames;

    PlannedClass(
            StructuredType type,
            String packageName,
            String name,
            PlannedClass host,
            List<String> interfaces,
            NameScope nestedNames) {
        this.type = type;
        this.packageName = packageName;
        this.name = name;
        this.host = host;
        this.interfaces = interfaces;
        this.nestedNames = nestedNames;
    }

    /** How rules speak of the type, so that they can speak of what is in it; of the parts of a message no rule speaks so. */
    public String designator() {
        return type.origin() == Origin.PARTS ? name : type.designator();
    }

    /** The package it is in. */
    public String packageName() {
        return packageName;
    }

    /** Its simple name. */
    public String name() {
        return name;
    }

    /** What its scopes of names are of: the class within all that it is nested in, since those of others may be called alike. */
    String scope() {
        return scopeIn(packageName, host, name);
    }

    /** The same for what is called so in a class, or in none. */
    static String scopeIn(String packageName, PlannedClass host, String name) {
        return (host == null ? packageName : host.scope()) + "." + name;
    }

    /** The class it is nested in, or null. */
    public PlannedClass host() {
        return host;
    }

    /** The name of the complex type, or null when that has none. */
    public QName xmlType() {
        return type.typeName();
    }

    /** The class it extends, or null. */
    public PlannedClass base() {
        return base;
    }

    /** Whether only classes derived from it have values. */
    public boolean isAbstract() {
        return type.isAbstract();
    }

    /** Whether text may stand between its elements. */
    public boolean isMixed() {
        return type.isMixed();
    }

    /** Whether its content is text of a simple type. */
    public boolean isSimple() {
        return type.isSimple();
    }

    /** Whether some class extends it. */
    public boolean hasSubclasses() {
        return type.hasDerived();
    }

    /** Whether it holds the members of a model group that repeats, once. */
    public boolean isGroup() {
        return type.isGroup();
    }

    /** The interfaces that it implements besides. */
    public List<String> interfaces() {
        return interfaces;
    }

    /** What is said about it. */
    public String documentation() {
        return type.documentation();
    }

    /** Its own attributes. */
    public List<Property> attributes() {
        return Collections.unmodifiableList(attributes);
    }

    /** Where attributes go that only a wildcard allows, or null. */
    public Property attributeWildcard() {
        return attributeWildcard;
    }

    /** Which attributes beside the declared ones it takes, or null for none of its own accord. */
    public Wildcard otherAttributes() {
        return type.otherAttributes();
    }

    /** Where attributes go that only a wildcard allows, in this class or the one that it has that from; or null. */
    public Property otherAttributesProperty() {
        return attributeWildcard != null || base == null ? attributeWildcard : base.otherAttributesProperty();
    }

    /** Its own text, or null: for simple or mixed content. */
    public Property text() {
        return text;
    }

    /** The elements that it declares in its mixed content. */
    public Map<QName, KnownElement> inner() {
        return Collections.unmodifiableMap(inner);
    }

    /** The type of its items when it is an array of the SOAP encoding (SOAP 1.1, section 5.4.2), or null. */
    public QName arrayItem() {
        return type.arrayItem();
    }

    /** Whether it is the call or the answer of a procedure in the SOAP encoding. */
    public boolean isEncodedCall() {
        return type.isEncodedCall();
    }

    /** What it demands of the text that it inherits, or null for nothing more than its base. */
    public ValueFacets narrowedText() {
        return type.narrowedText();
    }

    /** What it demands of members that it inherits. */
    public List<Narrowing> narrowings() {
        return type.narrowings();
    }

    /** The property that a member became, in the class itself or one that it extends; null when it became none. */
    public Property property(Member member) {
        for (PlannedClass at = this; at != null; at = at.base()) {
            for (Property property : at.properties()) {
                if (property.isOf(member)) {
                    return property;
                }
            }
        }
        return null;
    }

    /** The text of simple content, its own or inherited, or null. */
    public Property simpleText() {
        return isSimple() && text != null ? text : base == null ? null : base.simpleText();
    }

    /** Its own content model, or null. */
    public Content<Property> content() {
        return content;
    }

    /** Its own elements, wildcards and repeated groups. */
    public List<Property> elements() {
        return Collections.unmodifiableList(elements);
    }

    /** The classes nested in it. */
    public List<PlannedClass> nestedClasses() {
        return Collections.unmodifiableList(nestedClasses);
    }

    /** The enumerations nested in it. */
    public List<PlannedEnum> nestedEnums() {
        return Collections.unmodifiableList(nestedEnums);
    }

    /** All its own members: attributes, text, elements. */
    public List<Property> properties() {
        List<Property> all = new ArrayList<>(attributes);
        if (attributeWildcard != null) {
            all.add(attributeWildcard);
        }
        if (text != null) {
            all.add(text);
        }
        all.addAll(elements);
        return all;
    }

    /** Whether what comes beyond the most of a leaf belongs to the next time that the group comes, and not to this one. */
    public boolean endsAtMost(Content.Leaf<Property> leaf) {
        return isGroup() && leaf.isBounded();
    }

    StructuredType type() {
        return type;
    }

    NameScope nestedNames() {
        return nestedNames;
    }

    NameScope memberNames() {
        return memberNames;
    }

    void setMemberNames(NameScope names) {
        memberNames = names;
    }

    void setBase(PlannedClass baseClass) {
        base = baseClass;
    }

    void addAttribute(Property property) {
        attributes.add(property);
    }

    void setAttributeWildcard(Property property) {
        attributeWildcard = property;
    }

    void setText(Property property) {
        text = property;
    }

    void addInner(QName name, KnownElement element) {
        inner.putIfAbsent(name, element);
    }

    void setContent(Content<Property> model) {
        content = model;
    }

    void addElement(Property property) {
        elements.add(property);
    }

    void addNested(PlannedClass nested) {
        nestedClasses.add(nested);
    }

    void addNested(PlannedEnum nested) {
        nestedEnums.add(nested);
    }
}
