package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.io.Writer;
import org.junit.jupiter.api.Test;
import org.protypos.cli.terminal.ExitStatus;

/** Whatever a command throws comes out as a sentence. */
class LastNetTest {
    private final StringWriter messages = new StringWriter();

    /** A side for results that fails in the middle of a command. */
    private static final class Failing extends Writer {
        private final Error failure;

        Failing(Error failure) {
            this.failure = failure;
        }

        @Override
        public void write(char[] buffer, int offset, int length) {
            throw failure;
        }

        @Override
        public void flush() {
            // nothing was taken
        }

        @Override
        public void close() {
            // nothing is open
        }
    }

    private int run(Error failure) {
        return Main.run(
                new PrintWriter(new Failing(failure)),
                new PrintWriter(messages),
                "show",
                "../examples/harbour/contract/desk.wsdl");
    }

    @Test
    void errorsOfTheProgramAreOneSentenceEach() {
        assertThat(run(new StackOverflowError())).isEqualTo(ExitStatus.OUTSIDE);
        assertThat(messages.toString())
                .contains("protypos show ended early by a mistake in protypos itself: StackOverflowError in cli.")
                .contains("PROTYPOS_TRACE=1")
                .doesNotContain("\tat ");
    }

    @Test
    void tooLittleMemoryIsNoMistake() {
        assertThat(run(new OutOfMemoryError("Java heap space"))).isEqualTo(ExitStatus.OUTSIDE);
        assertThat(messages.toString())
                .contains("protypos show needs more memory than the ")
                .contains("PROTYPOS_JAVA_FLAGS=-Xmx4g")
                .doesNotContain("mistake");
    }
}
