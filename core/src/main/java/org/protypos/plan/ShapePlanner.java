package org.protypos.plan;

import java.util.ArrayList;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.binding.Shape;
import org.protypos.binding.Shaping;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.Naming;
import org.protypos.naming.Subject;
import org.protypos.schema.ComplexType;

/** Gives components the shape that somebody wants for them, and tells where they cannot have it. */
final class ShapePlanner {
    private final Shaping shaping;
    private final Naming naming;
    private final TargetRules target;
    private final Findings findings;
    private final List<Runnable> later = new ArrayList<>();

    ShapePlanner(Shaping shaping, Naming naming, TargetRules target, Findings findings) {
        this.shaping = shaping;
        this.naming = naming;
        this.target = target;
        this.findings = findings;
    }

    /** Whether anybody wants another type for a component. */
    boolean isConverted(Subject subject) {
        return shaping.choice(subject, Shape::conversion) != null || shaping.choice(subject, Shape::carried) != null;
    }

    private void useless(Shaping.Choice<?> choice, Subject subject, String reason) {
        String message = naming.shown(subject) + " " + reason;
        if (choice.isWish()) {
            findings.warning("rule-useless", choice.place(), message, "say it of what can have it alone");
        } else {
            findings.error(
                    "rule-useless", choice.place(), message, "take the rule out, or say it of another component");
        }
    }

    /**
     * What a component of a simple type holds.
     *
     * @param value what it would hold
     * @param types finds what a document in its text holds
     */
    ValueType value(Subject subject, ValueType value, TypePlanner types) {
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
        ValueType shaped =
                conversion == null ? document(subject, scalar, carried, types) : converted(subject, scalar, conversion);
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
        ValueType own = target.converted(scalar, conversion.type());
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
            Subject subject, ValueType.Scalar scalar, Shaping.Choice<QName> carried, TypePlanner types) {
        ValueType content = types.elementContent(carried.value());
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

    /**
     * How code gets at a member.
     *
     * @param absent whether its getter can give null
     */
    Property.Access access(Subject subject, ValueType type, Property.Cardinality cardinality, boolean absent) {
        Shaping.Choice<Boolean> unwrapped = shaping.choice(subject, Shape::unwrapped);
        if (unwrapped != null && unwrapped.value() && isSupported(Property.Access.UNWRAPPED, unwrapped, subject)) {
            if (cardinality != Property.Cardinality.MANY && type instanceof ValueType.Structured structured) {
                later.add(() -> {
                    if (!isList(structured.type())) {
                        useless(unwrapped, subject, "holds more than a list");
                    }
                });
                return Property.Access.UNWRAPPED;
            }
            useless(unwrapped, subject, "is no element around a list");
        }
        Shaping.Choice<Boolean> optional = shaping.choice(subject, Shape::optional);
        return optional != null
                        && optional.value()
                        && absent
                        && cardinality != Property.Cardinality.MANY
                        && isSupported(Property.Access.OPTIONAL, optional, subject)
                ? Property.Access.OPTIONAL
                : Property.Access.PLAIN;
    }

    private boolean isSupported(Property.Access access, Shaping.Choice<?> choice, Subject subject) {
        if (target.supports(access)) {
            return true;
        }
        findings.warning(
                "rule-useless",
                choice.place(),
                naming.shown(subject) + " stays as it is: the language has no other form for it",
                "say it for the language that has one, below its name (\"java:\")");
        return false;
    }

    private static boolean isList(ApiClass type) {
        return type.base() == null
                && !type.isAbstract()
                && !type.isMixed()
                && type.properties().size() == 1
                && type.elements().size() == 1
                && type.elements().get(0).isMany()
                && !type.hasSubclasses();
    }

    /** Tells what could not be told before everything was planned. */
    void finish() {
        later.forEach(Runnable::run);
    }

    /** The class that is used in place of one of ours, or null. */
    String existing(Subject subject) {
        Shaping.Choice<String> choice = shaping.choice(subject, Shape::existing);
        return choice == null ? null : choice.value();
    }

    /** Tells that a type cannot be left out, for another is derived from it. */
    void needed(Subject subject, ComplexType derived) {
        findings.error(
                "type-needed",
                derived.place(),
                "this type is derived from " + naming.shown(subject) + ", which a rule leaves out",
                "leave this type out too, or neither");
    }

    /** The interfaces that a class implements besides. */
    List<String> interfaces(Subject subject) {
        Shaping.Choice<List<String>> choice = shaping.choice(subject, Shape::interfaces);
        return choice == null ? List.of() : choice.value();
    }

    /** What is said about a component: what the contract says, and what somebody says besides. */
    String documentation(Subject subject, String own) {
        Shaping.Choice<String> choice = shaping.choice(subject, Shape::documentation);
        return choice == null ? own : own.isBlank() ? choice.value() : own + "\n\n" + choice.value();
    }

    /** Whether the members of a request are to be parameters; null when nobody says. */
    Shaping.Choice<Boolean> plainParameters(Subject subject) {
        return shaping.choice(subject, Shape::plainParameters);
    }

    /** Tells that an operation cannot have a parameter for each member of its request. */
    void notPlain(Shaping.Choice<?> choice, Subject subject) {
        useless(choice, subject, "has a request that cannot be taken apart into parameters");
    }

    /** Whether an operation can also be called without waiting. */
    boolean isAsync(Subject subject) {
        Shaping.Choice<Boolean> choice = shaping.choice(subject, Shape::async);
        return choice == null || choice.value();
    }
}
