package org.protypos.target.cobol;

import java.util.ArrayList;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.Member;
import org.protypos.layout.Picture;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.Slot;
import org.protypos.target.SourceFile;

/** Writes the copybook for a record (ISO/IEC 1989:2014, section 13.16: data description entries). */
final class CopybookEmitter {
    /** Level numbers end here; those of groups leave room for additions as long as that is so. */
    static final int LAST_LEVEL = 49;

    private static final int STEP = 5;
    private static final int NAMES = 24;
    private static final int MOST_INDENT = 16;

    private final CobolFile file;
    private final int step;

    private CopybookEmitter(CobolFile file, int depth) {
        this.file = file;
        this.step = (depth + 1) * STEP <= LAST_LEVEL ? STEP : 1;
    }

    static SourceFile emit(String path, RecordLayout record, String about) {
        CobolFile file = new CobolFile(path, true);
        file.comment(about + ", " + (record.varying() == null ? "" : record.leastLength() + " to ") + record.length()
                + (record.length() == 1 ? " byte." : " bytes."));
        int depth = record.placed().stream()
                        .mapToInt(RecordLayout.Placed::depth)
                        .max()
                        .orElse(0)
                + 1;
        file.heading("01  " + record.name() + ".");
        CopybookEmitter emitter = new CopybookEmitter(file, depth);
        record.root().children().forEach(child -> emitter.write(child, 0));
        return file.finish();
    }

    private void write(Slot slot, int depth) {
        int level = step == 1 ? depth + 2 : (depth + 1) * STEP;
        int indent = Math.min(MOST_INDENT, depth * 2);
        String about = about(slot);
        if (!about.isEmpty()) {
            file.comment(about);
        }
        List<String> clauses = new ArrayList<>();
        String number = level < 10 ? "0" + level : String.valueOf(level);
        boolean bare = slot.picture() == null && slot.area() == null && slot.times() == 1;
        clauses.add(number + "  " + (bare ? slot.name() : padded(slot.name(), indent)));
        if (slot.area() != null) {
            clauses.add("REDEFINES");
            clauses.add(slot.area().name());
        }
        if (slot.picture() != null) {
            clauses.add("PIC " + picture(slot.picture()));
            switch (slot.picture().usage()) {
                case PACKED -> clauses.add("PACKED-DECIMAL");
                case BINARY -> clauses.add("BINARY");
                case TEXT, BYTES, FILE, ZONED -> {}
            }
        }
        if (slot.times() > 1 || slot.count() != null) {
            clauses.add("OCCURS " + (slot.isVarying() ? "0 TO " : "") + slot.times() + " TIMES");
            if (slot.isVarying()) {
                clauses.add("DEPENDING ON " + slot.count().name());
            }
        }
        int last = clauses.size() - 1;
        clauses.set(last, clauses.get(last).stripTrailing() + ".");
        file.clauses(indent, clauses);
        for (Slot.Condition condition : slot.conditions()) {
            condition(condition, slot.picture(), indent + 4);
        }
        slot.children().forEach(child -> write(child, depth + 1));
    }

    private static String padded(String name, int indent) {
        int width = Math.max(NAMES - indent, 0);
        return name.length() >= width ? name : name + " ".repeat(width - name.length());
    }

    private void condition(Slot.Condition condition, Picture picture, int indent) {
        String value = condition.value();
        String literal = picture.isNumber() ? value : "\"" + value.replace("\"", "\"\"") + "\"";
        String clause = "VALUE " + literal + ".";
        if (clause.length() > CobolFile.LONGEST_CLAUSE || !value.equals(CobolFile.plain(value))) {
            file.comment("(a value of it is " + CobolFile.plain(value) + ")");
            return;
        }
        file.clauses(indent, List.of("88  " + padded(condition.name(), indent), clause));
    }

    /** What a field is for, for who reads the copybook: where its value is in XML, of what type, and what is said of it. */
    private static String about(Slot slot) {
        Member member = slot.member();
        if (member == null || member.xmlName() == null) {
            return slot.kind() == Slot.Kind.DOCUMENT ? "XML" : member == null ? slot.remark() : "";
        }
        StringBuilder about = new StringBuilder();
        about.append(member.kind() == Member.Kind.ATTRIBUTE ? "@" : "<")
                .append(member.xmlName().getLocalPart())
                .append(member.kind() == Member.Kind.ATTRIBUTE ? "" : ">");
        String type = typeOf(member.value().plain());
        about.append(type.isEmpty() ? "" : " " + type).append(slot.remark().isEmpty() ? "" : ", " + slot.remark());
        String said =
                member.documentation() == null ? "" : member.documentation().strip();
        return said.isEmpty() ? about.toString() : about + ": " + said.replaceAll("\\s+", " ");
    }

    private static String typeOf(ApiValue value) {
        if (value instanceof ApiValue.Scalar scalar) {
            return "xs:" + scalar.kind().builtin().local();
        }
        if (value instanceof ApiValue.Items items) {
            return "list of " + typeOf(items.item());
        }
        if (value instanceof ApiValue.Enumerated enumerated) {
            return enumerated.type().typeName() == null
                    ? "xs:" + enumerated.type().base().builtin().local()
                    : enumerated.type().typeName().getLocalPart();
        }
        QName name = value.structure() == null ? null : value.structure().typeName();
        return name == null ? "" : name.getLocalPart();
    }

    /** The characters of a picture. */
    static String picture(Picture picture) {
        if (!picture.isNumber()) {
            return "X(" + picture.size() + ")";
        }
        int whole = picture.size() - picture.decimals();
        return (picture.signed() ? "S" : "")
                + (whole > 0 ? "9(" + whole + ")" : "")
                + (picture.decimals() > 0 ? "V9(" + picture.decimals() + ")" : "");
    }
}
