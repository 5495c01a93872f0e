package org.protypos.runtime.xml;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;

/**
 * The values of a message in the SOAP encoding that stand in several places: they are written once and referred to (SOAP
 * 1.1, section 5.4.1), and are one value again for whoever reads the message.
 */
public final class SharedValues {
    private final Map<XmlObject, String> met = new IdentityHashMap<>();
    private final List<XmlObject> shared = new ArrayList<>();
    private final Map<String, XmlObject> read = new HashMap<>();

    /** Notes that a value is about to be written, and tells whether it was before. */
    boolean meet(XmlObject value) {
        if (!met.containsKey(value)) {
            met.put(value, null);
            return false;
        }
        if (met.get(value) == null) {
            shared.add(value);
            met.put(value, "v" + shared.size());
        }
        return true;
    }

    /** The identifier of a value that stands in several places, or null. */
    String id(XmlObject value) {
        return met.get(value);
    }

    /** The values that stand in several places. */
    List<XmlObject> all() {
        return shared;
    }

    /** The value that was read under an identifier, or null when none was. */
    XmlObject known(String id) {
        return read.get(id);
    }

    /** Keeps a value that was read under an identifier. */
    void keep(String id, XmlObject value) {
        read.put(id, value);
    }
}
