package org.protypos.target.classes;

import java.util.Collection;
import org.protypos.target.TargetNames;

/**
 * What a plan must know of the language that it is for: how names are spelled and which are not to be had, which types stand
 * for which values, and how much a class and a method can hold.
 */
public interface ClassRules extends TargetNames {
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

    /** Names that no class may have, because generated code uses them or the language does. */
    Collection<String> reservedTypes();

    /** Names that no member may have. */
    Collection<String> reservedMembers();

    /** Names that no method of an interface may have. */
    Collection<String> reservedMethods();

    /** Names that no constant beside others may have. */
    Collection<String> reservedConstants();

    /** Names that no parameter may have. */
    Collection<String> reservedParameters();

    @Override
    default boolean canStandAround(String prefix, String suffix) {
        return isName(prefix + "x" + suffix);
    }

    /** The most named values that one enumeration can hold; types with more stay text. */
    int mostConstants();

    /** The most parameters that a method can have; a request with more members is one parameter. */
    int mostParameters();

    /**
     * What stands for values of a simple type when a type of the target is asked for.
     *
     * @param written what the contract has: a scalar
     * @param type the type asked for
     * @return a scalar that the type stands for, a converted one, or null when the target knows no way
     */
    ValueType converted(ValueType.Scalar written, String type);

    /** Whether code can get at members like this. */
    boolean supports(Property.Access access);
}
