package org.protypos.maven;

import java.nio.file.Path;
import org.apache.maven.plugins.annotations.LifecyclePhase;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.ResolutionScope;

/** Writes Java types, client and server for contracts, and adds them to the test sources of the project. */
@Mojo(
        name = "generate-test",
        defaultPhase = LifecyclePhase.GENERATE_TEST_SOURCES,
        requiresDependencyResolution = ResolutionScope.NONE,
        threadSafe = true)
public final class GenerateTestMojo extends GeneratingMojo {
    @Override
    String standardFolder() {
        return "generated-test-sources/protypos";
    }

    @Override
    String generating() {
        return "generate-test";
    }

    @Override
    void addRoot(Path folder) {
        project().addTestCompileSourceRoot(folder.toString());
    }
}
