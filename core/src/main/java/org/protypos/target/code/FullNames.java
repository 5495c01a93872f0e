package org.protypos.target.code;

import org.protypos.target.ContractText;

/**
 * Spells types by their full names, for who shows code outside of any file.
 *
 * @param ofLibraries whether types of the platform and the runtime have their full names, too
 */
public record FullNames(boolean ofLibraries) implements Spelling {
    @Override
    public String name(TypeName type) {
        return ofLibraries || type.origin() != TypeName.Origin.LIBRARY ? type.full() : type.path();
    }

    @Override
    public String literal(String text) {
        return ContractText.literal(text);
    }
}
