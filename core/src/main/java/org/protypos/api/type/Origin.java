package org.protypos.api.type;

/** Where a type is defined. */
public enum Origin {
    /** Among the global types. */
    TYPE,
    /** In a global element. */
    ELEMENT,
    /** In another global component: the items of a list, a global attribute. */
    ITEM,
    /** In a member of a structured type. */
    MEMBER,
    /** It is a model group that repeats. */
    GROUP,
    /** It is made of the parts of a message. */
    PARTS
}
