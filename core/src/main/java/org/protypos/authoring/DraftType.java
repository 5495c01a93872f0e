package org.protypos.authoring;

import java.util.List;
import java.util.function.Consumer;
import javax.xml.namespace.QName;

/** A named type that is to be written. */
public sealed interface DraftType {
    /** Its name. */
    QName name();

    /** What is said of it, or null. */
    String documentation();

    /** Does what is to be done in the case that it is. */
    void act(Consumer<Simple> simple, Consumer<Complex> complex);

    /** A simple type. */
    record Simple(QName name, DraftValue value, String documentation) implements DraftType {
        @Override
        public void act(Consumer<Simple> simple, Consumer<Complex> complex) {
            simple.accept(this);
        }
    }

    /**
     * A complex type.
     *
     * @param base the complex type that it extends, or null
     * @param text the type of its text when it has simple content, otherwise null
     * @param content its elements, or null when there are none
     * @param takesAnyAttributes whether attributes of any name may stand there
     */
    record Complex(
            QName name,
            QName base,
            boolean isAbstract,
            boolean isMixed,
            DraftValue text,
            DraftParticle.Group content,
            boolean takesAnyAttributes,
            List<DraftAttribute> attributes,
            String documentation)
            implements DraftType {
        public Complex {
            attributes = List.copyOf(attributes);
        }

        @Override
        public void act(Consumer<Simple> simple, Consumer<Complex> complex) {
            complex.accept(this);
        }
    }
}
