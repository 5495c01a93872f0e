package org.protypos.infer;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;

/** All that has been observed: global elements, types that instances name, and structures by where they stand. */
final class Observations {
    /** Of more, nobody could read the schema. */
    static final int MOST_STRUCTURES = 50_000;

    final Map<QName, Declaration> globals = new LinkedHashMap<>();
    final Map<QName, Structure> types = new LinkedHashMap<>();

    /** Attributes of other namespaces than that of the structure they stand in: they are global. */
    final Map<QName, ObservedValue> attributes = new LinkedHashMap<>();

    private final Map<Standing, Structure> locals = new HashMap<>();

    /** Where a local element stands: what is inside depends on that, and on nothing further out. */
    private record Standing(QName owner, boolean ofType, String home, QName name) {}

    Declaration global(QName name) {
        Declaration known = globals.get(name);
        if (known == null) {
            Structure structure = new Structure(name, false, name.getNamespaceURI(), name.getLocalPart());
            structure.isGlobal = true;
            known = new Declaration(name, structure);
            globals.put(name, known);
        }
        return known;
    }

    Structure type(QName name) {
        return types.computeIfAbsent(
                name, one -> new Structure(name, true, name.getNamespaceURI(), name.getLocalPart()));
    }

    /** The declaration of a child; one of another namespace than its owner's local elements is a global element too. */
    Declaration child(Structure owner, QName name) {
        Declaration known = owner.children.get(name);
        if (known == null) {
            String at = owner.name.getLocalPart() + "/" + name.getLocalPart();
            String namespace = name.getNamespaceURI();
            Structure plain = isForeign(owner, namespace)
                    ? global(name).plain()
                    : locals.computeIfAbsent(
                            new Standing(owner.name, owner.isType, owner.home, name),
                            one -> new Structure(name, false, owner.home, at));
            known = new Declaration(name, plain);
            owner.children.put(name, known);
        }
        return known;
    }

    /** Makes a local element a global one too, for those who are of another namespace. */
    void alsoGlobal(Declaration local) {
        Declaration global = global(local.name);
        global.addAll(local);
        global.plain().merge(local.plain());
    }

    /**
     * Declares globally what has come into structures of another namespace than its own, as these were brought together: what is local in
     * one of them can only be referred to in another.
     */
    void declareForeign() {
        boolean changed;
        do {
            changed = false;
            for (Structure structure : Reachable.of(this).structures()) {
                for (Declaration child : List.copyOf(structure.children.values())) {
                    Declaration global = globals.get(child.name);
                    if (isForeign(structure, child.name.getNamespaceURI())
                            && (global == null || global.plain() != child.plain())) {
                        alsoGlobal(child);
                        changed = true;
                    }
                }
                structure.attributes.forEach((name, observed) -> {
                    if (isForeign(structure, name.getNamespaceURI())) {
                        ObservedValue known = attributes.computeIfAbsent(name, one -> new ObservedValue());
                        if (!known.covers(observed.values)) {
                            known.addAll(observed.values);
                        }
                    }
                });
            }
        } while (changed);
    }

    /** Whether a name of some namespace is none of a local element. */
    static boolean isForeign(Structure owner, String namespace) {
        return !namespace.isEmpty() && !namespace.equals(owner.home);
    }

    boolean areTooMany() {
        return locals.size() + globals.size() + types.size() + attributes.size() > MOST_STRUCTURES;
    }
}
