package org.protypos.infer;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;

/** What the elements of one declaration, or those that say they are of one type, have been like. */
final class Structure {
    /** With more children of different names, names are data. */
    static final int MOST_NAMES = 1_000;

    /** The namespace that its local elements are declared in. */
    final String home;

    /** The element or the type that it is of. */
    final QName name;

    /** Whether it is of a type that instances name. */
    final boolean isType;

    /** Where it stands, as {@code berth/number}, and where those stand that have become one with it. */
    final Set<String> at = new LinkedHashSet<>();

    /** The local names of what it is of. */
    final Set<String> names = new LinkedHashSet<>();

    final Map<QName, Declaration> children = new LinkedHashMap<>();
    final Map<QName, ObservedAttribute> attributes = new LinkedHashMap<>();
    final Precedence order = new Precedence();
    final Rounds rounds = new Rounds();
    final ObservedValue text = new ObservedValue();

    /** How many there were, and how many of them were not nil. */
    long count;

    long filled;

    /** Whether text has stood beside elements. */
    boolean isMixed;

    /** Whether names of elements are data, so that any may come; the same of attributes. */
    boolean isOpen;

    boolean hasOpenAttributes;

    /** What it extends, or null; whether others extend it; and whether there is none that is nothing more. */
    Structure base;

    boolean isBase;
    boolean isAbstract;

    /** Whether it is of a global element. */
    boolean isGlobal;

    private Structure into;

    /** An attribute: its values, and in how many elements it was. */
    static final class ObservedAttribute {
        final String at;
        final ObservedValue values = new ObservedValue();
        long present;

        ObservedAttribute(String at) {
            this.at = at;
        }
    }

    Structure(QName name, boolean isType, String home, String at) {
        this.name = name;
        this.isType = isType;
        this.home = home;
        this.at.add(at);
        this.names.add(name.getLocalPart());
    }

    /** Gives up telling its elements apart. */
    void open() {
        isOpen = true;
        remove(new HashSet<>(children.keySet()));
        children.clear();
    }

    /** Forgets where some of its elements have stood. */
    private void remove(Set<QName> names) {
        order.removeAll(names);
        rounds.removeAll(names);
    }

    /** Has no elements of its own: what it extends takes all. */
    void close() {
        open();
        isOpen = false;
    }

    /** Gives up telling its attributes apart. */
    void openAttributes() {
        hasOpenAttributes = true;
        attributes.clear();
    }

    /** What it has become by now. */
    Structure merged() {
        Structure found = this;
        while (found.into != null) {
            found = found.into;
        }
        return found;
    }

    /** Whether elements have stood in it. */
    boolean hasElements() {
        return isOpen || !children.isEmpty();
    }

    /** Whether it is text without elements and attributes, so that it needs no type of its own. */
    boolean isValue() {
        return !isType
                && base == null
                && !isBase
                && !hasElements()
                && !hasOpenAttributes
                && attributes.isEmpty()
                && (text.isFilled() || !isGlobal);
    }

    /** Whether text stands beside elements or instead of them. */
    boolean mixes() {
        return isMixed || hasElements() && text.isFilled() && !text.isBlank();
    }

    boolean isRequired(Declaration child) {
        return child.present == filled;
    }

    Set<QName> members() {
        Set<QName> members = new LinkedHashSet<>(children.keySet());
        attributes.keySet().forEach(attribute -> members.add(asMember(attribute)));
        return members;
    }

    /** An attribute among elements: no element can have that name. */
    private static QName asMember(QName attribute) {
        return new QName(attribute.getNamespaceURI(), "@" + attribute.getLocalPart());
    }

    /** Makes one of two structures, and then one of what their children of the same name are like, and so on. */
    void merge(Structure other) {
        Deque<List<Structure>> pairs = new ArrayDeque<>();
        pairs.add(List.of(this, other));
        while (!pairs.isEmpty()) {
            List<Structure> pair = pairs.poll();
            Structure one = pair.get(0).merged();
            Structure two = pair.get(1).merged();
            if (one != two) {
                one.take(two, two.children.keySet(), two.attributes.keySet(), pairs);
                one.count += two.count;
                one.filled += two.filled;
                one.at.addAll(two.at);
                one.names.addAll(two.names);
                one.isGlobal |= two.isGlobal;
                two.into = one;
            }
        }
    }

    /** Takes over some of what another has; both stay. */
    void share(Structure other, Set<QName> elements, Set<QName> names) {
        Deque<List<Structure>> pairs = new ArrayDeque<>();
        take(other, elements, names, pairs);
        count += other.count;
        filled += other.filled;
        pairs.forEach(pair -> pair.get(0).merged().merge(pair.get(1).merged()));
        other.children.keySet().removeAll(new HashSet<>(elements));
        other.attributes.keySet().removeAll(new HashSet<>(names));
        other.remove(new HashSet<>(children.keySet()));
    }

    private void take(Structure other, Set<QName> elements, Set<QName> names, Deque<List<Structure>> pairs) {
        for (QName name : new ArrayList<>(elements)) {
            Declaration theirs = other.children.get(name);
            Declaration ours = children.get(name);
            if (theirs == null) {
                continue;
            }
            if (ours == null) {
                children.put(name, theirs);
            } else {
                ours.addAll(theirs);
                pairs.add(List.of(ours.plain(), theirs.plain()));
            }
        }
        for (QName name : new ArrayList<>(names)) {
            ObservedAttribute theirs = other.attributes.get(name);
            ObservedAttribute ours = attributes.get(name);
            if (theirs != null && ours == null) {
                attributes.put(name, theirs);
            } else if (theirs != null) {
                ours.values.addAll(theirs.values);
                ours.present += theirs.present;
            }
        }
        order.addAll(other.order, new HashSet<>(elements));
        rounds.addAll(other.rounds, new HashSet<>(elements));
        text.addAll(other.text);
        isMixed |= other.isMixed;
        if (isOpen |= other.isOpen) {
            open();
        }
        if (hasOpenAttributes |= other.hasOpenAttributes) {
            openAttributes();
        }
    }
}
