package org.protypos.naming;

import org.protypos.diagnostic.Place;

/** What somebody wants to be called otherwise than it would be, or not to be there at all. */
public interface Renaming {
    /** Nothing is renamed. */
    Renaming NONE = new Renaming() {
        @Override
        public String packageOf(String namespace, String plain) {
            return plain;
        }

        @Override
        public Wish nameOf(Subject subject, String plain) {
            return null;
        }
    };

    /**
     * The package for a namespace.
     *
     * @param plain the package that it would have
     */
    String packageOf(String namespace, String plain);

    /**
     * The name for a component, or null when nobody wants another than the plain one.
     *
     * @param plain the name that it would have
     */
    Wish nameOf(Subject subject, String plain);

    /** Whether nobody wants to have a component at all. */
    default boolean isOmitted(Subject subject) {
        return false;
    }

    /** How a component is called when one talks about it. */
    default String shown(Subject subject) {
        return subject.designator();
    }

    /**
     * A name that somebody wants.
     *
     * @param place where it is wanted
     * @param firm whether it is wrong to give another name
     */
    record Wish(String name, Place place, boolean firm) {}
}
