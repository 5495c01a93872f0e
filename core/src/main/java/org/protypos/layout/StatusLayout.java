package org.protypos.layout;

import java.util.LinkedHashMap;
import java.util.Map;

/** The record that says how a call went, alike for all operations; the record of the answer follows it. */
public final class StatusLayout extends CommonLayout {
    /** What the record is called. */
    public static final String NAME = "CALL-STATUS";

    /** The answer is there. */
    public static final String DONE = "00";
    /** A fault that the contract declares is there. */
    public static final String FAULT = "04";
    /** The service refused in another way. */
    public static final String REFUSED = "08";
    /** The request is not what the contract says, and was not sent. */
    public static final String REQUEST = "12";
    /** The answer is not what the contract says, or has no room in its record. */
    public static final String ANSWER = "16";
    /** There was no answer. */
    public static final String FAILED = "20";
    /** The request is kept for a later step; a program says so, the bridge never does. */
    private static final String KEPT = "24";

    private static final int NAME_LENGTH = 30;
    private static final int REASON_LENGTH = 200;

    private final Slot result = field("CALL-RESULT", Picture.text(2), "");
    private final Slot operation =
            field("CALL-OPERATION", Picture.text(NAME_LENGTH), "the operation, as the record of its request is called");
    private final Slot answer = field("CALL-ANSWER", Picture.text(NAME_LENGTH), "the record that follows, or blanks");
    private final Slot length = field("CALL-ANSWER-LENGTH", new Picture(Usage.BINARY, 9, 0, true), "");
    private final Slot reason = field("CALL-REASON", Picture.text(REASON_LENGTH), "what went wrong, for people");

    /** Lays it out. */
    public StatusLayout() {
        super(NAME);
        Map<String, String> results = new LinkedHashMap<>();
        results.put("CALL-DONE", DONE);
        results.put("CALL-FAULT", FAULT);
        results.put("CALL-REFUSED", REFUSED);
        results.put("CALL-REQUEST-WRONG", REQUEST);
        results.put("CALL-ANSWER-WRONG", ANSWER);
        results.put("CALL-FAILED", FAILED);
        results.put("CALL-KEPT", KEPT);
        results.forEach((name, value) -> {
            Slot.Condition condition = new Slot.Condition(name, value);
            condition.setName(name);
            result.add(condition);
        });
    }

    /** The slot for how it went. */
    public Slot result() {
        return result;
    }

    /** The slot for the name of the operation. */
    public Slot operation() {
        return operation;
    }

    /** The slot for the name of the record that follows. */
    public Slot answer() {
        return answer;
    }

    /** The slot for the length of that record. */
    public Slot length() {
        return length;
    }

    /** The slot for what went wrong. */
    public Slot reason() {
        return reason;
    }

    /** How much of a reason has room. */
    public static int reasonLength() {
        return REASON_LENGTH;
    }
}
