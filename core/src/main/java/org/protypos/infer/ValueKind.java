package org.protypos.infer;

import java.util.regex.Pattern;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.BuiltIn;

/**
 * The built-in types that values are told apart by, the one to prefer first. Digits with zeros or a plus sign in front are codes
 * and telephone numbers, not numbers: a number would lose them.
 */
public enum ValueKind {
    INT(BuiltIn.INT, Pattern.compile("-?(0|[1-9][0-9]*)")),
    LONG(BuiltIn.LONG, Pattern.compile("-?(0|[1-9][0-9]*)")),
    INTEGER(BuiltIn.INTEGER, Pattern.compile("-?(0|[1-9][0-9]*)")),
    DECIMAL(BuiltIn.DECIMAL, Pattern.compile("-?(0|[1-9][0-9]*|(?=\\.))(\\.[0-9]+)?")),
    DOUBLE(BuiltIn.DOUBLE, Pattern.compile("-?(0|[1-9][0-9]*|(?=\\.))(\\.[0-9]+)?([eE][-+]?[0-9]+)?|-?INF|NaN")),
    BOOLEAN(BuiltIn.BOOLEAN, Pattern.compile("true|false|0|1")),
    DATE(BuiltIn.DATE, Pattern.compile("-?[0-9]{4,}-[0-9]{2}-[0-9]{2}(Z|[-+][0-9]{2}:[0-9]{2})?")),
    DATE_TIME(BuiltIn.DATE_TIME, Pattern.compile("-?[0-9]{4,}-[0-9]{2}-[0-9]{2}T[0-9:.]+(Z|[-+][0-9]{2}:[0-9]{2})?")),
    TIME(BuiltIn.TIME, Pattern.compile("[0-9]{2}:[0-9]{2}:[0-9]{2}(\\.[0-9]+)?(Z|[-+][0-9]{2}:[0-9]{2})?")),
    DURATION(BuiltIn.DURATION, Pattern.compile("-?P[0-9YMDTHS.]*[YMDHS]")),
    HEX(BuiltIn.HEX_BINARY, Pattern.compile("(?=.*[0-9])(?=.*[a-fA-F])[0-9a-fA-F]{32,}")),
    BASE64(
            BuiltIn.BASE64_BINARY,
            Pattern.compile("(?=.*[A-Z])(?=.*[a-z])(?=.*[0-9+/=])[A-Za-z0-9+/ \n]{62,}[ \n]*={0,2}")),
    URI(BuiltIn.ANY_URI, Pattern.compile("(?i)([a-z][a-z0-9+.-]*://|urn:[a-z0-9]|mailto:)[^\\s<>\"{}|\\\\^`]+")),
    TOKEN(BuiltIn.TOKEN, null),
    STRING(BuiltIn.STRING, null);

    /** Above that a pattern is not tried: whoever sends so much sends text or bytes. */
    private static final int LONGEST = 1 << 16;

    private final BuiltIn type;
    private final Pattern form;
    private final ValueRule rule;

    ValueKind(BuiltIn type, Pattern form) {
        this.type = type;
        this.form = form;
        this.rule = ValueRule.of(type.local());
    }

    /** The narrowest that a text is of. */
    public static ValueKind of(String text) {
        ObservedValue value = new ObservedValue();
        value.add(text);
        return value.kind();
    }

    /** The built-in type of such values. */
    public BuiltIn type() {
        return type;
    }

    /** Whether values are numbers. */
    public boolean isNumber() {
        return type.isNumber();
    }

    /** Whether it says more than that there is text. */
    boolean isNarrow() {
        return this != TOKEN && this != STRING;
    }

    /** Whether a text is of this kind: looks like it, and is one. */
    boolean takes(String text) {
        if (form == null) {
            return this == STRING || isToken(text);
        }
        if (text.length() > LONGEST) {
            return this == BASE64 && rule.complaint(text, prefix -> null) == null;
        }
        String plain = rule.normalized(text);
        return !plain.isEmpty() && form.matcher(plain).matches() && rule.complaint(text, prefix -> null) == null;
    }

    private static boolean isToken(String text) {
        char before = ' ';
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '\t' || c == '\n' || c == '\r' || c == ' ' && before == ' ') {
                return false;
            }
            before = c;
        }
        return text.isEmpty() || before != ' ';
    }
}
