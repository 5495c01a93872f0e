package org.protypos.target;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import org.protypos.diagnostic.Finding;
import org.protypos.plan.ApiInterface;
import org.protypos.plan.ApiOperation;
import org.protypos.plan.Plan;
import org.protypos.plan.TargetRules;
import org.protypos.wsdl.PortType;

/**
 * A language that code is generated in. Each is a package of its own that names its target in {@code META-INF/services}; nothing
 * outside of it knows the language.
 */
public interface Target {
    /** How commands and files speak of it: small letters. */
    String name();

    /** How people speak of it. */
    String title();

    /** How it spells names, and which types it has. */
    TargetRules rules();

    /** What it has code for. */
    Set<Product> products();

    /** What compiles and runs its code on this machine. */
    Toolchain toolchain();

    /** What there is in the plan that it has no code for, and what becomes of that. */
    List<Finding> findings(Plan plan);

    /**
     * Writes the sources.
     *
     * @param products what to produce; types are always among it
     * @param embedded whether the runtime's sources are written beside it, rather than taken from a library
     * @param documents the contract's documents as a server publishes them; asked for only when it has to
     * @return the files, each path once
     */
    List<SourceFile> emit(Plan plan, Set<Product> products, boolean embedded, Supplier<List<String>> documents);

    /**
     * A beginning of an implementation for each port type that can be served, for developers to go on with.
     *
     * @param embedded whether the runtime is written beside the code
     */
    Map<ApiInterface, SourceFile> scaffold(Plan plan, boolean embedded);

    /** What else a developer begins with beside implementations: what builds the code, by path. */
    List<SourceFile> project(Plan plan, boolean embedded);

    /**
     * The methods of an implementation as a scaffold begins them, by name.
     *
     * @param embedded whether the runtime is written beside the code
     */
    Map<String, String> methods(Plan plan, boolean embedded, ApiInterface type);

    /** How each operation looks to somebody who calls it. */
    Map<ApiOperation, Signature> signatures(Plan plan);

    /** What somebody does first with the code, to be read behind "compile it and"; empty when there is nothing to call. */
    String next(Plan plan);

    /**
     * What source sees of the code.
     *
     * @param portTypes the port types of the contract, for the designators of their operations
     */
    Surface surface(Plan plan, Iterable<PortType> portTypes);

    /**
     * How an operation looks to somebody who calls it.
     *
     * @param method the method
     * @param result the type that carries several results with its components, or an empty text
     */
    record Signature(String method, String result) {}
}
