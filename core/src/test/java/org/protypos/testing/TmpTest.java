package org.protypos.testing;

import java.nio.file.*;
import java.util.*;
import org.junit.jupiter.api.*;

class TmpTest {
    @Test
    void t() throws Exception {
        Path f = Files.createDirectories(Path.of("/tmp/rc21"));
        RandomContract c = new RandomContract(21, 40);
        Path p = c.layOut(f);
        for (int i = 0; i < 150; i++) Files.writeString(f.resolve("m" + i + ".xml"), c.message());
    }
}
