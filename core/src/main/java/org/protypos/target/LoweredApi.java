package org.protypos.target;

import java.io.IOException;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import org.protypos.binding.ProposedRule;
import org.protypos.diagnostic.Finding;
import org.protypos.layout.RecordLayout;
import org.protypos.naming.Clash;
import org.protypos.naming.GivenNames;

/** An API in the terms of one language: everything has its name there, and what is left to do is to write it down. */
public interface LoweredApi {
    /** The components that would have got one name, and how that was settled. */
    List<Clash> clashes();

    /** Those clashes that a rule for the component can settle otherwise, wherever it has that name. */
    default List<Clash> choices() {
        return clashes();
    }

    /** The names of all components, and of those that are gone. */
    GivenNames names();

    /** What is to be said about wishes that cannot be granted, and what the language has no code for. */
    List<Finding> findings();

    /** The records of fixed length that messages become, for a language that has them. */
    default List<RecordLayout> records() {
        return List.of();
    }

    /** Rules that say what holds as long as nobody says otherwise, for somebody to change. */
    default List<ProposedRule> proposed() {
        return List.of();
    }

    /** How all that can be called looks in the language, for a person. */
    Outline outline();

    /**
     * Writes the sources.
     *
     * @param products what to produce; types are always among it
     * @param embedded whether the runtime's sources are written beside it, rather than taken from a library
     * @param documents the contract's documents as a server publishes them; asked for only when it has to
     * @return the files, each path once
     */
    List<SourceFile> emit(Set<Product> products, boolean embedded, Supplier<List<String>> documents);

    /**
     * A beginning of an implementation for each port type that can be served, for developers to go on with.
     *
     * @param products what is written of the contract
     * @param embedded whether the runtime is written beside the code
     */
    List<Beginning> scaffold(Set<Product> products, boolean embedded);

    /**
     * What else a developer begins with beside implementations: what builds the code, by path.
     *
     * @param sources the folder of the generated sources as seen from where this goes, with slashes; empty when it is there or
     *     below
     */
    List<SourceFile> project(String sources);

    /** What somebody does first with the code, to be read behind "compile it and"; empty when there is nothing to call. */
    String next();

    /** What source sees of the code. */
    Surface surface();

    /**
     * Compiles the types, to put messages through them; the language's toolchain must not miss anything.
     *
     * @param known the types and elements that messages name
     * @throws IOException when the compiler cannot be run
     */
    Toolchain.Types compiled(Set<QName> known) throws IOException;
}
