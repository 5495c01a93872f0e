package org.protypos.maven;

import java.io.File;
import java.nio.file.Path;
import org.apache.maven.plugins.annotations.LifecyclePhase;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.Parameter;
import org.apache.maven.plugins.annotations.ResolutionScope;

/** Writes Java types, client and server for contracts, and adds them to the sources of the project. */
@Mojo(
        name = "generate",
        defaultPhase = LifecyclePhase.GENERATE_SOURCES,
        requiresDependencyResolution = ResolutionScope.NONE,
        threadSafe = true)
public final class GenerateMojo extends GeneratingMojo {
    /** The folder for the sources; target/generated-sources/protypos if not given. */
    @Parameter(property = "protypos.into")
    private File into;

    @Parameter(defaultValue = "${project.build.directory}/generated-sources/protypos", readonly = true)
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
        project().addCompileSourceRoot(folder.toString());
    }
}
