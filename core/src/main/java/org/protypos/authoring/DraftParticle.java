package org.protypos.authoring;

import java.util.List;
import java.util.function.Consumer;
import javax.xml.namespace.QName;

/** What a content model that is to be written is made of. */
public sealed interface DraftParticle {
    /** No limit to how often something stands. */
    int UNBOUNDED = -1;

    /** How often it stands at least. */
    int least();

    /** How often it stands at most, or {@link #UNBOUNDED}. */
    int most();

    /** Does what is to be done in the case that it is. */
    void act(Consumer<Element> element, Consumer<Anything> anything, Consumer<Group> group);

    /**
     * An element.
     *
     * @param name its name; one of another namespace is a reference
     * @param value its type; null for a reference
     * @param isReference whether it is a global element of the same namespace
     * @param preset what it is where nothing is written, or null
     * @param documentation what is said of it, or null
     * @param inline its type when that has no name, otherwise null
     */
    record Element(
            QName name,
            DraftValue value,
            int least,
            int most,
            boolean isNillable,
            boolean isReference,
            Preset preset,
            String documentation,
            DraftType.Complex inline)
            implements DraftParticle {
        /** An element of a type that has a name, or of values. */
        public Element(
                QName name,
                DraftValue value,
                int least,
                int most,
                boolean isNillable,
                boolean isReference,
                Preset preset,
                String documentation) {
            this(name, value, least, most, isNillable, isReference, preset, documentation, null);
        }

        @Override
        public void act(Consumer<Element> element, Consumer<Anything> anything, Consumer<Group> group) {
            element.accept(this);
        }

        /** A global element of a type that has no name. */
        public static Element inline(QName name, DraftType.Complex type) {
            return new Element(name, null, 1, 1, false, false, null, null, type);
        }

        /** An element that stands alone. */
        public static Element global(QName name, DraftValue value, boolean nillable, String documentation) {
            return new Element(name, value, 1, 1, nillable, false, null, documentation);
        }
    }

    /**
     * Elements of any kind.
     *
     * @param isForeign whether they are of other namespaces, and checked where somebody knows them; otherwise they are of any,
     *     and nothing is checked
     */
    record Anything(int least, int most, boolean isForeign) implements DraftParticle {
        @Override
        public void act(Consumer<Element> element, Consumer<Anything> anything, Consumer<Group> group) {
            anything.accept(this);
        }
    }

    /** Particles together. */
    record Group(Kind kind, int least, int most, List<DraftParticle> particles) implements DraftParticle {
        public Group {
            particles = List.copyOf(particles);
        }

        @Override
        public void act(Consumer<Element> element, Consumer<Anything> anything, Consumer<Group> group) {
            group.accept(this);
        }

        /** Particles one after the other. */
        public static Group sequence(List<DraftParticle> particles) {
            return new Group(Kind.SEQUENCE, 1, 1, particles);
        }
    }

    /** How the particles of a group go together. */
    enum Kind {
        SEQUENCE("sequence"),
        CHOICE("choice"),
        ALL("all");

        private final String tag;

        Kind(String tag) {
            this.tag = tag;
        }

        String tag() {
            return tag;
        }
    }
}
