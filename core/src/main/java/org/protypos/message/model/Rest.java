package org.protypos.message.model;

/** Parts of a content model that come one after the other: what is left when an element has come. */
final class Rest {
    /** Nothing is left. */
    static final Rest NONE = new Rest(null, null);

    private final ContentPart first;
    private final Rest then;

    Rest(ContentPart first, Rest then) {
        this.first = first;
        this.then = then;
    }

    ContentPart first() {
        return first;
    }

    Rest then() {
        return then;
    }

    /** Whether nothing of it has to come. */
    boolean isComplete() {
        Rest at = this;
        while (at != NONE && at.first.isComplete()) {
            at = at.then;
        }
        return at == NONE;
    }
}
