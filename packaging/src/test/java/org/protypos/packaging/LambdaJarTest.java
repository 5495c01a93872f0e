package org.protypos.packaging;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import javax.tools.JavaCompiler;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.objectweb.asm.ClassReader;
import org.objectweb.asm.tree.AbstractInsnNode;
import org.objectweb.asm.tree.ClassNode;
import org.objectweb.asm.tree.InvokeDynamicInsnNode;
import org.objectweb.asm.tree.MethodNode;

/** Code does the same after its lambdas have become classes; the virtual machine verifies each of them. */
class LambdaJarTest {
    private static final LocalDateTime TIME = LocalDateTime.of(2026, 1, 1, 0, 0);

    @TempDir
    Path folder;

    @Test
    void code_does_the_same_without_links_at_run_time() throws Exception {
        Path jar = compiled("17");
        String before = run(jar);
        int lambdas = linked(jar, "metafactory");
        assertThat(lambdas).isGreaterThan(40);
        int serializable = linked(jar, "altMetafactory");
        assertThat(LambdaJar.rewrite(jar))
                .as("and how a record compares and hashes")
                .isEqualTo(lambdas + 2);
        assertThat(run(jar)).isEqualTo(before).contains("ahoy, OTTER", "kept as it is", "refused");
        assertThat(linked(jar, "metafactory")).isZero();
        assertThat(linked(jar, "altMetafactory")).isEqualTo(serializable).isPositive();
    }

    /** Each pair of records that differ in one component at most: whether they are equal, and what they hash to. */
    @Test
    void records_compare_and_hash_as_before() throws Exception {
        Path source = folder.resolve("Lambdas.java");
        Files.writeString(source, """
                import java.util.ArrayList;
                import java.util.List;
                import java.util.Objects;
                public class Lambdas {
                    record All(boolean a, byte b, short c, char d, int e, long f, float g, double h, String i, int[] j, List<?> k) {}
                    record None() {}
                    record Generic<T extends Comparable<T>>(T value, Object rest) {
                        @Override public int hashCode() { return 7; }
                    }
                    public static String run() {
                        int[] array = {1};
                        List<Object> all = new ArrayList<>();
                        all.add(new None());
                        all.add(new Generic<>("x", null));
                        all.add(new Generic<>("x", all.get(0)));
                        for (int i = 0; i < 14; i++) {
                            all.add(new All(i == 1, (byte) (i == 2 ? -2 : 1), (short) (i == 3 ? 2 : 1), i == 4 ? 'x' : 'y',
                                    i == 5 ? -5 : 5, i == 6 ? 1L << 40 : 1, i == 7 ? Float.NaN : -0f, i == 8 ? -0d : 0d,
                                    i == 9 ? null : "text", i == 10 ? null : array, i == 11 ? List.of(1) : null));
                        }
                        StringBuilder said = new StringBuilder();
                        for (Object one : all) {
                            for (Object other : all) {
                                said.append(one.equals(other) ? '=' : '.');
                            }
                            said.append(one.equals(null) || one.equals("text")).append(' ');
                            said.append(one instanceof All each && each.j() != null
                                    ? one.hashCode() - array.hashCode() * 31 : one.hashCode()).append('\\n');
                        }
                        return said.toString().replace(String.valueOf(array.hashCode()), "");
                    }
                }
                """);
        Path jar = compiled("17", source);
        String before = run(jar);
        assertThat(linked(jar, "bootstrap")).isEqualTo(8);
        assertThat(LambdaJar.rewrite(jar)).isEqualTo(5);
        assertThat(run(jar)).isEqualTo(before).contains("=..", "false");
        assertThat(linked(jar, "bootstrap")).as("texts").isEqualTo(3);
    }

    @Test
    void a_second_time_changes_nothing_and_times_stay() throws Exception {
        Path jar = compiled("17");
        LambdaJar.rewrite(jar);
        byte[] once = Files.readAllBytes(jar);
        assertThat(LambdaJar.rewrite(jar)).isZero();
        assertThat(Files.readAllBytes(jar)).isEqualTo(once);
        try (ZipFile zip = new ZipFile(jar.toFile())) {
            assertThat(zip.stream().map(ZipEntry::getTimeLocal)).containsOnly(TIME);
        }
    }

    @Test
    void classes_without_nests_stay_as_they_are() throws Exception {
        Path source = folder.resolve("Old.java");
        Files.writeString(source, "class Old { Runnable said = () -> System.out.println(); }");
        Path jar = compiled("8", source);
        byte[] before = Files.readAllBytes(jar);
        assertThat(LambdaJar.rewrite(jar)).isZero();
        assertThat(Files.readAllBytes(jar)).isEqualTo(before);
    }

    private Path compiled(String release) throws Exception {
        Path source = folder.resolve("Lambdas.java");
        try (InputStream in = LambdaJarTest.class.getResourceAsStream("/Lambdas.java")) {
            Files.write(source, in.readAllBytes());
        }
        return compiled(release, source);
    }

    private Path compiled(String release, Path source) throws IOException {
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        Path classes = Files.createDirectory(folder.resolve("classes"));
        int status = compiler.run(
                null, null, null, "--release", release, "-Xlint:-options", "-d", classes.toString(), source.toString());
        assertThat(status).isZero();
        Path jar = folder.resolve("code.jar");
        try (Stream<Path> files = Files.list(classes);
                OutputStream out = Files.newOutputStream(jar);
                ZipOutputStream zip = new ZipOutputStream(out)) {
            for (Path file : files.sorted().toList()) {
                ZipEntry entry = new ZipEntry(file.getFileName().toString());
                entry.setTimeLocal(TIME);
                zip.putNextEntry(entry);
                zip.write(Files.readAllBytes(file));
            }
        }
        return jar;
    }

    private static String run(Path jar) throws Exception {
        URL[] place = {jar.toUri().toURL()};
        try (URLClassLoader loader = new URLClassLoader(place, ClassLoader.getPlatformClassLoader())) {
            return (String) loader.loadClass("Lambdas").getMethod("run").invoke(null);
        }
    }

    /** How many places of the code are linked at run time by a method of the factory for lambdas. */
    private static int linked(Path jar, String factory) throws IOException {
        List<InvokeDynamicInsnNode> found = new ArrayList<>();
        try (ZipFile zip = new ZipFile(jar.toFile())) {
            for (ZipEntry entry : zip.stream().toList()) {
                ClassNode node = new ClassNode();
                new ClassReader(zip.getInputStream(entry).readAllBytes()).accept(node, 0);
                for (MethodNode method : node.methods) {
                    for (AbstractInsnNode instruction : method.instructions) {
                        if (instruction instanceof InvokeDynamicInsnNode site
                                && site.bsm.getName().equals(factory)) {
                            found.add(site);
                        }
                    }
                }
            }
        }
        return found.size();
    }
}
