package org.protypos.layout;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.Member;
import org.protypos.api.type.ScalarKind;
import org.protypos.binding.Shape;
import org.protypos.binding.Shaping;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.Subject;

/** How much room values get: what the contract bounds, then what a rule says, then what is custom, which is told. */
public final class Rooms {
    /** The characters of a name with its namespace. */
    static final int NAME = 160;

    private static final int TEXT = 80;
    /** The longest name that a data set has. */
    private static final int FILE = 44;

    private static final int DOCUMENT = 2_000;
    private static final int BYTES = 1_000;
    private static final int TIMES = 10;
    /** More entries than this are not taken from the contract unasked: few that allow a thousand mean it. */
    private static final int MOST_TIMES = 100;

    private static final int LONGEST_TEXT = 4_000;
    private static final int WHOLE = 13;
    private static final int DECIMALS = 5;
    private static final int MOST_DIGITS = 31;

    private final Shaping rules;
    private final Findings findings;
    private final Set<String> said = new HashSet<>();
    private final List<Asked> asked = new ArrayList<>();

    /**
     * A bound that nobody has set.
     *
     * @param subject what it would be said of
     * @param key what a rule calls it
     * @param value what holds as long as nobody sets it
     */
    public record Asked(Subject subject, String key, int value) {}

    /**
     * The form of a single value.
     *
     * @param hasLength whether a field says how much of it is filled
     * @param conditions what values have names, by those names
     */
    record Form(Picture picture, boolean hasLength, Map<String, String> conditions, String remark) {}

    /**
     * Begins.
     *
     * @param findings where to tell which bounds nobody has set
     */
    public Rooms(Shaping rules, Findings findings) {
        this.rules = rules;
        this.findings = findings;
    }

    /** The bounds that nobody has set. */
    public List<Asked> asked() {
        return List.copyOf(asked);
    }

    private <T> T rule(Member member, Function<Shape.Room, T> respect) {
        for (Subject subject : subjects(member)) {
            Shaping.Choice<T> choice =
                    rules.choice(subject, shape -> shape.room() == null ? null : respect.apply(shape.room()));
            if (choice != null) {
                return choice.value();
            }
        }
        return null;
    }

    private static List<Subject> subjects(Member member) {
        List<Subject> subjects = new ArrayList<>();
        if (member.subject() != null) {
            subjects.add(member.subject());
        }
        if (member.shapedAs() != null) {
            subjects.add(member.shapedAs());
        }
        if (member.value() instanceof ApiValue.OfType named) {
            subjects.add(named.type());
        }
        return subjects;
    }

    private void ask(Member member, String key, int value, String what, List<Runnable> told) {
        told.add(() -> {
            Subject subject = member.subject();
            if (said.add((subject == null ? member.name() : subject.designator()) + " " + key)) {
                findings.note(
                        "record-bound",
                        subject == null ? null : subject.place(),
                        spoken(member) + " " + what,
                        "set another by a rule for it: {" + key + ": N}");
                if (subject != null) {
                    asked.add(new Asked(subject, key, value));
                }
            }
        });
    }

    /** How one speaks of a member: by its name, or for text by what it is the text of. */
    private static String spoken(Member member) {
        return member.kind() != Member.Kind.TEXT || member.subject() == null
                ? member.name()
                : member.subject().designator().replaceFirst("^.*\\}", "");
    }

    /** Tells that something has no place in records. */
    void leftOut(Member member, String what) {
        if (said.add((member.subject() == null ? what : member.subject().designator()) + " left out")) {
            findings.warning(
                    "record-left-out",
                    member.subject() == null ? null : member.subject().place(),
                    what + " have no place in a record",
                    "messages that have some cannot be carried whole");
        }
    }

    /** Tells that a rule leaves something out. */
    void leftOut(Member member) {
        if (said.add(member.subject().designator() + " left out")) {
            findings.note(
                    "record-left-out",
                    member.subject().place(),
                    spoken(member) + " has no place in a record, as a rule says",
                    "what messages say there is not carried");
        }
    }

