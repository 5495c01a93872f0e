package org.protypos.naming;

import java.util.Set;

/** What is a name in a target language. Spelling alone: uniqueness is a scope's. */
public interface NameRules {
    /** How rules speak of the language: small letters. */
    String language();

    /** All languages that rules may say something for, this one among them. */
    Set<String> languages();

    /** Whether messages become records of fixed length in it, so that rules may say what those have room for. */
    default boolean hasRecords() {
        return false;
    }

    /** The package for a namespace; the namespace may be empty. */
    String packageName(String namespace);

    /** Whether a text can be a name as it stands. */
    boolean isName(String text);

    /** Whether names can have a text before them and one behind; each may be empty. */
    boolean canStandAround(String prefix, String suffix);

    /** Whether a text can be the name of something in a package, dots between. */
    boolean isQualifiedName(String text);

    /** Whether a text can be a package of generated code as it stands. */
    boolean isPackage(String text);
}
