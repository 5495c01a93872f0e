package org.protypos.record;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.CharacterCodingException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.ScalarKind;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Printable;
import org.protypos.diagnostic.Setting;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.RecordText;
import org.protypos.layout.Slot;
import org.protypos.layout.Usage;
import org.protypos.runtime.value.Lexical;

/**
 * Single values in the bytes of a record, and the texts that stand for them in XML. Whatever does not fit, or is none, is
 * told with its field and its offset; nothing is cut off.
 */
final class FieldValues {
    /** So much of a text is told. */
    private static final int SHOWN = 43;
    /** Longer texts of numbers have more digits than any field. */
    private static final int LONGEST_NUMBER = 200;

    private static final String FOLDER = "give the folder of such files with " + Setting.BYTE_FILES;

    private final byte[] record;
    private final RecordForm form;
    private final Findings findings;
    private final String about;
    private final List<String> kept = new ArrayList<>();

    /**
     * Begins.
     *
     * @param about what the record is called when one talks about it
     */
    FieldValues(byte[] record, RecordForm form, Findings findings, String about) {
        this.record = record;
        this.form = form;
        this.findings = findings;
        this.about = about;
    }

    /** Tells what is wrong with a field. */
    void wrong(String code, Slot slot, int at, String message, String cure) {
        findings.error(code, null, about + ", offset " + at + ", " + slot.name() + ": " + message, cure);
    }

    /** A number that says something about other fields. */
    int number(Slot slot, int at) {
        try {
            return new NumberField(slot.picture(), form).get(record, at).intValue();
        } catch (NumberField.Refused e) {
            wrong("record-digits", slot, at, e.getMessage(), "set it before the record is written");
            return 0;
        }
    }

    /** How many of some entries are there, none when that is no number or more than there is room for. */
    int entries(RecordLayout.Placed entries) {
        Slot count = entries.slot().count();
        // The number stands before the entries, in the same group.
        int number = number(count, entries.offset() - entries.slot().offset() + count.offset());
        return number < 0 || number > entries.slot().times() ? 0 : number;
    }

    void putNumber(Slot slot, int at, int number) {
        try {
            new NumberField(slot.picture(), form).put(BigDecimal.valueOf(number), record, at);
        } catch (NumberField.Refused e) {
            wrong("record-overflow", slot, at, e.getMessage(), "give it more room by a rule");
        }
    }

    /** A text that says something about other fields. */
    String flag(Slot slot, int at) {
        String text = decoded(slot, at, slot.picture().size());
        return text == null ? "" : text.strip();
    }

    void putFlag(Slot slot, int at, String text) {
        put(slot, at, text);
    }

    private String decoded(Slot slot, int at, int length) {
        try {
            return form.decoded(record, at, length);
        } catch (CharacterCodingException e) {
            wrong(
                    "record-character",
                    slot,
                    at,
                    "the bytes are no text in " + form.charset().name(),
                    "is " + Setting.CODE_PAGE + " right?");
            return null;
        }
    }

    /** The text of XML in a document field. */
    String document(Slot slot, int at, int lengthAt) {
        int length = number(slot.lengthSlot(), lengthAt);
        return filled(slot, at, length);
    }

    /** The part of a text that is filled: so many bytes, or all without blanks behind when nothing is said. */
    private String filled(Slot slot, int at, int length) {
        if (!isLength(slot, at, length)) {
            return null;
        }
        String text = decoded(slot, at, length == 0 ? slot.picture().size() : length);
        return text == null || length > 0 ? text : withoutBlanksBehind(text);
    }

    private static String withoutBlanksBehind(String text) {
        int end = text.length();
        while (end > 0 && text.charAt(end - 1) == ' ') {
            end--;
        }
        return text.substring(0, end);
    }

    /** Whether so many bytes of a field can be filled; tells it when not. */
    private boolean isLength(Slot slot, int at, int length) {
        int size = slot.picture().size();
        if (length >= 0 && length <= size) {
            return true;
        }
        wrong(
                "record-length",
                slot,
                at,
                "its length is said to be " + length + ", and it has room for " + size,
                "say how many bytes of it are filled");
        return false;
    }

