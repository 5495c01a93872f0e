package org.protypos.cli.syntax;

import java.util.List;
import java.util.Map;
import java.util.Stack;
import java.util.function.Consumer;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.IGetter;
import picocli.CommandLine.Model.ISetter;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.ScopeType;

/**
 * What the line of a command may hold. Commands say it in calls rather than in annotations: to read annotations by
 * reflection took a quarter of the time in which a small contract is read and shown.
 */
public final class CommandSyntax {
    private final CommandSpec spec;
    private int parameters;

    private CommandSyntax(CommandSpec spec) {
        this.spec = spec;
    }

    /** The description of a command, ready to be parsed with. */
    public static CommandSpec of(Command command) {
        CommandSpec spec = CommandSpec.wrapWithoutInspection(command);
        command.describe(new CommandSyntax(spec));
        return spec;
    }

    /** What describes the command, and leads to its line once that is parsed. */
    public CommandSpec spec() {
        return spec;
    }

    /** Names the command, and says what it is for: a paragraph each. */
    public void command(String name, String... description) {
        spec.name(name).usageMessage().description(description);
    }

    /** Options that show what a line may hold, of this command and of those below it. */
    public void help(String shortName, String name, String description) {
        spec.addOption(OptionSpec.builder(shortName, name)
                .usageHelp(true)
                .scopeType(ScopeType.INHERIT)
                .description(description)
                .build());
    }

    /** Options that tell the version. */
    public void version(String shortName, String name, String description) {
        spec.addOption(OptionSpec.builder(shortName, name)
                .versionHelp(true)
                .description(description)
                .build());
    }

    /** An option without a value. */
    public Option<Boolean> flag(String name, String description) {
        return new Option<>(OptionSpec.builder(name).type(boolean.class), description);
    }

    /** An option with a value. */
    public <T> Option<T> option(Class<T> type, String name, String label, String description) {
        return new Option<>(
                OptionSpec.builder(name).type(type).paramLabel(label).preprocessor(CommandSyntax::refuseEmpty),
                description);
    }

    /** An option with a value that may be given several times. */
    public <T> Option<List<T>> options(Class<T> type, String name, String label, String description) {
        return new Option<>(
                OptionSpec.builder(name)
                        .type(List.class)
                        .auxiliaryTypes(type)
                        .paramLabel(label)
                        .preprocessor(CommandSyntax::refuseEmpty),
                description);
    }

    /** The next parameter, which has to be there. */
    public <T> Parameter<T> parameter(Class<T> type, String label, String description) {
        PositionalParamSpec.Builder next = PositionalParamSpec.builder().index(String.valueOf(parameters++));
        return new Parameter<>(next.type(type).arity("1").required(true), label, description);
    }

    /** All further parameters, of which there may be none. */
    public <T> Parameter<List<T>> parameters(Class<T> type, String label, String description) {
        PositionalParamSpec.Builder rest = PositionalParamSpec.builder().index(parameters + "..*");
        return new Parameter<>(rest.type(List.class).auxiliaryTypes(type).arity("0..*"), label, description);
    }

    /**
     * Refuses a value of no letters, which as a path would be the folder that one is in: scripts say it whose variables are
     * not set.
     */
    private static boolean refuseEmpty(
            Stack<String> values, CommandSpec command, ArgSpec argument, Map<String, Object> information) {
        // The first of several parameters comes with those behind it, up to an option.
        for (int i = values.size() - 1; i >= 0; i--) {
            if (values.get(i).isEmpty()) {
                String said = argument instanceof OptionSpec option
                        ? option.longestName() + ": the value is empty"
                        : "an argument is empty";
                throw new ParameterException(command.commandLine(), said);
            }
            if (argument instanceof OptionSpec || values.get(i).startsWith("-")) {
                break;
            }
        }
        return false;
    }

    /** An option that is being described. */
    public final class Option<T> {
        private final OptionSpec.Builder builder;

        private Option(OptionSpec.Builder builder, String description) {
            this.builder = builder.description(description);
        }

        /** Without it the line is refused. */
        public Option<T> required() {
            builder.required(true);
            return this;
        }

        /** One value may hold several, with a text between them. */
        public Option<T> split(String between) {
            builder.splitRegex(between);
            return this;
        }

        /** The values that there are, for the description. */
        public Option<T> words(Iterable<String> words) {
            builder.completionCandidates(words);
            return this;
        }

        /** Ends the description: this takes the value, when there is one. */
        public void into(Consumer<T> taker) {
            Held<T> held = new Held<>(taker);
            spec.addOption(
                    builder.getter(held).setter(held).hasInitialValue(false).build());
        }
    }

    /** A parameter that is being described. */
    public final class Parameter<T> {
        private final PositionalParamSpec.Builder builder;

        private Parameter(PositionalParamSpec.Builder builder, String label, String description) {
            this.builder = builder.paramLabel(label).description(description).preprocessor(CommandSyntax::refuseEmpty);
        }

        /** Without one of them the line is refused. */
        public Parameter<T> required() {
            builder.required(true).arity("1..*");
            return this;
        }

        /** The line may be without it. */
        public Parameter<T> optional() {
            builder.required(false).arity("0..1");
            return this;
        }

        /** Ends the description: this takes the value, when there is one. */
        public void into(Consumer<T> taker) {
            Held<T> held = new Held<>(taker);
            spec.addPositional(
                    builder.getter(held).setter(held).hasInitialValue(false).build());
        }
    }

    /** A value on its way from the line to who wants it. Lists are filled by and by, so it is kept. */
    private static final class Held<T> implements IGetter, ISetter {
        private final Consumer<T> taker;
        private Object value;

        private Held(Consumer<T> taker) {
            this.taker = taker;
        }

        @Override
        @SuppressWarnings("unchecked")
        public <V> V get() {
            return (V) value;
        }

        @Override
        @SuppressWarnings("unchecked")
        public <V> V set(V given) {
            V before = (V) value;
            value = given;
            taker.accept((T) given);
            return before;
        }
    }
}
