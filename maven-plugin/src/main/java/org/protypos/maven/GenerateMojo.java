package org.protypos.maven;

import java.nio.file.Path;
import org.apache.maven.plugins.annotations.LifecyclePhase;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.plugins.annotations.ResolutionScope;

/** Writes Java types, client and server for contracts, and adds them to the sources of the project. */
@Mojo(
        name = "generate",
        defaultPhase = LifecyclePhase.GENERATE_SOURCES,
        requiresDependencyResolution = ResolutionScope.NONE,
        threadSafe = true)
public final class GenerateMojo extends GeneratingMojo {
    @Override
    void addRoot(Path folder) {
        project().addCompileSourceRoot(folder.toString());
    }
}
