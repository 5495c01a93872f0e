package org.protypos.record;

import java.math.BigDecimal;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.layout.RecordText;
import org.protypos.layout.Slot;

/** Dates and times that records keep as the numbers that they are made of (XML Schema Part 2, section 3.2.7 to 3.2.9). */
final class Moments {
    private static final Pattern TEXT = Pattern.compile("(?:(?<year>-?\\d{4,})-(?<month>\\d\\d)-(?<day>\\d\\d))?T?"
            + "(?:(?<hour>\\d\\d):(?<minute>\\d\\d):(?<second>\\d\\d(?:\\.\\d+)?))?(?<zone>Z|[+-]\\d\\d:\\d\\d)?");
    private static final List<String> PARTS = List.of(
            RecordText.YEAR,
            RecordText.MONTH,
            RecordText.DAY,
            RecordText.HOUR,
            RecordText.MINUTE,
            RecordText.SECOND,
            RecordText.ZONE);

    private final FieldValues values;

    Moments(FieldValues values) {
        this.values = values;
    }

    private static String part(Slot field) {
        return PARTS.stream()
                .filter(part -> field.wanted().endsWith(" " + part))
                .findFirst()
                .orElseThrow();
    }

    /** Puts what a text in XML says into the fields. */
    void put(Slot slot, int at, String text) {
        Matcher moment = TEXT.matcher(text);
        if (!moment.matches()) {
            values.wrong("record-value", slot, at, "the text of the message is no date and no time", "");
            return;
        }
        for (Slot field : slot.children()) {
            String part = moment.group(part(field));
            if (field.picture().isNumber()) {
                values.putDecimal(field, at + field.offset(), part == null ? "0" : part);
            } else {
                values.putFlag(field, at + field.offset(), part == null ? "" : part);
            }
        }
    }

    /** The text in XML of what stands in the fields, or null when something is wrong with one, which is told. */
    String get(Slot slot, int at) {
        Map<String, String> texts = new HashMap<>();
        boolean sound = true;
        for (Slot field : slot.children()) {
            String text = values.get(field, at + field.offset(), 0);
            sound &= text != null;
            texts.put(part(field), text == null || !field.picture().isNumber() ? text : padded(part(field), text));
        }
        if (!sound) {
            return null;
        }
        String date = texts.containsKey(RecordText.YEAR)
                ? texts.get(RecordText.YEAR) + "-" + texts.get(RecordText.MONTH) + "-" + texts.get(RecordText.DAY)
                : "";
        String time = texts.containsKey(RecordText.HOUR)
                ? texts.get(RecordText.HOUR) + ":" + texts.get(RecordText.MINUTE) + ":" + texts.get(RecordText.SECOND)
                : "";
        return date + (date.isEmpty() || time.isEmpty() ? "" : "T") + time + texts.get(RecordText.ZONE);
    }

    private static String padded(String part, String text) {
        BigDecimal number = new BigDecimal(text);
        String whole =
                String.format(Locale.ROOT, part.equals(RecordText.YEAR) ? "%04d" : "%02d", number.toBigInteger());
        BigDecimal rest = number.remainder(BigDecimal.ONE);
        return rest.signum() == 0 ? whole : whole + rest.abs().toPlainString().substring(1);
    }
}
