package org.protypos.target.code;

/**
 * A type that code refers to. What it is called where it is written is up to the file: by its simple name where that can
 * only mean it, by a longer one otherwise.
 *
 * @param space the package or namespace that it stands in
 * @param path its simple name, behind the names of the types around it and dots if it is nested
 */
public record TypeName(Origin origin, String space, String path, Use use) {
    /** Where a type comes from. */
    public enum Origin {
        /** It is generated from the contract. */
        CONTRACT,
        /** The platform or the runtime has it. */
        LIBRARY,
        /** Whoever wrote the rules has it, or says that the platform does. */
        FOREIGN
    }

    /** What a reference to a type is for. */
    public enum Use {
        /** It stands where only a type can stand. */
        TYPE,
        /** Its own members are asked for, in an expression, where members of the class around go before types. */
        MEMBERS
    }

    /** A type that is generated from the contract. */
    public static TypeName ofContract(String space, String path) {
        return new TypeName(Origin.CONTRACT, space, path, Use.TYPE);
    }

    /** A type of the platform or the runtime. */
    public static TypeName ofLibrary(String space, String path) {
        return new TypeName(Origin.LIBRARY, space, path, Use.TYPE);
    }

    /** A type of the platform, by its full name. */
    public static TypeName ofLibrary(String full) {
        return ofLibrary(space(full), full.substring(full.lastIndexOf('.') + 1));
    }

    /** A type of somebody's, by its full name. */
    public static TypeName foreign(String full) {
        return new TypeName(Origin.FOREIGN, space(full), full.substring(full.lastIndexOf('.') + 1), Use.TYPE);
    }

    private static String space(String full) {
        return full.substring(0, Math.max(0, full.lastIndexOf('.')));
    }

    /** The type, where its own members are asked for. */
    public TypeName members() {
        return new TypeName(origin, space, path, Use.MEMBERS);
    }

    /** A type that is nested in this one. */
    public TypeName nested(String simple) {
        return new TypeName(origin, space, path + "." + simple, use);
    }

    /** The simple name of the outermost type around it, or its own. */
    public String outermost() {
        int dot = path.indexOf('.');
        return dot < 0 ? path : path.substring(0, dot);
    }

    /** What follows the outermost name: nothing, or a dot and names of nested types. */
    public String inner() {
        int dot = path.indexOf('.');
        return dot < 0 ? "" : path.substring(dot);
    }

    /**
     * Whether its name, written alone, may mean a variable or a member instead: it begins as those do, which no type's does
     * unless somebody wants it so.
     */
    public boolean isLikeVariable() {
        return Character.isLowerCase(path.codePointAt(0));
    }

    /** The name that means the type anywhere, without what a language puts before it. */
    public String full() {
        return space.isEmpty() ? path : space + "." + path;
    }
}
