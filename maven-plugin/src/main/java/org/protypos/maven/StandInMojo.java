package org.protypos.maven;

import java.io.File;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import org.apache.maven.plugin.MojoFailureException;
import org.apache.maven.plugins.annotations.LifecyclePhase;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.Parameter;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.generator.Generator;
import org.protypos.project.AdoptedContract;
import org.protypos.source.DocumentGatherer;
import org.protypos.wsdl.Service;

/**
 * Plays the service of a contract while integration tests run. Its address and port are properties of the build:
 * {@code protypos.stand-in.address}, {@code protypos.stand-in.port}, and for each port of the contract
 * {@code protypos.stand-in.address.PORT}.
 */
@Mojo(name = "stand-in", defaultPhase = LifecyclePhase.PRE_INTEGRATION_TEST, threadSafe = true)
public final class StandInMojo extends ContractMojo {
    /** Under this name the build remembers what is being played. */
    static final String PLAYED = "protypos.stand-in";

    /** The contract: an adopted name, a document, an archive, an address. */
    @Parameter(property = "protypos.contract", required = true)
    private String contract;

    /** The port to listen at, 0 for any. */
    @Parameter(property = "protypos.listen", defaultValue = "0")
    private int port;

    /** What to answer otherwise than with samples, in YAML or JSON. */
    @Parameter(property = "protypos.answers")
    private File answers;

    /** Files of rules and corrections. */
    @Parameter(property = "protypos.rules")
    private List<File> rules;

    /** What the names of the properties begin with, for a build that plays several contracts. */
    @Parameter(defaultValue = "protypos.stand-in")
    private String properties;

    @Override
    void work() throws IOException, MojoFailureException {
        AdoptedContract adopted = AdoptedContract.named(basedir(), List.of(contract));
        Contract read = adopted != null
                ? adopted.read()
                : ContractReader.read(DocumentGatherer.gather(List.of(document(contract)), null, remote()));
        if (!read.isSound()) {
            tell(read.findings());
            throw refused(read.findings(), "nothing is served");
        }
        Findings findings = new Findings();
        Contract played = Generator.of(adopted, read)
                .rules(
                        rules == null
                                ? List.of()
                                : rules.stream().map(File::toPath).toList())
                .corrected(findings);
        Answers told = answers == null
                ? Answers.NONE
                : Answers.read(GivenFile.text(answers.toPath(), answers.toString()), played, findings);
        tell(findings.sorted());
        if (findings.hasErrors()) {
            throw refused(findings.sorted(), "nothing is served");
        }
        StandIn standIn =
                StandIn.serve(played, new InetSocketAddress(InetAddress.getLoopbackAddress(), port), told, this::seen);
        if (standIn.addresses().isEmpty()) {
            standIn.close();
            throw new MojoFailureException("no port of the contract speaks SOAP or HTTP: nothing is served");
        }
        publish(standIn);
        StandInStopMojo.played(project()).add(standIn);
    }

    private void publish(StandIn standIn) {
        Properties build = project().getProperties();
        String first = standIn.addresses().values().iterator().next();
        build.setProperty(properties + ".address", first);
        build.setProperty(
                properties + ".port", String.valueOf(java.net.URI.create(first).getPort()));
        for (Map.Entry<Service.Port, String> one : standIn.addresses().entrySet()) {
            build.setProperty(properties + ".address." + one.getKey().name(), one.getValue());
            getLog().info(one.getKey().name() + " is played at " + one.getValue());
        }
    }

    private void seen(StandIn.Seen exchange) {
        exchange.deviations().forEach(deviation -> getLog().warn(
                        "not as the contract says: " + deviation.path() + ": " + deviation.came()));
    }
}
