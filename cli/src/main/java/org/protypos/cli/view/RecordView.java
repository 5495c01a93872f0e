package org.protypos.cli.view;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.List;
import java.util.Locale;
import org.protypos.cli.terminal.Terminal;
import org.protypos.layout.Picture;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.Slot;

/** Shows records of fixed length: each field with its offset, its length and its form. */
public final class RecordView {
    private final List<RecordLayout> records;

    /** Shows the records of a contract. */
    public RecordView(List<RecordLayout> records) {
        this.records = records;
    }

    /** Prints them for people. */
    public void text(PrintWriter out) {
        for (RecordLayout record : records) {
            out.println(Terminal.bold("record ") + record.name() + Terminal.dim("  " + record.length() + " bytes"));
            out.println(Terminal.dim("  offset length"));
            for (RecordLayout.Placed placed : record.placed()) {
                Slot slot = placed.slot();
                String name = "  ".repeat(placed.depth()) + slot.name();
                out.println(String.format(
                                Locale.ROOT,
                                "  %6d %6d  %-46s %s",
                                placed.offset(),
                                slot.wholeLength(),
                                name,
                                form(slot))
                        .stripTrailing());
            }
            out.println();
        }
    }

    private static String form(Slot slot) {
        StringBuilder form = new StringBuilder();
        if (slot.area() != null) {
            form.append("shares ").append(slot.area().name());
        }
        if (slot.picture() != null && slot.kind() != Slot.Kind.AREA) {
            form.append(inWords(slot.picture()));
        }
        if (slot.count() != null) {
            form.append(form.isEmpty() ? "" : ", ")
                    .append(slot.isVarying() ? "up to " : "")
                    .append(slot.times())
                    .append(" times");
        }
        if (slot.kind() == Slot.Kind.DOCUMENT) {
            form.append(", XML");
        }
        return form.toString();
    }

    private static String inWords(Picture picture) {
        String kind =
                switch (picture.usage()) {
                    case TEXT -> "text";
                    case BYTES -> "bytes";
                    case FILE -> "file named in text";
                    case ZONED -> "zoned";
                    case PACKED -> "packed";
                    case BINARY -> "binary";
                };
        if (!picture.isNumber()) {
            return kind + " " + picture.size();
        }
        return kind + " " + (picture.size() - picture.decimals())
                + (picture.decimals() > 0 ? "." + picture.decimals() : "") + (picture.signed() ? " signed" : "");
    }

    /** Writes them as a field of the object that is open. */
    public void json(JsonGenerator document) throws IOException {
        document.writeArrayFieldStart("records");
        for (RecordLayout record : records) {
            document.writeStartObject();
            document.writeStringField("name", record.name());
            document.writeNumberField("length", record.length());
            document.writeArrayFieldStart("fields");
            for (RecordLayout.Placed placed : record.placed()) {
                Slot slot = placed.slot();
                document.writeStartObject();
                document.writeStringField("name", slot.name());
                document.writeNumberField("depth", placed.depth());
                document.writeNumberField("offset", placed.offset());
                document.writeNumberField("length", slot.length());
                document.writeNumberField("times", slot.times());
                document.writeStringField("form", form(slot));
                document.writeEndObject();
            }
            document.writeEndArray();
            document.writeEndObject();
        }
        document.writeEndArray();
    }
}
