package org.protypos.target.classes;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.api.Api;
import org.protypos.api.type.ApiElement;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.EnumeratedType;
import org.protypos.api.type.Member;
import org.protypos.api.type.NamedType;
import org.protypos.api.type.Origin;
import org.protypos.api.type.ScalarKind;
import org.protypos.api.type.StructuredType;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;
import org.protypos.naming.Subject;
import org.protypos.schema.SchemaComponents;

/** Turns the types of an API into classes and enumerations, names first and members after. */
final class TypePlanner {
    private static final int LONGEST_FILE = 240;
    private static final int WIDEST_CHARACTER = 2;

    private final Api api;
    private final PackageNames packages;
    private final Naming naming;
    private final ClassRules rules;
    private final ValueShaper shapes;
    private final Map<StructuredType, PlannedClass> classes = new IdentityHashMap<>();
    private final Map<EnumeratedType, PlannedEnum> enums = new IdentityHashMap<>();
    private final Map<StructuredType, PlannedClass> unfilled = new IdentityHashMap<>();
    private final Map<String, String> typeNames = new HashMap<>();
    private final Map<String, String> memberNames = new HashMap<>();
    private final List<PlannedClass> topClasses = new ArrayList<>();
    private final List<PlannedEnum> topEnums = new ArrayList<>();

    TypePlanner(Api api, PackageNames packages, Naming naming, ClassRules rules, ValueShaper shapes) {
        this.api = api;
        this.packages = packages;
        this.naming = naming;
        this.rules = rules;
        this.shapes = shapes;
    }

    ClassRules rules() {
        return rules;
    }

    ValueShaper shapes() {
        return shapes;
    }

    List<PlannedClass> topClasses() {
        return topClasses;
    }

    List<PlannedEnum> topEnums() {
        return topEnums;
    }

    /** Says in each package who will want a name there. */
    void announce() {
        for (NamedType type : api.globalTypes()) {
            boolean named = type.origin() == Origin.ELEMENT
                    || !SchemaComponents.isOriginal(type.name()) && shapes.existing(type.subject()) == null;
            if (named && (type instanceof StructuredType || isGenerated((EnumeratedType) type))) {
                packages.announce(
                        type.subject(), type.name(), typeName(type.name().getLocalPart()));
            }
        }
    }

    /** The name that a class would have for an XML name; both who announces it and who claims it ask. */
    private String typeName(String xmlName) {
        return typeNames.computeIfAbsent(xmlName, rules::typeName);
    }

    /** The name that a member would have for an XML name: few names are in one type alone. */
    String memberName(String xmlName) {
        return memberNames.computeIfAbsent(xmlName, rules::memberName);
    }

    /** Whether a set of named values becomes an enumeration: not if it is too large, or somebody wants another type for it. */
    private boolean isGenerated(EnumeratedType type) {
        return type.values().size() <= rules.mostConstants()
                && !(type.origin() == Origin.TYPE && shapes.isConverted(type.subject()));
    }

    /** Plans all global types and elements. */
    void plan() {
        for (NamedType type : api.globalTypes()) {
            if (type instanceof StructuredType structured) {
                topClass(structured);
            } else if (type instanceof EnumeratedType enumerated && isGenerated(enumerated)) {
                enums.put(enumerated, topEnum(enumerated));
            }
        }
        for (NamedType type : api.globalTypes()) {
            if (type instanceof StructuredType structured) {
                filled(structured);
            }
        }
    }

    private void topClass(StructuredType type) {
        String full = shapes.existing(type.subject());
        String packageName = full == null ? packages.of(type.name().getNamespaceURI()) : before(full);
        String name = full == null ? claim(packageName, type) : behind(full);
        PlannedClass planned = new PlannedClass(
                type, packageName, name, null, shapes.interfaces(type.subject()), hosted(packageName, name));
        classes.put(type, planned);
        unfilled.put(type, planned);
        if (full == null) {
            topClasses.add(planned);
        }
    }

    private static String before(String full) {
        return full.substring(0, full.lastIndexOf('.'));
    }

    private static String behind(String full) {
        return full.substring(full.lastIndexOf('.') + 1);
    }

