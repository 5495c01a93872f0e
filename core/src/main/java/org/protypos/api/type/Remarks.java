package org.protypos.api.type;

import org.protypos.binding.Shape;
import org.protypos.binding.Shaping;
import org.protypos.naming.Subject;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.IdentityConstraint;

/** What is said about components: what the contract says, and what somebody says besides. */
public final class Remarks {
    private final Shaping shaping;

    /** Remarks with what somebody says besides the contract. */
    public Remarks(Shaping shaping) {
        this.shaping = shaping;
    }

    /** What is said about a component of which the contract says something. */
    public String of(Subject subject, String own) {
        Shaping.Choice<String> choice = shaping.choice(subject, Shape::documentation);
        return choice == null ? own : own.isBlank() ? choice.value() : own + "\n\n" + choice.value();
    }

    /** What the contract says about an element, with what its identity constraints demand. */
    static String withConstraints(String documentation, ElementDeclaration element) {
        StringBuilder text = new StringBuilder(documentation);
        for (IdentityConstraint constraint : element.constraints()) {
            text.append(text.isEmpty() ? "" : "\n\n").append(constraint.inWords());
        }
        return text.toString();
    }

    /** Both of two remarks. */
    static String joined(String first, String second) {
        return first.isEmpty() || second.isEmpty() ? first + second : first + "\n\n" + second;
    }
}
