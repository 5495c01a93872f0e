package org.protypos.maven;

import java.io.File;
import java.nio.file.Path;
import org.apache.maven.plugins.annotations.LifecyclePhase;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.Parameter;
import org.apache.maven.plugins.annotations.ResolutionScope;

/** Writes Java types, client and server for contracts, and adds them to the test sources of the project. */
@Mojo(
        name = "generate-test",
        defaultPhase = LifecyclePhase.GENERATE_TEST_SOURCES,
        requiresDependencyResolution = ResolutionScope.NONE,
        threadSafe = true)
public final class GenerateTestMojo extends GeneratingMojo {
    /** The folder for the sources; target/generated-test-sources/protypos if not given. */
    @Parameter(property = "protypos.into")
    private File into;

    @Parameter(defaultValue = "${project.build.directory}/generated-test-sources/protypos", readonly = true)
    private File standard;

    @Override
    Path standardFolder() {
        return standard.toPath();
    }

    @Override
    File into() {
        return into;
    }

    @Override
    void addRoot(Path folder) {
        project().addTestCompileSourceRoot(folder.toString());
    }
}
