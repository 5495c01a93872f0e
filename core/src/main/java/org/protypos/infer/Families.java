package org.protypos.infer;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.source.Xml;

/** Finds the types that instances name at one place, and gives them a base that has what all of them have. */
final class Families {
    private final Observations seen;
    private final Set<Remark> remarks;

    /** Who stands for whom: each leads to another of its family until one leads to itself. */
    private final Map<Structure, Structure> joined = new LinkedHashMap<>();

    Families(Observations seen, Set<Remark> remarks) {
        this.seen = seen;
        this.remarks = remarks;
    }

    /** Structures that stand for each other somewhere, and where. */
    private static final class Family {
        final Set<Structure> types = new LinkedHashSet<>();
        final Set<Structure> plain = new LinkedHashSet<>();
        final Set<Declaration> declarations = new LinkedHashSet<>();

        Set<Structure> all() {
            Set<Structure> all = new LinkedHashSet<>(plain);
            all.addAll(types);
            return all;
        }
    }

    /** Whether no type of ours can stand for all that stands at a declaration. */
    static boolean isAnything(Declaration declaration) {
        boolean builtIn = declaration.types.stream().anyMatch(Families::isBuiltIn);
        return builtIn && (declaration.isPlain || declaration.types.size() > 1)
                || declaration.isPlain
                        && !declaration.types.isEmpty()
                        && declaration.plain().isValue();
    }

    static boolean isBuiltIn(QName type) {
        return type.getNamespaceURI().equals(Xml.XSD);
    }

    void found() {
        Collection<Family> families = families();
        while (families.stream().anyMatch(this::unify)) {
            families = families();
        }
        families.forEach(this::extend);
        seen.types.replaceAll((name, structure) -> structure.merged());
    }

    private Collection<Family> families() {
        joined.clear();
        List<Declaration> declarations = Reachable.of(seen).declarations().stream()
                .filter(Families::needsFamily)
                .toList();
        for (Declaration declaration : declarations) {
            Structure first = type(declaration.types.iterator().next());
            declaration.types.forEach(type -> join(first, type(type)));
            if (declaration.isPlain) {
                join(first, declaration.plain());
            }
        }
        Map<Structure, Family> families = new LinkedHashMap<>();
        for (Declaration declaration : declarations) {
            Family family = families.computeIfAbsent(
                    representative(type(declaration.types.iterator().next())), none -> new Family());
            family.declarations.add(declaration);
            declaration.types.forEach(type -> family.types.add(type(type)));
            if (declaration.isPlain) {
                family.plain.add(declaration.plain());
            }
        }
        return families.values();
    }

    private static boolean needsFamily(Declaration declaration) {
        return !isAnything(declaration)
                && declaration.types.stream().noneMatch(Families::isBuiltIn)
                && (declaration.types.size() > 1 || declaration.isPlain && !declaration.types.isEmpty());
    }

    private Structure type(QName name) {
        return seen.types.get(name).merged();
    }

    private Structure representative(Structure structure) {
        Structure at = joined.computeIfAbsent(structure, one -> one);
        while (joined.get(at) != at) {
            at = joined.get(at);
        }
        return at;
    }

    private void join(Structure one, Structure other) {
        joined.put(representative(other), representative(one));
    }

    /**
     * Children of one name in a family are declared once in the base, so that they are of one kind.
     *
     * @return whether that has changed anything, so that families are others now
     */
    private boolean unify(Family family) {
        Map<QName, Declaration> children = new HashMap<>();
        boolean changed = false;
        for (Structure structure : family.all()) {
            for (Declaration child : List.copyOf(structure.merged().children.values())) {
                Declaration known = children.putIfAbsent(child.name, child);
                if (known != null && known != child) {
                    changed |= known.unify(child);
                }
            }
        }
        return changed;
    }