    /**
     * The text in XML of the value in a field.
     *
     * @param lengthAt where the length stands, for fields that have one
     * @return the text, or null when something is wrong, which is told
     */
    String get(Slot slot, int at, int lengthAt) {
        if (slot.picture().isNumber()) {
            try {
                BigDecimal number = new NumberField(slot.picture(), form).get(record, at);
                return number.signum() == 0 ? "0" : number.stripTrailingZeros().toPlainString();
            } catch (NumberField.Refused e) {
                wrong("record-digits", slot, at, e.getMessage(), "move a number there before the record is written");
                return null;
            }
        }
        ScalarKind kind = kind(slot);
        int length = slot.lengthSlot() == null ? 0 : number(slot.lengthSlot(), lengthAt);
        if (slot.picture().usage() == Usage.FILE) {
            return named(slot, at, kind);
        }
        if (slot.picture().usage() == Usage.BYTES) {
            if (!isLength(slot, at, length)) {
                return null;
            }
            int filled = slot.lengthSlot() == null ? slot.picture().size() : length;
            return text(kind, Arrays.copyOfRange(record, at, at + filled));
        }
        boolean whole = slot.lengthSlot() == null && (kind == ScalarKind.STRING || kind == ScalarKind.NORMALIZED);
        String text = whole ? decoded(slot, at, slot.picture().size()) : filled(slot, at, length);
        if (text == null || kind != ScalarKind.BOOLEAN) {
            return text;
        }
        String flag = text.strip();
        if (!flag.equals(RecordText.TRUE) && !flag.equals(RecordText.FALSE)) {
            wrong(
                    "record-flag",
                    slot,
                    at,
                    "\"" + Printable.of(text, SHOWN) + "\" is neither Y nor N",
                    "move Y or N there");
            return null;
        }
        return flag.equals(RecordText.TRUE) ? "true" : "false";
    }

    private static String text(ScalarKind kind, byte[] bytes) {
        return kind == ScalarKind.HEX
                ? HexFormat.of().withUpperCase().formatHex(bytes)
                : Base64.getEncoder().encodeToString(bytes);
    }

    /** The text in XML of the bytes in the file that a field names. */
    private String named(Slot slot, int at, ScalarKind kind) {
        String name = decoded(slot, at, slot.picture().size());
        if (name == null) {
            return null;
        }
        if (name.isBlank()) {
            wrong("record-file", slot, at, "it names no file", "move the name of the file with the bytes there");
            return null;
        }
        try {
            return text(kind, form.files().read(name.strip()));
        } catch (IOException e) {
            wrong("record-file", slot, at, Printable.of(String.valueOf(e.getMessage())), FOLDER);
            return null;
        }
    }

    /** Puts the value for which a text in XML stands into a field. */
    void put(Slot slot, int at, int lengthAt, String text) {
        ScalarKind kind = kind(slot);
        if (slot.picture().isNumber()) {
            putDecimal(slot, at, text.strip());
        } else if (slot.picture().usage() == Usage.BYTES || slot.picture().usage() == Usage.FILE) {
            putBytes(slot, at, lengthAt, kind, text);
        } else if (kind == ScalarKind.BOOLEAN) {
            put(slot, at, text.strip().matches("true|1") ? RecordText.TRUE : RecordText.FALSE);
        } else {
            boolean kept = kind == ScalarKind.STRING || kind == ScalarKind.NORMALIZED || kind == ScalarKind.NAMES;
            String value = kept || slot.kind() == Slot.Kind.DOCUMENT ? text : Lexical.collapse(text);
            if (kind == ScalarKind.FLOAT || kind == ScalarKind.DOUBLE) {
                value = shortest(value, slot.picture().size());
            }
            int length = put(slot, at, value);
            if (slot.lengthSlot() != null) {
                putNumber(slot.lengthSlot(), lengthAt, length);
            }
        }
    }

    /** A number with exponent, with fewer letters when it has too many. */
    private static String shortest(String number, int most) {
        try {
            return number.length() > most ? String.valueOf(Double.parseDouble(number)) : number;
        } catch (NumberFormatException e) {
            return number;
        }
    }

