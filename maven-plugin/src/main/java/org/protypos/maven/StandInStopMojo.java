package org.protypos.maven;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.apache.maven.plugins.annotations.LifecyclePhase;
import org.apache.maven.plugins.annotations.Mojo;
import org.apache.maven.project.MavenProject;
import org.protypos.exchange.standin.StandIn;

/** Ends what the goal stand-in has begun. */
@Mojo(name = "stand-in-stop", defaultPhase = LifecyclePhase.POST_INTEGRATION_TEST, threadSafe = true)
public final class StandInStopMojo extends ContractMojo {
    @Override
    void work() {
        List<StandIn> played = played(project());
        played.forEach(StandIn::close);
        getLog().info(played.size() == 1 ? "the stand-in has ended" : played.size() + " stand-ins have ended");
        played.clear();
    }

    /** What is being played in a project. */
    @SuppressWarnings("unchecked")
    static List<StandIn> played(MavenProject project) {
        synchronized (project) {
            Object known = project.getContextValue(StandInMojo.PLAYED);
            if (known == null) {
                known = new CopyOnWriteArrayList<StandIn>();
                project.setContextValue(StandInMojo.PLAYED, known);
            }
            return (List<StandIn>) known;
        }
    }
}
