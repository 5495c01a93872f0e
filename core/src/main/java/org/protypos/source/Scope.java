package org.protypos.source;

/** The namespace prefixes in force at an element (Namespaces in XML, section 6.1). */
final class Scope {
    static final Scope ROOT = new Scope(null, new String[] {"xml", "http://www.w3.org/XML/1998/namespace"});

    private final Scope outer;
    private final String[] declarations;

    /** Prefixes and namespaces in turn. */
    Scope(Scope outer, String[] declarations) {
        this.outer = outer;
        this.declarations = declarations;
    }

    /** The namespace of a prefix, or null; the empty prefix stands for the default namespace. */
    String namespace(String prefix) {
        for (Scope scope = this; scope != null; scope = scope.outer) {
            for (int i = 0; i < scope.declarations.length; i += 2) {
                if (scope.declarations[i].equals(prefix)) {
                    return scope.declarations[i + 1];
                }
            }
        }
        return null;
    }

    /** A prefix, not the empty one, that stands for a namespace here, or null. */
    String prefix(String namespace) {
        for (Scope scope = this; scope != null; scope = scope.outer) {
            for (int i = 0; i < scope.declarations.length; i += 2) {
                if (scope.declarations[i + 1].equals(namespace) && !scope.declarations[i].isEmpty()) {
                    return scope.declarations[i];
                }
            }
        }
        return null;
    }
}
