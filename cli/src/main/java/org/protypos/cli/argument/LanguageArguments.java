package org.protypos.cli.argument;

import java.util.List;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.syntax.Described;
import org.protypos.target.Target;
import org.protypos.target.Targets;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** In which language code is generated. */
public final class LanguageArguments implements Described {
    private CommandSpec spec;
    private String language;

    @Override
    public void describe(CommandSyntax syntax) {
        spec = syntax.spec();
        syntax.option(
                        String.class,
                        "--language",
                        "NAME",
                        "The language of the code: ${COMPLETION-CANDIDATES}; what the project file says, or else java.")
                .words(() -> names().iterator())
                .into(value -> language = value);
    }

    private static List<String> names() {
        return Targets.all().stream().map(Target::name).toList();
    }

    /** The language that is given, or null for none. */
    public Target target() {
        if (language == null) {
            return null;
        }
        Target target = Targets.named(language);
        if (target == null) {
            throw new ParameterException(
                    spec.commandLine(),
                    "there is no language " + language + "; the languages are " + String.join(", ", names()));
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
