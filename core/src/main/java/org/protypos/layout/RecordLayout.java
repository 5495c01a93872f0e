package org.protypos.layout;

import java.util.ArrayList;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.api.ApiFault;
import org.protypos.api.ApiMessage;
import org.protypos.api.ApiOperation;
import org.protypos.api.type.Member;
import org.protypos.api.type.StructuredType;

/**
 * The record for one message.
 *
 * @param name the name of the record
 * @param part which message of the operation it is for
 * @param root the record as a group
 * @param operation the operation, or null for an element
 * @param message the message, or null for a fault
 * @param fault the fault, or null
 */
public record RecordLayout(
        String name, Part part, Slot root, ApiOperation operation, ApiMessage message, ApiFault fault) {
    /** So long is a record at most, in bytes. */
    public static final int LARGEST = 1_000_000;

    /** Which message a record is for. */
    public enum Part {
        REQUEST,
        RESPONSE,
        FAULT,
        /** None: the record is for a global element. */
        ELEMENT,
        /** None: the record says how a call went. */
        STATUS
    }

    /** The element that it is for, when it is for one alone: a global element or the detail of a fault; null otherwise. */
    public QName element() {
        return part == Part.REQUEST || part == Part.RESPONSE
                ? null
                : root.children().get(root.children().size() - 1).xmlName();
    }

    /** Whether what is in the body of the message are the members of an element around them. */
    public boolean isWrapped() {
        return message != null
                && message.wrapper() != null
                && (message.body() == null || message.body().kind() != Member.Kind.GROUP);
    }

    /** The element in the body of the message, or in the detail of the fault; null for none. */
    public QName body() {
        return message == null
                ? element()
                : message.body() == null ? null : message.body().xmlName();
    }

    /**
     * Whether the record is for a message of which nothing but the type tells what it is.
     *
     * @param type the type of the body itself, or of a document without an envelope
     * @param enveloped whether it comes in an envelope
     */
    public boolean isOf(QName type, boolean enveloped) {
        if (message == null || message.body() == null) {
            return false;
        }
        StructuredType structure = message.body().value().structure();
        boolean group = message.body().kind() == Member.Kind.GROUP;
        return structure != null && group == enveloped && type.equals(structure.typeName());
    }

    /** Whether a slot of the record holds a header block. */
    public boolean isHeader(Slot slot) {
        return message != null && slot.member() != null && message.headers().contains(slot.member());
    }

    /** Its length in bytes; the longest of one that ends with the last of its entries. */
    public int length() {
        return root.length();
    }

    /** The entries with which the record ends when no more are there, or null when it always has the same length. */
    public Placed varying() {
        int offset = 0;
        Slot slot = root;
        for (int depth = 0; !slot.children().isEmpty(); depth++) {
            slot = slot.children().get(slot.children().size() - 1);
            offset += slot.offset();
            if (slot.isVarying()) {
                return new Placed(slot, depth, offset);
            }
        }
        return null;
    }

    /** Its length in bytes when nothing is there that may be absent from it. */
    public int leastLength() {
        Placed last = varying();
        return last == null ? length() : last.offset();
    }

    /** Whether a record has one of the lengths that it may have. */
    public boolean fits(int bytes) {
        Placed last = varying();
        return bytes == length()
                || last != null
                        && bytes >= last.offset()
                        && bytes < length()
                        && (bytes - last.offset()) % last.slot().length() == 0;
    }

    /**
     * A slot with what leads there.
     *
     * @param depth how many groups are around it, the record itself not counted
     * @param offset where its first entry begins in the record
     */
    public record Placed(Slot slot, int depth, int offset) {}

    /** All slots of it in order, groups before what is in them. */
    public List<Placed> placed() {
        List<Placed> all = new ArrayList<>();
        collect(root, 0, 0, all);
        return all;
    }

    private static void collect(Slot group, int depth, int offset, List<Placed> all) {
        for (Slot child : group.children()) {
            all.add(new Placed(child, depth, offset + child.offset()));
            collect(child, depth + 1, offset + child.offset(), all);
        }
    }
}
