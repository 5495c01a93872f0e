package org.protypos.cli.argument;

import java.util.Iterator;
import java.util.List;
import org.protypos.target.Target;
import org.protypos.target.Targets;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** In which language code is generated. */
public final class LanguageArguments {
    /** The languages that there are. */
    static final class Names implements Iterable<String> {
        @Override
        public Iterator<String> iterator() {
            return Targets.all().stream().map(Target::name).iterator();
        }
    }

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    @Option(
            names = "--language",
            paramLabel = "NAME",
            completionCandidates = Names.class,
            description =
                    "The language of the code: ${COMPLETION-CANDIDATES}; what the project file says, or else java.")
    private String language;

    /** The language that is given, or null for none. */
    public Target target() {
        if (language == null) {
            return null;
        }
        Target target = Targets.named(language);
        if (target == null) {
            throw new ParameterException(
                    spec.commandLine(),
                    "there is no language " + language + "; the languages are " + String.join(", ", new Names()));
        }
        return target;
    }

    /** The language that is given, or else the one when nobody asks for another. */
    public Target targetOrStandard() {
        Target target = target();
        return target == null ? Targets.standard() : target;
    }

    /** How to say the same on another command line. */
    public List<String> arguments() {
        return language == null ? List.of() : List.of("--language", language);
    }

    /** The same as text, with a blank before it. */
    public String again() {
        return arguments().isEmpty() ? "" : " " + String.join(" ", arguments());
    }
}
