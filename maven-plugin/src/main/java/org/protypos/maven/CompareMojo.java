package org.protypos.maven;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.apache.maven.plugin.MojoFailureException;
import org.apache.maven.plugins.annotations.LifecyclePhase;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.Parameter;
import org.protypos.change.Comparison;
import org.protypos.change.Difference;
import org.protypos.change.Party;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.project.AdoptedContract;
import org.protypos.project.Revision;
import org.protypos.source.DocumentGatherer;

/** Tells how contracts of the project differ from what they were, and for whom that breaks something. */
@Mojo(name = "compare", defaultPhase = LifecyclePhase.VERIFY, threadSafe = true)
public final class CompareMojo extends ContractMojo {
    /** The adopted contract to compare; all if not given. */
    @Parameter(property = "protypos.name")
    private String name;

    /** A revision under version control that they are compared with. */
    @Parameter(property = "protypos.revision")
    private String revision;

    /** A document, an archive or an address that one contract is compared with, instead of a revision. */
    @Parameter(property = "protypos.old")
    private String old;

    /** When a difference fails the build: breaking, or any; never if not given. */
    @Parameter(property = "protypos.failOn")
    private String failOn;

    /** Counts what breaks for a client, a server, or both; by what the project produces if not given. */
    @Parameter(name = "for", property = "protypos.for")
    private String party;

    /** Takes the parameter that no field can be called like. */
    public void setFor(String whom) {
        party = whom;
    }

    @Override
    void work() throws IOException, MojoFailureException {
        if ((revision == null) == (old == null)) {
            throw new MojoFailureException("say what to compare with: <revision> or <old>, one of them");
        }
        if (failOn != null && !List.of("breaking", "any").contains(failOn)) {
            throw new MojoFailureException("failOn: \"" + failOn + "\" is none of breaking, any");
        }
        if (party != null && !List.of("client", "server", "both").contains(party)) {
            throw new MojoFailureException("for: \"" + party + "\" is none of client, server, both");
        }
        List<String> failed = new ArrayList<>();
        List<AdoptedContract> adopted = adopted(name);
        if (old != null && adopted.size() > 1) {
            throw new MojoFailureException("<old> is for one contract: say its <name>");
        }
        for (AdoptedContract now : adopted) {
            String called = now.settings().name();
            AdoptedContract then = old == null ? Revision.of(now.project(), called, revision) : null;
            Contract before = then != null
                    ? then.read()
                    : ContractReader.read(DocumentGatherer.gather(List.of(document(old)), null, remote()));
            Contract after = now.read();
            for (Contract one : List.of(before, after)) {
                if (!one.isSound()) {
                    tell(one.findings());
                    throw refused(one.findings(), "nothing was compared");
                }
            }
            Comparison.Result result = compare(then, before, now, after);
            Party stands =
                    party == null ? Party.of(now.settings().produce()) : Party.valueOf(party.toUpperCase(Locale.ROOT));
            result = result.of(stands.readers());
            result.differences().forEach(this::tell);
            getLog().info(called + ": " + result.differences().size() + " differences"
                    + (result.isBreaking() ? ", some of them breaking" : ""));
            if ("any".equals(failOn) && !result.differences().isEmpty()
                    || "breaking".equals(failOn) && result.isBreaking()) {
                failed.add(called);
            }
        }
        if (!failed.isEmpty()) {
            throw new MojoFailureException(String.join(", ", failed)
                    + (failOn.equals("any") ? " changed" : " changed in a way that breaks somebody"));
        }
    }

    private static Comparison.Result compare(
            AdoptedContract then, Contract before, AdoptedContract now, Contract after) {
        PlannedContract left = Generator.of(then, before).lenient().plan();
        PlannedContract right = Generator.of(now, after).lenient().plan();
        return Comparison.of(left.contract(), right.contract(), left.surface(), right.surface());
    }

    private void tell(Difference difference) {
        if (difference.isBreaking()) {
            getLog().warn(Differences.line(difference));
        } else {
            getLog().info(Differences.line(difference));
        }
    }
}
