package org.protypos.maven;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.apache.maven.plugin.MojoExecution;
import org.apache.maven.plugin.MojoFailureException;
import org.apache.maven.plugins.annotations.Parameter;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.contract.Selection;
import org.protypos.generator.Generator;
import org.protypos.generator.Order;
import org.protypos.project.AdoptedContract;
import org.protypos.project.Project;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Product;

/**
 * What code is wanted of which contracts: as the project file says, or, where there is none, as parameters say that are
 * called as the options of the command line are.
 */
abstract class SettingsMojo extends ContractMojo {
    /** The documents of one contract: files, folders, archives, http(s) addresses. */
    @Parameter(property = "protypos.contract")
    private List<String> contract;

    /** A contract that an artifact carries: group:id:version!/path/desk.wsdl. The version of a dependency may be left out. */
    @Parameter(property = "protypos.artifact")
    private String artifact;

    /** An OASIS XML catalog that maps addresses and namespaces to local documents. */
    @Parameter(property = "protypos.catalog")
    private java.io.File catalog;

    /** The Java package for everything; one for each namespace if not given. */
    @Parameter(name = "package", property = "protypos.package")
    private String packageName;

    /** Files of rules and corrections in YAML or JSON, or binding declarations. */
    @Parameter(property = "protypos.rules")
    private List<java.io.File> rules;

    /** What to write: types, client, server; all if not given. */
    @Parameter(property = "protypos.produce")
    private List<String> produce;

    /** Where endpoints run: jdk, or servlet for a servlet container too. */
    @Parameter(property = "protypos.server")
    private String server;

    /** Whether the runtime's sources are written too (embedded) or used as a library (library). */
    @Parameter(property = "protypos.runtime")
    private String runtime;

    /** The folder for a beginning of each implementation, written once. */
    @Parameter(property = "protypos.scaffold")
    private java.io.File scaffold;

    /**
     * The folder for the sources; generated-sources/protypos in that of the build if not given, generated-test-sources for tests, with
     * the name of the contract behind where several executions generate.
     */
    @Parameter(property = "protypos.into")
    private java.io.File into;

    /** Only these services; * stands for any text. */
    @Parameter(property = "protypos.service")
    private List<String> service;

    /** Only these ports; * stands for any text. */
    @Parameter(property = "protypos.port")
    private List<String> port;

    /** Only these operations, and the types that they need; * stands for any text. */
    @Parameter(property = "protypos.operation")
    private List<String> operation;

    @Parameter(defaultValue = "${mojoExecution}", readonly = true)
    private MojoExecution execution;

    /** Takes the parameter that no field can be called like. */
    public void setPackage(String name) {
        packageName = name;
    }

    /** The folder for the sources where nothing else is said, in that of the build. */
    String standardFolder() {
        return "generated-sources/protypos";
    }

    /** The goal that writes the sources. */
    String generating() {
        return "generate";
    }

    private Path standard() {
        return Path.of(project().getBuild().getDirectory()).resolve(standardFolder());
    }

    /** The folder for the sources of the contract that the parameters name: one of its own where others are generated, too. */
    private Path ownFolder() {
        long executions = project().getBuild().getPlugins().stream()
                .filter(plugin -> plugin.getKey().equals(execution.getPlugin().getKey()))
                .flatMap(plugin -> plugin.getExecutions().stream())
                .filter(one -> one.getGoals().contains(generating()))
                .count();
        if (executions < 2) {
            return standard();
        }
        String file = documents().replaceFirst(",.*", "").replaceFirst(".*[/\\\\!:]", "");
        String name = file.replaceFirst("(?<=.)\\.[^.]*$", "").replaceAll("[^A-Za-z0-9._-]", "-");
        return standard().resolveSibling(standard().getFileName() + "-" + name);
    }

    /** What is generated, as the build names it. */
    String documents() {
        List<String> documents = new ArrayList<>(list(contract));
        if (artifact != null) {
            documents.add(artifact);
        }
        return String.join(",", documents);
    }

    /** The contracts of the project file, with the folder for sources in a build where it names none; null when there is none. */
    List<AdoptedContract> adopted() throws IOException, MojoFailureException {
        if (!hasProject()) {
            return null;
        }
        Map<String, Object> said = said();
        if (!said.isEmpty()) {
            throw new MojoFailureException(String.join(", ", said.keySet())
                    + (said.size() == 1 ? " is" : " are") + " set in the build, and "
                    + basedir().resolve(Project.FILE)
                    + " says what is generated: put it there, or take it out of the build");
        }
        String folder = basedir().relativize(standard()).toString().replace('\\', '/');
        return adopted(null).stream()
                .map(contract -> new AdoptedContract(
                        contract.project(), contract.settings().orInto(folder)))
                .toList();
    }

    /** The parameters that are given. */
    private Map<String, Object> said() {
        Map<String, Object> all = new LinkedHashMap<>();
        all.put("contract", contract);
        all.put("artifact", artifact);
        all.put("catalog", catalog);
        all.put("package", packageName);
        all.put("rules", rules);
        all.put("produce", produce);
        all.put("server", server);
        all.put("runtime", runtime);
        all.put("scaffold", scaffold);
        all.put("service", service);
        all.put("port", port);
        all.put("operation", operation);
        all.put("into", into);
        all.values().removeIf(value -> value == null || value instanceof List<?> list && list.isEmpty());
        return all;
    }

    /** Reads the contract that the parameters name. */
    Contract read() throws IOException, MojoFailureException {
        List<String> documents = new ArrayList<>();
        for (String document : contract == null ? List.<String>of() : contract) {
            documents.add(document(document));
        }
        if (artifact != null) {
            documents.add(artifacts().document(artifact));
        }
        if (documents.isEmpty()) {
            throw new MojoFailureException(
                    "there is no contract: adopt one (mvn protypos:adopt -Dprotypos.contract=...),"
                            + " or name its documents in <contract>");
        }
        return ContractReader.read(
                DocumentGatherer.gather(documents, catalog == null ? null : catalog.toPath(), remote()));
    }

    /** A generator as the parameters want it. */
    Generator generator(Contract read) {
        return Generator.of(read)
                .rules(
                        rules == null
                                ? List.of()
                                : rules.stream().map(java.io.File::toPath).toList())
                .packageName(packageName)
                .selection(new Selection(list(service), list(port), list(operation)));
    }

    private static List<String> list(List<String> given) {
        return given == null ? List.of() : given;
    }

    /** What code the parameters want. */
    Order order() throws MojoFailureException {
        Set<Product> products = EnumSet.of(Product.TYPES);
        List<String> wanted = list(produce).isEmpty() ? List.of("types", "client", "server") : produce;
        for (String product : wanted) {
            products.add(Product.valueOf(
                    choice("produce", product, "types", "client", "server").toUpperCase(Locale.ROOT)));
        }
        if (choice("server", server, "jdk", "servlet").equals("servlet")) {
            products.add(Product.SERVLET);
        }
        return new Order(
                "",
                into == null ? ownFolder() : into.toPath(),
                scaffold == null ? null : scaffold.toPath(),
                products,
                choice("runtime", runtime, "embedded", "library").equals("embedded"));
    }

    private static String choice(String parameter, String given, String... choices) throws MojoFailureException {
        if (given == null) {
            return choices[0];
        }
        if (!List.of(choices).contains(given.strip())) {
            throw new MojoFailureException(parameter + ": \"" + given + "\" is none of " + String.join(", ", choices));
        }
        return given.strip();
    }
}
