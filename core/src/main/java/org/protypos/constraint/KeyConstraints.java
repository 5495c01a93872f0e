package org.protypos.constraint;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Printable;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.IdentityConstraint;

/** Whether keys and what refers to them can be looked up (XML Schema Part 1, section 3.11.6). */
final class KeyConstraints {
    private static final String NAME = "[\\p{L}_][\\p{L}\\p{M}\\p{N}._\\-\u00b7]*";
    private static final String TEST = "(?:\\*|" + NAME + ":\\*|(?:" + NAME + ":)?" + NAME + ")";
    private static final String STEP = "(?:\\.|(?:child::)?" + TEST + ")";
    private static final String STEPS = "(?:\\.//)?" + STEP + "(?:/" + STEP + ")*";
    private static final String LAST = "(?:\\.//)?(?:" + STEP + "/)*(?:" + STEP + "|(?:@|attribute::)" + TEST + ")";
    private static final Pattern SELECTOR = Pattern.compile(STEPS + "(?:\\|" + STEPS + ")*");
    private static final Pattern FIELD = Pattern.compile(LAST + "(?:\\|" + LAST + ")*");
    private static final Pattern PREFIX = Pattern.compile("(?<!:)(" + NAME + "):(?!:)");

    private final List<ElementDeclaration> elements;
    private final Findings findings;
    private final Map<QName, IdentityConstraint> known = new HashMap<>();

    KeyConstraints(List<ElementDeclaration> elements, Findings findings) {
        this.elements = elements;
        this.findings = findings;
    }

    void check() {
        elements.forEach(element -> element.constraints().forEach(this::know));
        elements.forEach(element -> element.constraints().forEach(this::check));
    }

    private void know(IdentityConstraint constraint) {
        IdentityConstraint other = known.putIfAbsent(constraint.name(), constraint);
        if (other != null && !other.place().equals(constraint.place())) {
            findings.warning(
                    "key-twice",
                    constraint.place(),
                    "there is another " + other.kind() + " with the name "
                            + constraint.name().getLocalPart()
                            + Told.at(other.place(), constraint.place()),
                    "give each a name of its own");
        }
    }

    private void check(IdentityConstraint constraint) {
        path(constraint, "selector", constraint.selector(), SELECTOR);
        constraint.fields().forEach(field -> path(constraint, "field", field, FIELD));
        if (constraint.fields().isEmpty()) {
            findings.warning(
                    "key-path",
                    constraint.place(),
                    "the " + constraint.kind() + " " + constraint.name().getLocalPart() + " has no field",
                    "say with xs:field which values are meant");
        }
        if (constraint.kind().equals("keyref")) {
            refers(constraint);
        }
    }

    private void path(IdentityConstraint constraint, String what, String path, Pattern allowed) {
        String dense = String.valueOf(path).replaceAll("\\s+", "");
        if (path == null || !allowed.matcher(dense).matches()) {
            findings.warning(
                    "key-path",
                    constraint.place(),
                    "the " + what + " of the " + constraint.kind() + " "
                            + constraint.name().getLocalPart() + " is none: "
                            + (path == null || path.isBlank() ? "nothing" : "\"" + Printable.of(path) + "\""),
                    "write names of child elements with / between"
                            + (what.equals("field") ? ", an attribute at most as the last" : ""));
            return;
        }
        Matcher prefixes = PREFIX.matcher(dense);
        while (prefixes.find()) {
            String prefix = prefixes.group(1);
            if (constraint.namespaces().apply(prefix) == null) {
                findings.warning(
                        "undeclared-prefix",
                        constraint.place(),
                        "the prefix of \"" + Printable.of(path) + "\" is not declared",
                        "declare it with xmlns:" + prefix + "=\"...\"");
            }
        }
    }

    private void refers(IdentityConstraint constraint) {
        IdentityConstraint key = constraint.refer() == null ? null : known.get(constraint.refer());
        String name = constraint.name().getLocalPart();
        if (key == null || key.kind().equals("keyref")) {
            findings.warning(
                    "key-reference",
                    constraint.place(),
                    "the keyref " + name + " refers to "
                            + (constraint.refer() == null
                                    ? "nothing"
                                    : constraint.refer().getLocalPart()
                                            + (key == null ? ", which is not declared" : ", which is a keyref itself")),
                    "name an xs:key or xs:unique");
        } else if (key.fields().size() != constraint.fields().size()) {
            findings.warning(
                    "key-reference",
                    constraint.place(),
                    "the keyref " + name + " has " + fields(constraint) + ", and the " + key.kind() + " "
                            + key.name().getLocalPart() + " that it refers to " + fields(key),
                    "give both as many, in the same order");
        }
    }

    private static String fields(IdentityConstraint constraint) {
        int count = constraint.fields().size();
        return count + (count == 1 ? " field" : " fields");
    }
}
