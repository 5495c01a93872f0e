package org.protypos.record;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.Locale;
import org.protypos.layout.Picture;
import org.protypos.layout.Usage;

/** Numbers in the bytes of records, exactly: packed, zoned and binary. What does not fit, or is no number, is refused. */
final class NumberField {
    private static final int POSITIVE = 0xC;
    private static final int NEGATIVE = 0xD;
    private static final int UNSIGNED = 0xF;
    /** What is added to the last digit of a negative zoned number in ASCII. */
    private static final int NEGATIVE_ASCII = 0x70;

    private final Picture picture;
    private final RecordForm form;

    NumberField(Picture picture, RecordForm form) {
        this.picture = picture;
        this.form = form;
    }

    /** A field holds no number, or a number does not fit. */
    static final class Refused extends Exception {
        private static final long serialVersionUID = 1L;

        Refused(String message) {
            super(message);
        }
    }

    void put(BigDecimal number, byte[] record, int at) throws Refused {
        if (number.signum() < 0 && !picture.signed()) {
            throw new Refused("the field holds no negative numbers");
        }
        BigDecimal plain = number.stripTrailingZeros();
        if (plain.scale() > picture.decimals()) {
            throw new Refused(plain.scale() + " digits behind the point, and the field has " + picture.decimals());
        }
        if (plain.precision() - (long) plain.scale() > picture.size() - picture.decimals() && plain.signum() != 0) {
            throw new Refused((plain.precision() - (long) plain.scale())
                    + " digits before the point, and the field has " + (picture.size() - picture.decimals()));
        }
        BigInteger digits = plain.setScale(picture.decimals()).unscaledValue();
        if (picture.usage() == Usage.BINARY) {
            putBinary(digits, record, at);
            return;
        }
        String text = digits.abs().toString();
        String all = "0".repeat(picture.size() - text.length()) + text;
        if (picture.usage() == Usage.PACKED) {
            putPacked(all, digits.signum(), record, at);
        } else {
            putZoned(all, digits.signum(), record, at);
        }
    }

    private void putBinary(BigInteger number, byte[] record, int at) {
        long bits = number.longValueExact();
        int length = picture.length();
        for (int i = 0; i < length; i++) {
            int place = form.littleEndian() ? at + i : at + length - 1 - i;
            record[place] = (byte) (bits >> (8 * i));
        }
    }

    private int sign(int signum) {
        return !picture.signed() ? UNSIGNED : signum < 0 ? NEGATIVE : POSITIVE;
    }

    private void putPacked(String digits, int signum, byte[] record, int at) {
        int length = picture.length();
        String filled = "0".repeat(length * 2 - 1 - digits.length()) + digits;
        for (int i = 0; i < length; i++) {
            int high = filled.charAt(2 * i) - '0';
            int low = i == length - 1 ? sign(signum) : filled.charAt(2 * i + 1) - '0';
            record[at + i] = (byte) (high << 4 | low);
        }
    }

    private void putZoned(String digits, int signum, byte[] record, int at) {
        int last = digits.length() - 1;
        byte zero = form.zero();
        for (int i = 0; i <= last; i++) {
            record[at + i] = (byte) (zero + digits.charAt(i) - '0');
        }
        int digit = digits.charAt(last) - '0';
        if (picture.signed() && form.isEbcdic()) {
            record[at + last] = (byte) (sign(signum) << 4 | digit);
        } else if (picture.signed() && signum < 0) {
            record[at + last] = (byte) (NEGATIVE_ASCII + digit);
        }
    }

    BigDecimal get(byte[] record, int at) throws Refused {
        BigInteger digits =
                switch (picture.usage()) {
                    case BINARY -> binary(record, at);
                    case PACKED -> packed(record, at);
                    default -> zoned(record, at);
                };
        if (digits.signum() < 0 && !picture.signed()) {
            throw new Refused("the field holds no negative numbers");
        }
        return new BigDecimal(digits, picture.decimals());
    }

    private BigInteger binary(byte[] record, int at) {
        int length = picture.length();
        byte[] bytes = new byte[length];
        for (int i = 0; i < length; i++) {
            bytes[form.littleEndian() ? length - 1 - i : i] = record[at + i];
        }
        return picture.signed() ? new BigInteger(bytes) : new BigInteger(1, bytes);
    }

    private BigInteger packed(byte[] record, int at) throws Refused {
        StringBuilder digits = new StringBuilder();
        int length = picture.length();
        for (int i = 0; i < length; i++) {
            int high = record[at + i] >> 4 & 0xF;
            int low = record[at + i] & 0xF;
            if (high > 9 || i < length - 1 && low > 9 || i == length - 1 && low < 10) {
                throw new Refused("the bytes " + hex(record, at, length) + " are no packed number");
            }
            digits.append((char) ('0' + high));
            if (i < length - 1) {
                digits.append((char) ('0' + low));
            }
        }
        int sign = record[at + length - 1] & 0xF;
        BigInteger number = new BigInteger(digits.toString());
        return sign == NEGATIVE || sign == 0xB ? number.negate() : number;
    }

    private BigInteger zoned(byte[] record, int at) throws Refused {
        StringBuilder digits = new StringBuilder();
        boolean negative = false;
        int zero = form.zero() & 0xFF;
        int last = picture.size() - 1;
        for (int i = 0; i <= last; i++) {
            int c = record[at + i] & 0xFF;
            int digit = c - zero;
            if (i == last && (digit < 0 || digit > 9) && picture.signed()) {
                int zone = c >> 4;
                boolean signed = form.isEbcdic() ? zone >= 0xA : c >= NEGATIVE_ASCII && c <= NEGATIVE_ASCII + 9;
                digit = signed ? c & 0xF : -1;
                negative = form.isEbcdic() ? zone == NEGATIVE || zone == 0xB : signed;
            }
            if (digit < 0 || digit > 9) {
                throw new Refused("the bytes " + hex(record, at, picture.size()) + " are no number of digits");
            }
            digits.append((char) ('0' + digit));
        }
        BigInteger number = new BigInteger(digits.toString());
        return negative ? number.negate() : number;
    }

    private static String hex(byte[] record, int at, int length) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < length; i++) {
            text.append(String.format(Locale.ROOT, "%02X", record[at + i]));
        }
        return text.toString();
    }
}
