package org.protypos.runtime.xml;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.value.Lexical;
import org.protypos.runtime.value.XmlDate;
import org.protypos.runtime.value.XmlDateTime;
import org.protypos.runtime.value.XmlDuration;
import org.protypos.runtime.value.XmlPartialDate;
import org.protypos.runtime.value.XmlTime;

/**
 * Turns the text of a message into values of simple types, and notices when a value is written in another way than we
 * would write it.
 */
public abstract sealed class ScalarInput permits TextInput {
    private String odd;
    private String came;
    private boolean standardTaken;
    private Attachment included;
    private long mostIncluded;
    private boolean refused;

    ScalarInput() {}

    /** Throws the failure that text is not of the type expected, or notes it for a report. */
    abstract void complain(String text, String type);

    /** Takes the memory that binary content needs as bytes of its own. */
    abstract void affordBinary(long length);

    /** Ends the reading because text is not of the type expected, or passes over it. */
    public final void refuse(String text, String type) {
        complain(text, type);
        refused = true;
        odd = null;
        came = null;
    }

    /** Whether the value read last was passed over; it is not any longer. */
    final boolean takeRefused() {
        boolean was = refused;
        refused = false;
        return was;
    }

    /** Whether there is no text, because a lenient reading has passed over it. */
    private boolean isLacking(String text) {
        if (text == null) {
            refused = true;
            odd = null;
            came = null;
        }
        return text == null;
    }

    /** Notes that an empty element stands for a value of its own, or that the element is not empty. */
    final void noteStandard(boolean taken) {
        standardTaken = taken;
        odd = taken ? "" : null;
    }

    /** Whether the value read last was written in another way than the ordinary one. */
    public final boolean isOdd() {
        standardTaken = false;
        return odd != null;
    }

    /** Whether the value read last was written, in whatever way, rather than passed over or beside the message. */
    public final boolean isWritten() {
        return isOdd() || came != null;
    }

    final String writtenText() {
        return odd != null ? odd : Lexical.collapse(came);
    }

    private void note(String text, boolean ordinary) {
        came = text;
        if (standardTaken) {
            standardTaken = false;
        } else {
            odd = ordinary ? null : Lexical.collapse(text);
        }
    }

    /** Whether digits are written as we would: no plus sign, no zeros before others. */
    private static boolean isOrdinary(String text, boolean zero) {
        int start = text.startsWith("-") ? 1 : 0;
        char first = text.isEmpty() ? ' ' : text.charAt(start);
        return first >= '1' && first <= '9' && text.charAt(text.length() - 1) > ' '
                || zero && text.length() == 1 && first == '0';
    }

    /** Reads the items of a list type. */
    public final <T> List<T> list(String text, Function<String, T> reader) {
        List<T> list = new ArrayList<>();
        boolean standard = standardTaken;
        boolean ordinary = true;
        standardTaken = false;
        for (String item : Lexical.items(isLacking(text) ? "" : text)) {
            odd = null;
            T value = reader.apply(item);
            if (!takeRefused()) {
                list.add(value);
            }
            ordinary &= odd == null;
        }
        odd = standard ? "" : ordinary ? null : Lexical.collapse(text);
        came = text;
        return list;
    }

    /** Gives the value, or null when a lenient reading passes over it. */
    private <T> T parse(String text, String type, Function<String, T> parser) {
        if (isLacking(text)) {
            return null;
        }
        try {
            return parser.apply(text);
        } catch (IllegalArgumentException e) {
            refuse(text, type);
            return null;
        }
    }

    /** Collapses white space, as most simple types want it (XML Schema Part 2, section 4.3.6). */
    public final String toToken(String text) {
        return isLacking(text) ? null : Lexical.collapse(text);
    }

    /** Replaces each white space character by a space (XML Schema Part 2, section 4.3.6). */
    public final String toNormalized(String text) {
        return isLacking(text) ? null : Lexical.replace(text);
    }

    /** Reads {@code xs:boolean}. */
    public final boolean toBoolean(String text) {
        Boolean value = parse(text, "boolean", Lexical::parseBoolean);
        if (value == null) {
            return false;
        }
        note(text, text.equals(Lexical.print(value)));
        return value;
    }

    /** Reads {@code xs:byte}. */
    public final byte toByte(String text) {
        return (byte) integral(text, Byte.MIN_VALUE, Byte.MAX_VALUE, "byte");
    }

    /** Reads {@code xs:unsignedByte}. */
    public final short toUnsignedByte(String text) {
        return (short) integral(text, 0, 0xff, "unsignedByte");
    }

    /** Reads {@code xs:short}. */
    public final short toShort(String text) {
        return (short) integral(text, Short.MIN_VALUE, Short.MAX_VALUE, "short");
    }

    /** Reads {@code xs:unsignedShort}. */
    public final int toUnsignedShort(String text) {
        return (int) integral(text, 0, 0xffff, "unsignedShort");
    }

    /** Reads {@code xs:int}. */
    public final int toInt(String text) {
        return (int) integral(text, Integer.MIN_VALUE, Integer.MAX_VALUE, "int");
    }

    /** Reads {@code xs:unsignedInt}. */
    public final long toUnsignedInt(String text) {
        return integral(text, 0, 0xffff_ffffL, "unsignedInt");
    }

