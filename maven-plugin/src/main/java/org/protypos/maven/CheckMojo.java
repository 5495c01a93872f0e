package org.protypos.maven;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.apache.maven.plugin.MojoFailureException;
import org.apache.maven.plugins.annotations.LifecyclePhase;
import org.apache.maven.plugins.annotations.Mojo;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.Drift;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.ProjectGenerator;
import org.protypos.project.AdoptedContract;

/** Fails when code, names or pinned documents are not as they would be generated. */
@Mojo(name = "check", defaultPhase = LifecyclePhase.VERIFY, threadSafe = true)
public final class CheckMojo extends SettingsMojo {
    @Override
    void work() throws IOException, MojoFailureException {
        List<AdoptedContract> adopted = adopted();
        ProjectGenerator.Result result;
        if (adopted == null) {
            GeneratedCode code = generator(read()).generate(order()).written(true, false);
            result = new ProjectGenerator.Result(List.of(code), code.report() == null ? List.of() : Drift.of(code));
        } else {
            result = ProjectGenerator.of(adopted).run(ProjectGenerator.Mode.CHECK, false);
        }
        if (!result.isPlanned()) {
            List<Finding> findings = result.codes().stream()
                    .flatMap(code -> code.findings().stream())
                    .distinct()
                    .toList();
            tell(findings);
            throw refused(findings, "nothing was checked");
        }
        List<String> drift = new ArrayList<>(result.drift().stream()
                .map(one -> one.kind() + " " + one.path())
                .toList());
        if (project().getContextValue(GeneratingMojo.WRITTEN) instanceof List<?> written) {
            written.forEach(line -> drift.add(line.toString()));
        }
        drift.forEach(line -> getLog().error(line));
        if (!drift.isEmpty()) {
            throw new MojoFailureException(drift.size() + (drift.size() == 1 ? " thing has" : " things have")
                    + " drifted apart: generate, look at what has changed, and commit it");
        }
        getLog().info("everything is as it would be generated");
    }
}
