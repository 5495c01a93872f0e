package org.protypos.infer;

import java.util.LinkedHashSet;
import java.util.Set;
import javax.xml.namespace.QName;

/** An element as it is declared, globally or inside a structure: what has stood there. */
final class Declaration {
    final QName name;

    /** What instances that say no type have been like. */
    private Structure plain;

    /** Whether there is an instance that says no type. */
    boolean isPlain;

    /** The types that instances say they are of. */
    final Set<QName> types = new LinkedHashSet<>();

    boolean isNillable;

    /** In how many of the structures it stands it was there; for a local one alone. */
    long present;

    int most;

    Declaration(QName name, Structure plain) {
        this.name = name;
        this.plain = plain;
    }

    Structure plain() {
        plain = plain.merged();
        return plain;
    }

    /** What instances are like that say no type is part of a base. */
    void becomes(Structure base) {
        plain = base;
    }

    /**
     * Makes one of what stands here and there; how often it does stays apart.
     *
     * @return whether they were not one already
     */
    boolean unify(Declaration other) {
        boolean same = isPlain == other.isPlain
                && isNillable == other.isNillable
                && types.equals(other.types)
                && plain() == other.plain();
        isPlain |= other.isPlain;
        isNillable |= other.isNillable;
        types.addAll(other.types);
        other.isPlain = isPlain;
        other.isNillable = isNillable;
        other.types.addAll(types);
        plain().merge(other.plain());
        return !same;
    }

    /** Takes over where another was; what both were like becomes one by itself. */
    void addAll(Declaration other) {
        isPlain |= other.isPlain;
        types.addAll(other.types);
        isNillable |= other.isNillable;
        present += other.present;
        most = Math.max(most, other.most);
    }
}
