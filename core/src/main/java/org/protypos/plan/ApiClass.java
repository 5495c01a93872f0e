package org.protypos.plan;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.naming.NameScope;
import org.protypos.schema.Wildcard;

/**
 * A structured type: a complex type, or a model group that repeats. Types refer to each other in circles, so a class is
 * there before its members are; the planner fills it and nobody changes it after that.
 */
public final class ApiClass {
    private final String packageName;
    private final String name;
    private final ApiClass host;
    private final QName xmlType;
    private final String designator;
    private final NameScope nestedNames;
    private ApiClass base;
    private boolean isAbstract;
    private boolean mixed;
    private boolean simple;
    private String documentation = "";
    private final List<Property> attributes = new ArrayList<>();
    private Property attributeWildcard;
    private Wildcard otherAttributes;
    private Property text;
    private ValueFacets narrowedText;
    private QName arrayItem;
    private boolean encodedCall;
    private boolean group;
    private final Map<Property, QName> typeNames = new IdentityHashMap<>();
    private final Map<QName, ValueType> inner = new LinkedHashMap<>();
    private Content content;
    private final List<Property> elements = new ArrayList<>();
    private final List<ApiClass> nestedClasses = new ArrayList<>();
    private final List<ApiEnum> nestedEnums = new ArrayList<>();
    private boolean hasSubclasses;
    private List<String> interfaces = List.of();
    NameScope memberNames;

    ApiClass(String packageName, String name, ApiClass host, QName xmlType, String designator, NameScope nestedNames) {
        this.packageName = packageName;
        this.name = name;
        this.host = host;
        this.xmlType = xmlType;
        this.designator = designator;
        this.nestedNames = nestedNames;
    }

    /** How rules speak of the type, so that they can speak of what is in it. */
    public String designator() {
        return designator;
    }

    /** The package it is in. */
    public String packageName() {
        return packageName;
    }

    /** Its simple name. */
    public String name() {
        return name;
    }

    /** The class it is nested in, or null. */
    public ApiClass host() {
        return host;
    }

    /** The name of the complex type, or null when that has none. */
    public QName xmlType() {
        return xmlType;
    }

    /** The class it extends, or null. */
    public ApiClass base() {
        return base;
    }

    /** Whether only classes derived from it have values. */
    public boolean isAbstract() {
        return isAbstract;
    }

    /** Whether text may stand between its elements. */
    public boolean isMixed() {
        return mixed;
    }

    /** Whether its content is text of a simple type. */
    public boolean isSimple() {
        return simple;
    }

    /** Whether some class extends it. */
    public boolean hasSubclasses() {
        return hasSubclasses;
    }

    /** The interfaces that it implements besides. */
    public List<String> interfaces() {
        return interfaces;
    }

    void setInterfaces(List<String> names) {
        interfaces = names;
    }

    /** What the contract says about it. */
    public String documentation() {
        return documentation;
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
        return otherAttributes;
    }

    /** Where attributes go that only a wildcard allows, in this class or the one that it has that from; or null. */
    public Property otherAttributesProperty() {
        return attributeWildcard != null || base == null ? attributeWildcard : base.otherAttributesProperty();
    }

    /** Its own text, or null: for simple or mixed content. */
    public Property text() {
        return text;
    }

    /** What the elements hold that it declares in its mixed content. */
    public Map<QName, ValueType> inner() {
        return Collections.unmodifiableMap(inner);
    }

    /** The type of its items when it is an array of the SOAP encoding (SOAP 1.1, section 5.4.2), or null. */
    public QName arrayItem() {
        return arrayItem;
    }

    /** Whether it is the call or the answer of a procedure in the SOAP encoding. */
    public boolean isEncodedCall() {
        return encodedCall;
    }

    /** What it demands of the text that it inherits, or null for nothing more than its base. */
    public ValueFacets narrowedText() {
        return narrowedText;
    }

    /** The text of simple content, its own or inherited, or null. */
    public Property simpleText() {
        return simple && text != null ? text : base == null ? null : base.simpleText();
    }

    /** Its own content model, or null. */
    public Content content() {
        return content;
    }

    /** Its own elements, wildcards and repeated groups. */
    public List<Property> elements() {
        return Collections.unmodifiableList(elements);
    }

    /** The classes nested in it. */
    public List<ApiClass> nestedClasses() {
        return Collections.unmodifiableList(nestedClasses);
    }

    /** The enumerations nested in it. */
    public List<ApiEnum> nestedEnums() {
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

    /** The number of one of its own members, counted on from those that it inherits. */
    public int numberOf(Property member) {
        int number = inheritedMembers();
        for (Property own : properties()) {
            if (own == member) {
                return number;
            }
            number++;
        }
        throw new IllegalArgumentException(member.name() + " is no member of " + name);
    }

    private int inheritedMembers() {
        return base == null ? 0 : base.inheritedMembers() + base.properties().size();
    }

    NameScope nestedNames() {
        return nestedNames;
    }

    void describe(ApiClass baseClass, boolean abstractType, boolean mixedContent, String text) {
        base = baseClass;
        isAbstract = abstractType;
        mixed = mixedContent || baseClass != null && baseClass.mixed;
        simple = baseClass != null && baseClass.simple;
        documentation = text;
        if (baseClass != null) {
            baseClass.hasSubclasses = true;
        }
    }

    void addAttribute(Property property) {
        attributes.add(property);
    }

    void setAttributeWildcard(Property property) {
        attributeWildcard = property;
    }

    void setOtherAttributes(Wildcard wildcard) {
        otherAttributes = wildcard;
    }

    void setSimple(Property property) {
        simple = true;
        text = property;
    }

    void addInner(QName element, ValueType value) {
        inner.putIfAbsent(element, value);
    }

    /** The name of the simple type of an element, where messages say it (SOAP 1.1, section 5.1); null elsewhere. */
    public QName typeName(Property property) {
        return typeNames.get(property);
    }

    void setTypeName(Property property, QName name) {
        typeNames.put(property, name);
    }

    void setEncodedCall() {
        encodedCall = true;
    }

    /** Whether it holds the members of a model group that repeats, once. */
    public boolean isGroup() {
        return group;
    }

    void setGroup() {
        group = true;
    }

    void setArrayItem(QName type) {
        arrayItem = type;
    }

    void narrowText(ValueFacets facets) {
        narrowedText = facets;
    }

    void setMixedText(Property property) {
        text = property;
    }

    void setContent(Content model) {
        content = model;
    }

    void addElement(Property property) {
        elements.add(property);
    }

    void addNested(ApiClass nested) {
        nestedClasses.add(nested);
    }

    void addNested(ApiEnum nested) {
        nestedEnums.add(nested);
    }
}
