package org.protypos.binding;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.schema.Particle;
import org.protypos.schema.facet.FacetKind;
import org.protypos.schema.pattern.SchemaPattern;

/** Reads from a rule what the contract should say. */
final class CorrectionBuilder {
    private static final Pattern OCCURS = Pattern.compile("([0-9]{1,6})(?:\\.\\.([0-9]{1,6}|\\*))?");
    private static final Pattern VALUE = Pattern.compile("(?s)([+-]) *'(.*)'");
    private static final Pattern HEADER = Pattern.compile("(answer )?header (.+)");

    private final Names names;
    private final Complaint complaint;

    /** Reads a name in the value of a key; null when it is none, which is told. */
    interface Names {
        QName name(WrittenRule rule, String key, String text);
    }

    /** Takes what is wrong with the value of a key. */
    interface Complaint {
        void about(String key, String message, String cure);
    }

    CorrectionBuilder(Names names, Complaint complaint) {
        this.names = names;
        this.complaint = complaint;
    }

    Correction build(WrittenRule rule) {
        Correction.Occurs occurs = occurs(rule);
        QName type = name(rule, "type");
        Correction.Addition added = addition(rule, type, occurs);
        QName droppedHeader = droppedHeader(rule);
        return new Correction(
                added == null ? occurs : null,
                rule.flag("nillable"),
                added == null ? type : null,
                choice(rule, "form", "qualified", "unqualified"),
                rule.has("default") ? standard(rule.text("default")) : null,
                name(rule, "base"),
                rule.text("address"),
                rule.text("soapAction"),
                choice(rule, "style", "rpc", "document"),
                added,
                rule.has("drop") && rule.text("drop").equals("true"),
                droppedHeader,
                facets(rule),
                values(rule));
    }

    private Map<FacetKind, String> facets(WrittenRule rule) {
        Map<FacetKind, String> facets = new EnumMap<>(FacetKind.class);
        for (FacetKind kind : Correction.FACETS) {
            if (rule.has(kind.local())) {
                String text = rule.text(kind.local());
                facets.put(kind, text.equals(WrittenRule.NOTHING) ? null : text);
                check(kind, text);
            }
        }
        return facets.isEmpty() ? null : facets;
    }

    private void check(FacetKind kind, String text) {
        if (text.equals(WrittenRule.NOTHING)) {
            return;
        }
        switch (kind.form()) {
            case COUNT -> {
                if (!text.matches("[0-9]{1,9}")) {
                    complaint.about(
                            kind.local(),
                            "\"" + text + "\" is no number for " + kind,
                            "write a number, or null for none");
                }
            }
            case PATTERN -> {
                try {
                    SchemaPattern.of(text);
                } catch (IllegalArgumentException e) {
                    complaint.about(
                            kind.local(),
                            "\"" + text + "\" is no pattern: " + e.getMessage(),
                            "write it as XML Schema does");
                }
            }
            case BOUND, VALUE, WORD -> {
                // what the type says is judged when it is read
            }
        }
    }

    private List<Correction.Listed> values(WrittenRule rule) {
        if (!rule.has("values")) {
            return null;
        }
        List<Correction.Listed> values = new ArrayList<>();
        for (String text : rule.text("values").split(WrittenRule.BETWEEN)) {
            Matcher value = VALUE.matcher(text.strip());
            if (value.matches()) {
                values.add(new Correction.Listed(value.group(2), value.group(1).equals("+")));
            } else {
                complaint.about(
                        "values",
                        "\"" + text + "\" neither adds nor takes a value",
                        "write it like + 'crane' or - 'crane'");
            }
        }
        return values;
    }

    private static Correction.Standard standard(String text) {
        return new Correction.Standard(text.equals(WrittenRule.NOTHING) ? null : text);
    }

    private QName name(WrittenRule rule, String key) {
        return rule.has(key) ? names.name(rule, key, rule.text(key)) : null;
    }

    private Boolean choice(WrittenRule rule, String key, String yes, String no) {
        if (!rule.has(key)) {
            return null;
        }
        if (!rule.text(key).equals(yes) && !rule.text(key).equals(no)) {
            complaint.about(key, "\"" + rule.text(key) + "\" is no " + key, "write " + yes + " or " + no);
        }
        return rule.text(key).equals(yes);
    }

    private Correction.Occurs occurs(WrittenRule rule) {
        if (!rule.has("occurs")) {
            return null;
        }
        Matcher matcher = OCCURS.matcher(rule.text("occurs"));
        if (matcher.matches()) {
            int least = Integer.parseInt(matcher.group(1));
            String upper = matcher.group(2);
            int most = upper == null ? least : upper.equals("*") ? Particle.UNBOUNDED : Integer.parseInt(upper);
            if (least <= most) {
                return new Correction.Occurs(least, most);
            }
        }
        complaint.about(
                "occurs", "\"" + rule.text("occurs") + "\" is no occurrence", "write it like 1, 0..1, 1..* or 2..5");
        return null;
    }

    private Correction.Addition addition(WrittenRule rule, QName type, Correction.Occurs occurs) {
        if (!rule.has("add")) {
            if (rule.has("after")) {
                complaint.about("after", "a place for nothing", "say with \"add:\" what stands there");
            }
            return null;
        }
        String text = rule.text("add").strip();
        Matcher header = HEADER.matcher(text);
        if (header.matches()) {
            QName name = names.name(rule, "add", header.group(2));
            Correction.Kind kind = header.group(1) == null ? Correction.Kind.HEADER : Correction.Kind.ANSWER_HEADER;
            return new Correction.Addition(kind, name, null, null, null, null);
        }
        if (text.matches("(?s)'.*'")) {
            String value = text.substring(1, text.length() - 1);
            return new Correction.Addition(Correction.Kind.VALUE, null, value, null, null, null);
        }
        boolean attribute = text.startsWith("@");
        if (!rule.has("type")) {
            complaint.about("add", "what is added has no type", "add \"type:\"");
        }
        return new Correction.Addition(
                attribute ? Correction.Kind.ATTRIBUTE : Correction.Kind.ELEMENT,
                names.name(rule, "add", attribute ? text.substring(1) : text),
                null,
                type,
                occurs == null ? new Correction.Occurs(0, 1) : occurs,
                name(rule, "after"));
    }

    private QName droppedHeader(WrittenRule rule) {
        if (!rule.has("drop") || rule.text("drop").equals("true")) {
            return null;
        }
        Matcher header = HEADER.matcher(rule.text("drop"));
        if (!header.matches()) {
            complaint.about("drop", "\"" + rule.text("drop") + "\" cannot be dropped", "write true, or header p:Name");
            return null;
        }
        return names.name(rule, "drop", header.group(2));
    }
}