    private String claim(String packageName, NamedType type) {
        String suffix =
                switch (type.origin()) {
                    case TYPE -> "Type";
                    case ELEMENT -> "Element";
                    default -> "Item";
                };
        String local = type.name().getLocalPart();
        String wanted = typeName(type.origin() == Origin.TYPE ? local.replace('#', '-') : local);
        return packages.scope(packageName).claim(type.subject(), wanted, suffix);
    }

    /** The names of what is nested in a class, of which its own is none. */
    private NameScope hosted(String packageName, String name) {
        NameScope nested = naming.scope(packageName + "." + name, rules.reservedTypes());
        nested.make(name, "");
        return nested;
    }

    /** A class for the parts of a message. */
    PlannedClass partsClass(StructuredType type, String packageName, String wanted) {
        String name = packages.scope(packageName).make(wanted, "");
        PlannedClass planned = new PlannedClass(type, packageName, name, null, List.of(), hosted(packageName, name));
        classes.put(type, planned);
        topClasses.add(planned);
        new ClassPlanner(this, planned).fill();
        return planned;
    }

    private PlannedEnum topEnum(EnumeratedType type) {
        String full = shapes.existing(type.subject());
        String packageName = full == null ? packages.of(type.name().getNamespaceURI()) : before(full);
        String name = full == null ? claim(packageName, type) : behind(full);
        PlannedEnum planned = enumeration(type, packageName, name, null);
        if (full == null) {
            topEnums.add(planned);
        }
        return planned;
    }

    private PlannedEnum enumeration(EnumeratedType type, String packageName, String name, PlannedClass host) {
        NameScope names = naming.scope(PlannedClass.scopeIn(packageName, host, name), List.of());
        names.expect(expected ->
                type.values().forEach(value -> expected.wants(value.subject(), rules.constantName(value.text()))));
        List<PlannedEnum.Constant> constants = new ArrayList<>();
        for (EnumeratedType.Value value : type.values()) {
            constants.add(new PlannedEnum.Constant(
                    names.claim(value.subject(), rules.constantName(value.text()), "_"),
                    value.text(),
                    value.documentation()));
        }
        return new PlannedEnum(
                packageName, name, host, List.copyOf(constants), shapes.interfaces(type.subject()), type);
    }

    /** The class of a global type, with its members. */
    PlannedClass filled(StructuredType type) {
        PlannedClass waiting = unfilled.remove(type);
        if (waiting != null) {
            new ClassPlanner(this, waiting).fill();
        }
        return classes.get(type);
    }

    /** The class of a structured type; that of a global one may have no members yet. */
    private PlannedClass planned(StructuredType type) {
        PlannedClass known = classes.get(type);
        return known == null ? nestedClass(type) : known;
    }

    /** A class nested in another, for a type that is defined there or a group that repeats. */
    private PlannedClass nestedClass(StructuredType type) {
        String wanted = rules.nestedTypeName(type.name().getLocalPart());
        PlannedClass place = room(classes.get(type.host()), wanted);
        NameScope names = nestedIn(place);
        String name = type.isGroup() ? names.make(type.subject(), wanted) : names.claim(type.subject(), wanted, "");
        PlannedClass nested = new PlannedClass(
                type,
                place.packageName(),
                name,
                place,
                List.of(),
                place.nestedNames().within(place.scope() + "." + name));
        place.addNested(nested);
        classes.put(type, nested);
        new ClassPlanner(this, nested).fill();
        return nested;
    }

    /** A nested class is a file that carries the names of all its hosts: deep ones move out to the outermost. */
    private static PlannedClass room(PlannedClass host, String name) {
        int length = name.length();
        PlannedClass outermost = host;
        for (PlannedClass around = host; around != null; around = around.host()) {
            length += around.name().length() + 1;
            outermost = around;
        }
        return length * WIDEST_CHARACTER <= LONGEST_FILE || host.host() == null ? host : outermost;
    }

    /** Where the types that are nested in a class get their names. */
    private NameScope nestedIn(PlannedClass place) {
        return rules.membersShareNamesWithTypes() ? place.memberNames() : place.nestedNames();
    }

