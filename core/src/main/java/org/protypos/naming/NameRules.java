package org.protypos.naming;

import java.util.Collection;

/** How a target language likes names to be spelled and which it cannot have. Spelling alone: uniqueness is a scope's. */
public interface NameRules {
    /** How rules speak of the language: small letters. */
    String language();

    /** The package for a namespace; the namespace may be empty. */
    String packageName(String namespace);

    /** The name of a class for an XML name. */
    String typeName(String xmlName);

    /** The name of a class that is nested in another, for an XML name. */
    String nestedTypeName(String xmlName);

    /** The name of an interface for an XML name. */
    String interfaceName(String xmlName);

    /**
     * The name of a class that goes with an interface.
     *
     * @param interfaceName the name of the interface
     * @param role what the class is, in capitals and small letters: {@code Client}
     */
    String companionName(String interfaceName, String role);

    /** The name of an exception for the XML name of a fault. */
    String exceptionName(String xmlName);

    /** Whether the members of a class, the types nested in it and the class itself must all be called differently. */
    boolean membersShareNamesWithTypes();

    /** Whether a type for several results can be nested in the interface whose operation gives them. */
    boolean nestsInInterfaces();

    /** The name of a member for an XML name, in the spelling that accessors are built from. */
    String memberName(String xmlName);

    /** The name of a method for an XML name. */
    String methodName(String xmlName);

    /** The name of a parameter for an XML name. */
    String parameterName(String xmlName);

    /** The name of a constant for any text. */
    String constantName(String text);

    /** Whether a text can be a name as it stands. */
    boolean isName(String text);

    /** Whether a text can be the name of something in a package, dots between. */
    boolean isQualifiedName(String text);

    /** Whether a text can be a package of generated code as it stands. */
    boolean isPackage(String text);

    /** Names that no class may have, because generated code uses them or the language does. */
    Collection<String> reservedTypes();

    /** Names that no member may have. */
    Collection<String> reservedMembers();

    /** Names that no method of an interface may have. */
    Collection<String> reservedMethods();

    /** Names that no parameter may have. */
    Collection<String> reservedParameters();
}
