package org.protypos.target.classes;

import java.util.List;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.api.type.Member;
import org.protypos.api.type.ScalarKind;
import org.protypos.api.type.StructuredType;
import org.protypos.binding.Shape;
import org.protypos.binding.Shaping;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.Naming;
import org.protypos.naming.Subject;

/** Gives components the shape that somebody wants for them, and tells where they cannot have it. */
final class ValueShaper {
    private final Shaping shaping;
    private final Naming naming;
    private final ClassRules rules;
    private final Findings findings;

    ValueShaper(Shaping shaping, Naming naming, ClassRules rules, Findings findings) {
        this.shaping = shaping;
        this.naming = naming;
        this.rules = rules;
        this.findings = findings;
    }

    /** Whether anybody wants another type for a component. */
    boolean isConverted(Subject subject) {
        return shaping.choice(subject, Shape::conversion) != null || shaping.choice(subject, Shape::carried) != null;
    }

    private void useless(Shaping.Choice<?> choice, Subject subject, String reason) {
        choice.useless(naming.shown(subject) + " " + reason, findings);
    }

    /**
     * What a component of a simple type holds.
     *
     * @param value what it would hold
     * @param contents finds what a global element holds, or null when there is none of a name
     */
    ValueType value(Subject subject, ValueType value, Function<QName, ValueType> contents) {
        Shaping.Choice<Shape.Conversion> conversion = shaping.choice(subject, Shape::conversion);
        Shaping.Choice<QName> carried = shaping.choice(subject, Shape::carried);
        if (conversion == null && carried == null) {
            return value;
        }
        Shaping.Choice<?> wanted = conversion == null ? carried : conversion;
        ValueType written = value.written();
        ValueType item = written instanceof ValueType.Items items ? items.item() : written;
        if (!(item instanceof ValueType.Scalar scalar) || isOpaque(scalar.kind())) {
            useless(wanted, subject, "holds no text that could be converted");
            return value;
        }
        ValueType shaped = conversion == null
                ? document(subject, scalar, carried, contents.apply(carried.value()))
                : converted(subject, scalar, conversion);
        return written == item ? shaped : new ValueType.Items(shaped);
    }

    /** Names need the prefixes around them, and binary content may travel beside the message. */
    private static boolean isOpaque(ScalarKind kind) {
        return kind == ScalarKind.QNAME || kind == ScalarKind.BASE64 || kind == ScalarKind.ATTACHMENT;
    }

    private ValueType converted(Subject subject, ValueType.Scalar scalar, Shaping.Choice<Shape.Conversion> wanted) {
        Shape.Conversion conversion = wanted.value();
        if (conversion.parse() != null) {
            return new ValueType.Converted(scalar, conversion.type(), conversion.parse(), conversion.print());
        }
        ValueType own = rules.converted(scalar, conversion.type());
        if (own == null) {
            useless(
                    wanted,
                    subject,
                    "does not become " + conversion.type() + " by itself: a converter is needed (\"with:\")");
            return scalar;
        }
        return own;
    }

    private ValueType document(
            Subject subject, ValueType.Scalar scalar, Shaping.Choice<QName> carried, ValueType content) {
        if (content instanceof ValueType.Structured structured && scalar.kind().isText()) {
            return new ValueType.Carried(scalar, carried.value(), structured.type());
        }
        useless(
                carried,
                subject,
                content == null
                        ? "cannot hold <" + carried.value().getLocalPart() + ">: the contract has no such element"
                        : "cannot hold <" + carried.value().getLocalPart()
                                + ">: only text holds an element with structure");
        return scalar;
    }

    /** How code gets at a member. */
    Property.Access access(Member member) {
        Subject subject = member.subject();
        boolean many = member.cardinality() == Member.Cardinality.MANY;
        Shaping.Choice<Boolean> unwrapped = shaping.choice(subject, Shape::unwrapped);
        if (unwrapped != null && unwrapped.value() && isSupported(Property.Access.UNWRAPPED, unwrapped, subject)) {
            StructuredType type = member.value().structure();
            if (!many && type != null && isList(type)) {
                return Property.Access.UNWRAPPED;
            }
            // Who says it of many at once means those of them that are made for it.
            if (!unwrapped.isWish()) {
                useless(
                        unwrapped,
                        subject,
                        many || type == null ? "is no element around a list" : "holds more than a list");
            }
        }
        Shaping.Choice<Boolean> optional = shaping.choice(subject, Shape::optional);
        return optional != null
                        && optional.value()
                        && isAbsentable(member)
                        && !many
                        && isSupported(Property.Access.OPTIONAL, optional, subject)
                ? Property.Access.OPTIONAL
                : Property.Access.PLAIN;
    }

    /** Whether its getter can give null: an attribute with a default value has that. */
    private static boolean isAbsentable(Member member) {
        boolean absent = member.cardinality() == Member.Cardinality.OPTIONAL;
        return member.kind() == Member.Kind.ATTRIBUTE
                ? absent && member.defaultValue() == null
                : absent || member.nillable();
    }

    private boolean isSupported(Property.Access access, Shaping.Choice<?> choice, Subject subject) {
        if (rules.supports(access)) {
            return true;
        }
        findings.warning(
                "rule-useless",
                choice.place(),
                naming.shown(subject) + " stays as it is: the language has no other form for it",
                "say it for the language that has one, below its name (\"java:\")");
        return false;
    }

    private static boolean isList(StructuredType type) {
        return type.base() == null
                && !type.isAbstract()
                && !type.isMixed()
                && type.attributes().isEmpty()
                && type.attributeWildcard() == null
                && type.text() == null
                && type.elements().size() == 1
                && type.elements().get(0).cardinality() == Member.Cardinality.MANY
                && !type.hasDerived();
    }

    /** The class that is used in place of one of ours, or null. */
    String existing(Subject subject) {
        Shaping.Choice<String> choice = shaping.choice(subject, Shape::existing);
        return choice == null ? null : choice.value();
    }

    /** The interfaces that a class implements besides. */
    List<String> interfaces(Subject subject) {
        Shaping.Choice<List<String>> choice = shaping.choice(subject, Shape::interfaces);
        return choice == null ? List.of() : choice.value();
    }

    /** Tells that an operation has too many values for parameters, if somebody wants them. */
    void tooMany(Subject subject) {
        Shaping.Choice<Boolean> choice = shaping.choice(subject, Shape::plainParameters);
        if (choice != null && choice.value()) {
            useless(choice, subject, "has a request that cannot be taken apart into parameters");
        }
    }

    /** Whether an operation can also be called without waiting. */
    boolean isAsync(Subject subject) {
        Shaping.Choice<Boolean> choice = shaping.choice(subject, Shape::async);
        return choice == null || choice.value();
    }
}