    /** Reads {@code xs:long}. */
    public final long toLong(String text) {
        return integral(text, Long.MIN_VALUE, Long.MAX_VALUE, "long");
    }

    private long integral(String text, long least, long most, String type) {
        if (isLacking(text)) {
            return 0;
        }
        try {
            long value = Lexical.parseLong(text, least, most);
            note(text, isOrdinary(text, value == 0));
            return value;
        } catch (IllegalArgumentException e) {
            refuse(text, type);
            return 0;
        }
    }

    /** Reads {@code xs:float}. */
    public final float toFloat(String text) {
        Float value = parse(text, "float", Lexical::parseFloat);
        if (value == null) {
            return 0;
        }
        note(text, text.equals(Lexical.print(value)));
        return value;
    }

    /** Reads {@code xs:double}. */
    public final double toDouble(String text) {
        Double value = parse(text, "double", Lexical::parseDouble);
        if (value == null) {
            return 0;
        }
        note(text, text.equals(Lexical.print(value)));
        return value;
    }

    /** Reads {@code xs:decimal}. */
    public final BigDecimal toDecimal(String text) {
        BigDecimal value = parse(text, "decimal", Lexical::parseDecimal);
        if (value != null) {
            note(
                    text,
                    isOrdinary(text, false) && text.charAt(text.length() - 1) != '.'
                            || text.equals(Lexical.print(value)));
        }
        return value;
    }

    /** Reads {@code xs:integer} and the types derived from it that no Java primitive holds. */
    public final BigInteger toInteger(String text) {
        BigInteger value = parse(text, "integer", Lexical::parseInteger);
        if (value != null) {
            note(text, isOrdinary(text, value.signum() == 0));
        }
        return value;
    }

    /** Reads {@code xs:hexBinary}. */
    public final byte[] toHex(String text) {
        byte[] value = parse(text, "hexBinary", Lexical::parseHex);
        if (value != null) {
            note(text, text.chars().allMatch(c -> c <= 'F'));
        }
        return value;
    }

    /** Reads {@code xs:base64Binary}. */
    public final byte[] toBase64(String text) {
        Attachment content = takeIncluded();
        if (content != null) {
            if (content.length() > mostIncluded) {
                refuse("", "binary content of at most " + mostIncluded + " bytes");
                return null;
            }
            affordBinary(content.length());
            return content.bytes();
        }
        byte[] value = parse(text, "base64Binary", Lexical::parseBase64);
        if (value != null) {
            note(text, text.chars().allMatch(c -> c > ' '));
        }
        return value;
    }

    /** Reads {@code xs:base64Binary} that need not fit into memory. */
    public final Attachment toAttachment(String text) {
        Attachment content = takeIncluded();
        if (content != null) {
            return content;
        }
        byte[] value = toBase64(text);
        return value == null ? null : Attachment.of(value);
    }

    /**
     * Turns text into a value of a class that the contract knows nothing of, and keeps the text where the value alone would
     * be written otherwise.
     *
     * @param parser gives the value; null and exceptions say that there is none
     * @param printer gives the text of a value
     * @param type what the value should have been, for who reads why it is none
     */
    public final <T> T converted(String text, Function<String, T> parser, Function<T, String> printer, String type) {
        if (isLacking(text)) {
            return null;
        }
        try {
            T value = parser.apply(text);
            if (value != null) {
                boolean ordinary = text.equals(printer.apply(value));
                odd = standardTaken ? "" : ordinary ? null : text;
                came = text;
                standardTaken = false;
                return value;
            }
            refuse(text, type);
        } catch (XmlFormatException e) {
            refuse(text, type + ": " + e.getMessage());
        } catch (RuntimeException e) {
            // The converter may be anybody's: whatever it throws says that the text is no such value.
            refuse(text, type);
        }
        return null;
    }

    /** Notes that the element read last has its content beside the message, or not. */
    final void setIncluded(Attachment content, long most) {
        included = content;
        mostIncluded = most;
    }

    final boolean hasIncluded() {
        return included != null;
    }

    private Attachment takeIncluded() {
        Attachment content = included;
        included = null;
        if (content != null) {
            odd = null;
            came = null;
        }
        return content;
    }

    /** Reads {@code xs:dateTime}. */
    public final XmlDateTime toDateTime(String text) {
        return parse(text, "dateTime", XmlDateTime::of);
    }

    /** Reads {@code xs:date}. */
    public final XmlDate toDate(String text) {
        return parse(text, "date", XmlDate::of);
    }

    /** Reads {@code xs:time}. */
    public final XmlTime toTime(String text) {
        return parse(text, "time", XmlTime::of);
    }

    /** Reads {@code xs:duration}. */
    public final XmlDuration toDuration(String text) {
        return parse(text, "duration", XmlDuration::of);
    }

    /** Reads {@code xs:gYear}, {@code xs:gYearMonth}, {@code xs:gMonth}, {@code xs:gMonthDay} or {@code xs:gDay}. */
    public final XmlPartialDate toPartialDate(String text, XmlPartialDate.Form form) {
        return parse(text, "partial date", value -> XmlPartialDate.of(value, form));
    }
}
