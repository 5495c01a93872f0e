package org.protypos.maven;

import java.io.IOException;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.maven.execution.MavenSession;
import org.apache.maven.project.MavenProject;
import org.eclipse.aether.RepositorySystem;
import org.eclipse.aether.artifact.Artifact;
import org.eclipse.aether.artifact.DefaultArtifact;
import org.eclipse.aether.resolution.ArtifactRequest;
import org.eclipse.aether.resolution.ArtifactResolutionException;

/** Finds contracts that artifacts of a repository carry: {@code group:id:version!/path/desk.wsdl}. */
record Artifacts(RepositorySystem repositories, MavenSession session, MavenProject project) {
    private static final Pattern ADDRESS = Pattern.compile("([^:!/]+):([^:!/]+)(?::([^:!/]+))?!/(.+)");

    /**
     * The document as the core names one within an archive.
     *
     * @param address group, artifact and version, which may be left out for a dependency of the project, and the path in it
     * @throws IOException when there is no such artifact, or it is not written so
     */
    String document(String address) throws IOException {
        Matcher parts = ADDRESS.matcher(address.strip());
        if (!parts.matches()) {
            throw new IOException("artifact: \"" + address + "\" is not written like group:id:version!/path/desk.wsdl");
        }
        String version = parts.group(3) == null ? version(parts.group(1), parts.group(2)) : parts.group(3);
        Artifact wanted = new DefaultArtifact(parts.group(1), parts.group(2), "jar", version);
        try {
            Path file = repositories
                    .resolveArtifact(
                            session.getRepositorySession(),
                            new ArtifactRequest(wanted, project.getRemoteProjectRepositories(), null))
                    .getArtifact()
                    .getFile()
                    .toPath();
            return file + "!/" + parts.group(4);
        } catch (ArtifactResolutionException e) {
            throw new IOException("artifact: " + e.getMessage(), e);
        }
    }

    private String version(String group, String id) throws IOException {
        return project.getDependencies().stream()
                .filter(dependency -> dependency.getGroupId().equals(group)
                        && dependency.getArtifactId().equals(id))
                .map(dependency -> dependency.getVersion())
                .findFirst()
                .orElseThrow(() -> new IOException(
                        "artifact: " + group + ":" + id + " is no dependency of the project: say its version too"));
    }
}