    void putDecimal(Slot slot, int at, String text) {
        if (text.length() > LONGEST_NUMBER) {
            wrong("record-overflow", slot, at, "a number of " + text.length() + " letters", "");
            return;
        }
        try {
            BigDecimal number = new BigDecimal(text);
            new NumberField(slot.picture(), form).put(number, record, at);
        } catch (NumberFormatException e) {
            wrong("record-value", slot, at, "the text of the message is no number", "");
        } catch (NumberField.Refused e) {
            wrong(
                    "record-overflow",
                    slot,
                    at,
                    e.getMessage(),
                    "give it more room: digits: or decimals: in a rule, below cobol:");
        }
    }

    private void putBytes(Slot slot, int at, int lengthAt, ScalarKind kind, String text) {
        byte[] bytes;
        try {
            bytes = kind == ScalarKind.HEX
                    ? HexFormat.of().parseHex(text.strip())
                    : Base64.getMimeDecoder().decode(text);
        } catch (IllegalArgumentException e) {
            wrong("record-value", slot, at, "the text of the message stands for no bytes", "");
            return;
        }
        if (slot.picture().usage() == Usage.FILE) {
            putFile(slot, at, bytes);
        } else if (fits(slot, at, bytes.length)) {
            System.arraycopy(bytes, 0, record, at, bytes.length);
            if (slot.lengthSlot() != null) {
                putNumber(slot.lengthSlot(), lengthAt, bytes.length);
            }
        }
    }

    private void putFile(Slot slot, int at, byte[] bytes) {
        try {
            String name = form.files().keep(bytes);
            kept.add(name);
            put(slot, at, name);
        } catch (IOException e) {
            wrong("record-file", slot, at, String.valueOf(e.getMessage()), FOLDER);
        }
    }

    /** Takes back the files that were written for a record which is none. */
    void forget() {
        kept.forEach(form.files()::forget);
    }

    private boolean fits(Slot slot, int at, int length) {
        if (length <= slot.picture().size()) {
            return true;
        }
        wrong(
                "record-overflow",
                slot,
                at,
                length + " bytes, and the field has room for " + slot.picture().size(),
                "give it more room: room: " + length + " in a rule, below cobol:");
        return false;
    }

    /** Puts a text into a field; gives its length in bytes. */
    private int put(Slot slot, int at, String text) {
        byte[] bytes;
        try {
            bytes = form.encoded(text);
        } catch (CharacterCodingException e) {
            wrong(
                    "record-character",
                    slot,
                    at,
                    "\"" + Printable.of(text, SHOWN) + "\" has characters that "
                            + form.charset().name() + " lacks",
                    "use another code page");
            return 0;
        }
        if (fits(slot, at, bytes.length)) {
            Arrays.fill(record, at, at + slot.picture().size(), form.blank());
            System.arraycopy(bytes, 0, record, at, bytes.length);
        }
        return bytes.length;
    }

    /** Whether a field holds qualified names: one, several with blanks between, or one of some. */
    static boolean isNames(Slot slot) {
        ApiValue value = slot.member() == null ? null : slot.member().value().plain();
        ApiValue item = value instanceof ApiValue.Items items ? items.item().plain() : value;
        return item instanceof ApiValue.Scalar scalar && scalar.kind() == ScalarKind.QNAME
                || item instanceof ApiValue.Enumerated enumerated
                        && enumerated.type().base() == ScalarKind.QNAME;
    }

    /** The kind of value in a field; text for what is several or none. */
    static ScalarKind kind(Slot slot) {
        ApiValue value = slot.member() == null ? null : slot.member().value().plain();
        if (value instanceof ApiValue.Scalar scalar) {
            return scalar.kind();
        }
        return slot.kind() == Slot.Kind.DOCUMENT ? ScalarKind.STRING : ScalarKind.TOKEN;
    }

    /** Fills a field with what it has when nothing is in it: blanks or zero. */
    void clear(Slot slot, int at) {
        if (slot.picture().isNumber()) {
            putNumber(slot, at, 0);
        } else {
            byte fill = slot.picture().usage() == Usage.BYTES ? 0 : form.blank();
            Arrays.fill(record, at, at + slot.picture().size(), fill);
        }
    }
}