    /** Tells that a record cannot end with the entries of a member. */
    void cannotVary(Member member) {
        findings.warning(
                "record-varying",
                member.subject() == null ? null : member.subject().place(),
                member.name() + " is not the last of its record, which ends with it nowhere",
                "leave varying: out of the rule; it has room for all its entries");
    }

    /** Whether a rule leaves a member out of records. */
    boolean isLeftOut(Member member) {
        Integer wanted = rule(member, Shape.Room::room);
        return wanted != null && wanted == 0;
    }

    /** Whether a record is to end with the last of the entries of a member that are there. */
    boolean isVarying(Member member) {
        return Boolean.TRUE.equals(rule(member, Shape.Room::varying));
    }

    /** The numbers that a date or a time is kept as, by their names; empty when it is text. */
    Map<String, Picture> parts(Member member, ScalarKind kind) {
        boolean hasDate = kind == ScalarKind.DATE || kind == ScalarKind.DATE_TIME;
        boolean hasTime = kind == ScalarKind.TIME || kind == ScalarKind.DATE_TIME;
        Map<String, Picture> parts = new LinkedHashMap<>();
        if (!hasDate && !hasTime || !Boolean.TRUE.equals(rule(member, Shape.Room::inParts))) {
            return parts;
        }
        if (hasDate) {
            parts.put(RecordText.YEAR, digits(4, 0));
            parts.put(RecordText.MONTH, digits(2, 0));
            parts.put(RecordText.DAY, digits(2, 0));
        }
        if (hasTime) {
            parts.put(RecordText.HOUR, digits(2, 0));
            parts.put(RecordText.MINUTE, digits(2, 0));
            parts.put(RecordText.SECOND, digits(8, 6));
        }
        parts.put(RecordText.ZONE, Picture.text(6));
        return parts;
    }

    private static Picture digits(int size, int decimals) {
        return new Picture(Usage.ZONED, size, decimals, false);
    }

    /** How many entries of a member there is room for. */
    int times(Member member, int most, List<Runnable> told) {
        Integer wanted = rule(member, Shape.Room::times);
        if (wanted != null) {
            return Math.max(1, Math.min(wanted, most));
        }
        if (most <= MOST_TIMES) {
            return Math.max(1, most);
        }
        ask(
                member,
                "times",
                TIMES,
                "may come " + (most == Integer.MAX_VALUE ? "any number of times" : most + " times")
                        + "; the record has room for " + TIMES,
                told);
        return TIMES;
    }

    /** The room for the text of a list. */
    int list(Member member, List<Runnable> told) {
        return room(
                member, TEXT * 2, "is a list of any length; the record has room for " + TEXT * 2 + " characters", told);
    }

    /** The room for XML as text. */
    int document(Member member, List<Runnable> told) {
        return room(
                member,
                DOCUMENT,
                "has no fixed form and is text with its XML; the record has room for " + DOCUMENT + " characters",
                told);
    }

    private int room(Member member, int usual, String what, List<Runnable> told) {
        Integer wanted = rule(member, Shape.Room::room);
        if (wanted != null) {
            return wanted;
        }
        ask(member, "room", usual, what, told);
        return usual;
    }

    /** The form of a single value. */
    Form form(Member member, ApiValue.Scalar scalar, List<Runnable> told) {
        ScalarKind kind = scalar.kind();
        Bounds bounds = Bounds.of(member.facets(), scalar);
        return switch (kind) {
            case BOOLEAN -> new Form(Picture.text(1), false, truths(), "");
            case BYTE, UNSIGNED_BYTE, SHORT, UNSIGNED_SHORT, INT, UNSIGNED_INT, LONG, UNSIGNED_LONG, INTEGER, DECIMAL ->
                new Form(number(member, kind, bounds, told), false, Map.of(), "");
            case FLOAT, DOUBLE -> text(24, "a number with exponent");
            case DATE_TIME -> text(35, "YYYY-MM-DDThh:mm:ss");
            case DATE -> text(16, "YYYY-MM-DD");
            case TIME -> text(24, "hh:mm:ss");
            case DURATION -> text(40, "PnYnMnDTnHnMnS");
            case YEAR, YEAR_MONTH, MONTH, MONTH_DAY, DAY -> text(16, "");
            case QNAME -> text(NAME, "{namespace}name");
            case HEX, BASE64, ATTACHMENT -> bytes(member, bounds, told);
            case STRING, NORMALIZED, TOKEN, NAMES -> characters(member, kind, bounds, told);
        };
    }