    /** A scope for the members of a class, beside those that it inherits. */
    NameScope members(PlannedClass type) {
        String where = type.scope();
        NameScope members = type.base() == null
                ? naming.scope(where, rules.reservedMembers())
                : type.base().memberNames().within(where);
        if (rules.membersShareNamesWithTypes()) {
            members.exclude(type.name());
        }
        return members;
    }

    private PlannedEnum planned(EnumeratedType type) {
        PlannedEnum known = enums.get(type);
        if (known == null) {
            known = type.host() == null ? topEnum(type) : nestedEnum(type);
            enums.put(type, known);
        }
        return known;
    }

    private PlannedEnum nestedEnum(EnumeratedType type) {
        String wanted = rules.nestedTypeName(type.name().getLocalPart());
        PlannedClass place = room(classes.get(type.host()), wanted);
        String name = nestedIn(place).claim(type.subject(), wanted, "");
        PlannedEnum nested = enumeration(type, place.packageName(), name, place);
        place.addNested(nested);
        return nested;
    }

    /** What a member holds, as somebody wants it. */
    ValueType value(Member member) {
        Subject subject = member.shapedAs();
        if (subject == null || !shapes.isConverted(subject)) {
            return value(member.value());
        }
        ScalarKind text = named(member.value());
        return shapes.value(
                subject, text == null ? value(member.value()) : new ValueType.Scalar(text), this::elementContent);
    }

    /** The kind of text that a value is when it is one of a set of named ones; null when it is none. */
    private static ScalarKind named(ApiValue value) {
        return value instanceof ApiValue.OfType named
                ? named(named.value())
                : value instanceof ApiValue.Enumerated enumerated
                        ? enumerated.type().base()
                        : null;
    }

    /** What stands for a value of the API. */
    ValueType value(ApiValue value) {
        if (value instanceof ApiValue.Scalar scalar) {
            return new ValueType.Scalar(scalar.kind());
        } else if (value instanceof ApiValue.Structured structured) {
            return new ValueType.Structured(planned(structured.type()));
        } else if (value instanceof ApiValue.Enumerated enumerated) {
            return enumerated.type().values().size() <= rules.mostConstants()
                    ? new ValueType.Enumerated(planned(enumerated.type()))
                    : new ValueType.Scalar(enumerated.type().text());
        } else if (value instanceof ApiValue.Items items) {
            return new ValueType.Items(value(items.item()));
        } else if (value instanceof ApiValue.OfType named) {
            return named(named);
        } else if (value instanceof ApiValue.Respaced respaced) {
            ValueType base = value(respaced.base());
            return base instanceof ValueType.Scalar scalar && scalar.kind().isText()
                    ? new ValueType.Scalar(respaced.text())
                    : base;
        } else if (value instanceof ApiValue.NamedElement element) {
            return new ValueType.NamedElement(element.content() == null ? null : planned(element.content()));
        } else if (value instanceof ApiValue.NamedSimple) {
            return new ValueType.NamedSimple();
        }
        return new ValueType.Anything();
    }

    private ValueType named(ApiValue.OfType named) {
        boolean replaced = named.value() instanceof ApiValue.Enumerated && shapes.isConverted(named.type());
        ValueType plain = replaced ? new ValueType.Scalar(named((ApiValue) named)) : value(named.value());
        return shapes.value(named.type(), plain, this::elementContent);
    }

    /** What a global element holds, or null when there is no such element. */
    private ValueType elementContent(QName name) {
        ApiElement element = api.elements().get(name);
        return element == null ? null : value(element.value());
    }

    /** What the named types became. */
    Map<QName, ValueType> namedTypes() {
        Map<QName, ValueType> types = new LinkedHashMap<>();
        api.types().forEach((name, value) -> types.put(name, value(value)));
        return types;
    }

    /** What each global element holds; abstract elements hold nothing. */
    Map<QName, KnownElement> globalElements() {
        Map<QName, KnownElement> elements = new LinkedHashMap<>();
        api.elements().forEach((name, element) -> {
            if (!element.isAbstract()) {
                elements.put(name, new KnownElement(value(element.value()), element.defaultValue()));
            }
        });
        return elements;
    }
}
