package org.protypos.api.type;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javax.xml.namespace.QName;
import org.protypos.naming.Subject;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.Wildcard;

/**
 * A structured type: a complex type, a model group that repeats, or the parts of a message. Types refer to each other in
 * circles, so a type is there before its members are; who builds the API fills it, and nobody changes it after that.
 */
public final class StructuredType implements NamedType {
    private final Origin origin;
    private final Subject subject;
    private final StructuredType host;
    private final QName name;
    private final String designator;
    private StructuredType base;
    private boolean isAbstract;
    private boolean mixed;
    private boolean simple;
    private boolean hasDerived;
    private boolean encodedCall;
    private String documentation = "";
    private final List<Member> attributes = new ArrayList<>();
    private Member attributeWildcard;
    private Wildcard otherAttributes;
    private Member text;
    private ValueFacets narrowedText;
    private final List<Narrowing> narrowings = new ArrayList<>();
    private QName arrayItem;
    private final Map<QName, ApiElement> inner = new LinkedHashMap<>();
    private Content<Member> content;
    private final List<Member> elements = new ArrayList<>();
    private Consumer<BiConsumer<Subject, String>> mentioned = nobody -> {};

    StructuredType(Origin origin, Subject subject, StructuredType host, QName name) {
        this.origin = origin;
        this.subject = subject;
        this.host = host;
        this.name = name;
        this.designator = switch (origin) {
            case GROUP -> host.designator();
            case MEMBER -> subject.designator().replaceFirst("/~0$", "");
            default -> subject.designator();
        };
    }

    @Override
    public Origin origin() {
        return origin;
    }

    @Override
    public Subject subject() {
        return subject;
    }

    /**
     * How rules speak of it when they speak of what is in it: of what an anonymous type holds as of what its element holds, and
     * of the members of a group as of those of the type around.
     */
    public String designator() {
        return designator;
    }

    @Override
    public StructuredType host() {
        return host;
    }

    @Override
    public QName name() {
        return name;
    }

    /** The name of the complex type, or null when that has none; of two versions of a redefined type only one has it. */
    public QName typeName() {
        return origin == Origin.TYPE && !SchemaComponents.isOriginal(name) ? name : null;
    }

    /** The type it extends or restricts, or null. */
    public StructuredType base() {
        return base;
    }

    /** Whether only types derived from it have values. */
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

    /** Whether some type is derived from it. */
    public boolean hasDerived() {
        return hasDerived;
    }

    /** Whether it holds the members of a model group that repeats, once. */
    public boolean isGroup() {
        return origin == Origin.GROUP;
    }

    @Override
    public String documentation() {
        return documentation;
    }

    /** Its own attributes. */
    public List<Member> attributes() {
        return Collections.unmodifiableList(attributes);
    }

    /** Where attributes go that only a wildcard allows, or null. */
    public Member attributeWildcard() {
        return attributeWildcard;
    }

    /** Which attributes beside the declared ones it takes, or null for none of its own accord. */
    public Wildcard otherAttributes() {
        return otherAttributes;
    }

    /** Its own text, or null: for simple or mixed content. */
    public Member text() {
        return text;
    }

    /** What it demands of the text that it inherits, or null for nothing more than its base. */
    public ValueFacets narrowedText() {
        return narrowedText;
    }

    /** What it demands of members that it inherits. */
    public List<Narrowing> narrowings() {
        return Collections.unmodifiableList(narrowings);
    }

    /** The elements that it declares in its mixed content. */
    public Map<QName, ApiElement> inner() {
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

    /** Its own content model, or null. */
    public Content<Member> content() {
        return content;
    }

    /** Its own elements, wildcards and repeated groups. */
    public List<Member> elements() {
        return Collections.unmodifiableList(elements);
    }

    /** Tells each name that the definition of the type mentions, at any depth of its groups, whatever becomes of it. */
    public void mentions(BiConsumer<Subject, String> each) {
        mentioned.accept(each);
    }

    boolean takesOtherAttributes() {
        return attributeWildcard != null || base != null && base.takesOtherAttributes();
    }

    void describe(StructuredType baseType, boolean abstractType, boolean mixedContent, String remarks) {
        base = baseType;
        isAbstract = abstractType;
        mixed = mixedContent || baseType != null && baseType.mixed;
        simple = baseType != null && baseType.simple;
        documentation = remarks;
        if (baseType != null) {
            baseType.hasDerived = true;
        }
    }

    void setMentioned(Consumer<BiConsumer<Subject, String>> names) {
        mentioned = names;
    }

    void addAttribute(Member member) {
        attributes.add(member);
    }

    void setAttributeWildcard(Member member) {
        attributeWildcard = member;
    }

    void setOtherAttributes(Wildcard wildcard) {
        otherAttributes = wildcard;
    }

    void setSimple(Member member) {
        simple = true;
        text = member;
    }

    void setMixedText(Member member) {
        text = member;
    }

    void narrowText(ValueFacets facets) {
        narrowedText = facets;
    }

    void narrowAttributes(List<Narrowing> more) {
        narrowings.addAll(0, more);
    }

    void narrowElements(List<Narrowing> more) {
        narrowings.addAll(more);
    }

    void addInner(QName name, ApiElement element) {
        inner.putIfAbsent(name, element);
    }

    void setEncodedCall() {
        encodedCall = true;
    }

    void setArrayItem(QName type) {
        arrayItem = type;
    }

    void setContent(Content<Member> model) {
        content = model;
    }

    void addElement(Member member) {
        elements.add(member);
    }
}
