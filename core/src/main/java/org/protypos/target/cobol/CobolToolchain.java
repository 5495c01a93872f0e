package org.protypos.target.cobol;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import org.protypos.target.Toolchain;

/** Records need no compiler to be filled and read; programs are compiled where they run. */
final class CobolToolchain implements Toolchain {
    private static final String NO_EXAMPLE = "there is no example in COBOL that runs by itself";

    @Override
    public Missing missing() {
        return null;
    }

    @Override
    public List<String> example() {
        return List.of();
    }

    @Override
    public String compiles() {
        return "cobc -m";
    }

    @Override
    public String starts() {
        return "";
    }

    @Override
    public String compile(List<Path> sources, Path into) throws IOException {
        throw new IOException(NO_EXAMPLE);
    }

    @Override
    public void start(Path compiled, Consumer<String> lines) throws IOException {
        throw new IOException(NO_EXAMPLE);
    }
}
