package org.protypos.maven;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.apache.maven.plugin.MojoFailureException;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.Parameter;
import org.protypos.change.Party;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.Refresh;
import org.protypos.project.AdoptedContract;

/** Fetches adopted contracts again, tells what has changed, and takes it; the next build generates anew. */
@Mojo(name = "refresh", threadSafe = true)
public final class RefreshMojo extends ContractMojo {
    /** The adopted contract; all if not given. */
    @Parameter(property = "protypos.name")
    private String name;

    /** Where the contract is now, when it has moved; for one contract. */
    @Parameter(property = "protypos.from")
    private List<String> from;

    /** Takes changes that break something (breaking). */
    @Parameter(property = "protypos.accept")
    private String accept;

    /** Tells what has changed and changes nothing. */
    @Parameter(property = "protypos.dryRun", defaultValue = "false")
    private boolean dryRun;

    @Override
    void work() throws IOException, MojoFailureException {
        if (accept != null && !accept.equals("breaking")) {
            throw new MojoFailureException("accept: \"" + accept + "\" is not breaking");
        }
        mend();
        List<AdoptedContract> adopted = adopted(name);
        List<String> moved = from == null ? List.of() : from;
        if (!moved.isEmpty() && adopted.size() > 1) {
            throw new MojoFailureException("from is for one contract: say its name");
        }
        List<String> left = new ArrayList<>();
        for (AdoptedContract contract : adopted) {
            String why = refresh(contract, moved);
            if (why != null) {
                getLog().error(contract.settings().name() + " was left as it was: " + why);
                left.add(contract.settings().name());
            }
        }
        if (!left.isEmpty()) {
            throw new MojoFailureException(String.join(", ", left) + " could not be refreshed");
        }
    }

    /** Refreshes a contract; gives why it was left as it was. */
    private String refresh(AdoptedContract contract, List<String> moved) throws IOException {
        String called = contract.settings().name();
        Refresh refresh = Refresh.look(contract, moved, remote());
        List<Finding> findings = refresh.findings();
        switch (refresh.state()) {
            case NOWHERE:
                return "nothing says where its documents came from: -Dprotypos.from=ADDRESS does";
            case LOST, REFUSED, UNREACHABLE:
                tell(findings);
                return "see above";
            case ALTERED, UNKNOWN:
                return "its pinned documents were altered: take them from version control again";
            case UNCHANGED:
                if (!moved.isEmpty() && !dryRun) {
                    refresh.pin();
                }
                getLog().info(called + ": unchanged");
                return null;
            default:
                break;
        }
        var result =
                refresh.comparison().of(Party.of(contract.settings().produce()).readers());
        result.differences().forEach(difference -> getLog().info(Differences.line(difference)));
        tell(findings);
        if (!findings.isEmpty()) {
            return "see above";
        }
        if (dryRun) {
            return null;
        }
        if (result.isBreaking() && accept == null) {
            return "the changes break something; -Dprotypos.accept=breaking takes them";
        }
        refresh.pin();
        getLog().info(called + ": taken; the next build generates anew");
        return null;
    }
}