    /** In the order in which they are told: what is made of the same contract is the same at any time. */
    private static Map<String, String> truths() {
        Map<String, String> truths = new LinkedHashMap<>();
        truths.put("true", RecordText.TRUE);
        truths.put("false", RecordText.FALSE);
        return truths;
    }

    private static Form text(int size, String remark) {
        return new Form(Picture.text(size), false, Map.of(), remark);
    }

    private Form bytes(Member member, Bounds bounds, List<Runnable> told) {
        if (Boolean.TRUE.equals(rule(member, Shape.Room::file))) {
            Integer room = rule(member, Shape.Room::room);
            return new Form(Picture.file(room == null ? FILE : room), false, Map.of(), "the name of a file");
        }
        boolean bounded = bounds.longest() <= LONGEST_TEXT;
        int size = bounded && rule(member, Shape.Room::room) == null
                ? Math.max(1, bounds.longest())
                : room(member, BYTES, "is bytes of any number; the record has room for " + BYTES, told);
        return new Form(Picture.bytes(size), !(bounded && bounds.isFixed()), Map.of(), "");
    }

    private Form characters(Member member, ScalarKind kind, Bounds bounds, List<Runnable> told) {
        boolean bounded = bounds.longest() <= LONGEST_TEXT;
        int size = bounded && rule(member, Shape.Room::room) == null
                ? Math.max(1, bounds.longest())
                : room(member, TEXT, "is text of any length; the record has room for " + TEXT + " characters", told);
        // Blanks at the end mean nothing where white space is collapsed.
        boolean hasLength = kind != ScalarKind.TOKEN && !(bounded && bounds.isFixed());
        return new Form(Picture.text(size), hasLength, Map.of(), "");
    }

    private Picture number(Member member, ScalarKind kind, Bounds bounds, List<Runnable> told) {
        Integer digits = rule(member, Shape.Room::digits);
        Integer decimals = rule(member, Shape.Room::decimals);
        int whole = bounds.whole(kind);
        int behind = bounds.decimals(kind);
        boolean unbounded = whole == Integer.MAX_VALUE || behind == Integer.MAX_VALUE;
        if (decimals != null) {
            behind = decimals;
        } else if (behind == Integer.MAX_VALUE) {
            behind = whole == Integer.MAX_VALUE ? DECIMALS : Math.min(DECIMALS, whole);
        }
        if (digits != null) {
            whole = Math.max(0, digits - behind);
        } else if (whole == Integer.MAX_VALUE) {
            whole = kind.isIntegral() ? WHOLE + DECIMALS : WHOLE;
        }
        if (unbounded && digits == null && decimals == null) {
            ask(
                    member,
                    "digits",
                    whole + behind,
                    "is a number of any size; the record has room for " + whole + " digits"
                            + (behind > 0 ? " and " + behind + " behind the point" : ""),
                    told);
        }
        int size = Math.min(MOST_DIGITS, Math.max(1, whole + behind));
        Usage wanted = usage(member);
        return new Picture(
                wanted == Usage.BINARY && size > Picture.MOST_BINARY_DIGITS ? Usage.PACKED : wanted,
                size,
                Math.min(behind, size),
                !bounds.isUnsigned());
    }

    private Usage usage(Member member) {
        String wanted = rule(member, Shape.Room::usage);
        return wanted == null
                ? Usage.PACKED
                : switch (wanted) {
                    case "binary" -> Usage.BINARY;
                    case "zoned" -> Usage.ZONED;
                    default -> Usage.PACKED;
                };
    }
}