    private void extend(Family family) {
        List<Structure> types =
                family.types.stream().map(Structure::merged).distinct().toList();
        Structure base = base(family, types);
        List<Structure> derived = types.stream().filter(type -> type != base).toList();
        Set<QName> elements = sharedElements(base, derived, !family.plain.isEmpty() || base.isType);
        Set<QName> attributes = sharedAttributes(base, derived);
        boolean mixed = base.mixes() || derived.stream().anyMatch(Structure::mixes) || areMixed(base, derived);
        for (Structure type : derived) {
            base.share(type, elements, attributes);
            type.base = base;
            type.isMixed = mixed;
        }
        if (base.isOpen) {
            derived.forEach(Structure::close);
        }
        base.children.values().stream()
                .filter(child -> Observations.isForeign(base, child.name.getNamespaceURI()))
                .forEach(seen::alsoGlobal);
        base.isMixed = mixed;
        base.isBase = true;
        base.isAbstract = family.plain.isEmpty() && !base.isType;
        List<String> names =
                derived.stream().map(type -> type.name.getLocalPart()).toList();
        family.declarations.forEach(declaration -> {
            declaration.becomes(base);
            remarks.add(new Remark(
                    Remark.Kind.EXTENSION,
                    base.at.iterator().next(),
                    "base of " + String.join(", ", names),
                    "xsi:type says so",
                    false));
        });
    }

    /** Text here and elements there. */
    private static boolean areMixed(Structure base, List<Structure> derived) {
        List<Structure> all = new ArrayList<>(derived);
        all.add(base);
        return all.stream().anyMatch(Structure::hasElements)
                && all.stream().anyMatch(one -> one.text.isFilled() && !one.text.isBlank());
    }

    /** What instances are like that say no type; or that of the types which all others begin with; or a new one. */
    private Structure base(Family family, List<Structure> types) {
        if (!family.plain.isEmpty()) {
            Structure base = family.plain.iterator().next().merged();
            family.plain.forEach(base::merge);
            return base.merged();
        }
        for (Structure candidate : types) {
            Set<QName> members = candidate.members();
            if (types.stream()
                    .allMatch(other -> other == candidate
                            || other.members().containsAll(members)
                                    && other.members().size() > members.size()
                                    && !other.order.leadsInto(candidate.children.keySet()))) {
                return candidate;
            }
        }
        Declaration declaration = family.declarations.iterator().next();
        Set<String> homes = new LinkedHashSet<>();
        types.forEach(type -> homes.add(type.home));
        Structure plain = declaration.plain();
        return new Structure(
                plain.name,
                false,
                homes.size() == 1 ? homes.iterator().next() : plain.home,
                plain.at.iterator().next());
    }

    /** The elements of the base: they come first in all types. Where that cannot be, it has all elements. */
    private static Set<QName> sharedElements(Structure base, List<Structure> derived, boolean concrete) {
        Set<QName> shared = new LinkedHashSet<>();
        if (concrete) {
            shared.addAll(base.children.keySet());
            if (derived.stream().noneMatch(type -> type.order.leadsInto(shared)) && !base.isOpen) {
                return shared;
            }
            derived.forEach(type -> shared.addAll(type.children.keySet()));
            return shared;
        }
        Map<QName, Integer> times = new HashMap<>();
        derived.forEach(type -> type.children.keySet().forEach(name -> times.merge(name, 1, Integer::sum)));
        derived.get(0).children.keySet().stream()
                .filter(name -> times.get(name) == derived.size())
                .filter(name -> !Observations.isForeign(base, name.getNamespaceURI())
                        || derived.stream().allMatch(type -> Observations.isForeign(type, name.getNamespaceURI())))
                .forEach(shared::add);
        int before;
        do {
            before = shared.size();
            derived.forEach(type -> shared.retainAll(type.order.first(shared)));
        } while (shared.size() < before);
        return shared;
    }

    private static Set<QName> sharedAttributes(Structure base, List<Structure> derived) {
        Set<QName> shared = new LinkedHashSet<>(base.attributes.keySet());
        derived.get(0).attributes.keySet().stream()
                .filter(name -> derived.stream().allMatch(type -> type.attributes.containsKey(name)))
                .forEach(shared::add);
        return shared;
    }
}
