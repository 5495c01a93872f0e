package org.protypos.target.csharp;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** What compiles and runs C# on this machine. */
interface PlatformToolchain {
    /** The command that compiles, as a person would begin it. */
    String compiles();

    /** The command that starts a program, as a person would write it. */
    String starts(String program);

    /**
     * Compiles a program, with warnings as errors.
     *
     * @param sources its files
     * @param folder an existing folder for what comes out
     * @param program the name of the program, without a suffix
     * @return what the compiler says; empty when it is content
     */
    String compile(List<Path> sources, Path folder, String program) throws IOException;

    /** What starts a program that was compiled, with arguments. */
    ProcessBuilder start(Path folder, String program, String... arguments);
}
