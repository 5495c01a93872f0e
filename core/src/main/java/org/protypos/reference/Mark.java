package org.protypos.reference;

/** What became of something between two contracts. */
public enum Mark {
    /** It is as it was. */
    SAME,
    ADDED,
    REMOVED,
    /** Something else is said of it. */
    CHANGED,
    /** It stands elsewhere among those around it. */
    MOVED
}
