package org.protypos.packaging;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.objectweb.asm.ClassReader;
import org.objectweb.asm.ClassWriter;
import org.objectweb.asm.Opcodes;
import org.objectweb.asm.tree.ClassNode;

/**
 * Gives the lambdas and method references in a jar classes of their own, and records their methods. A lambda is linked
 * when it is first met, at a fifth of a millisecond; a start of the program meets hundreds. A class comes out of the
 * class-data archive for a tenth of that.
 */
public final class LambdaJar {
    /** Classes that name no members of a nest, which came with Java 11, have no way to let others at what is private. */
    private static final int FIRST_VERSION = Opcodes.V11;

    private record Entry(LocalDateTime time, byte[] content) {}

    private final Map<String, Entry> entries = new LinkedHashMap<>();
    private final Map<String, ClassNode> classes = new LinkedHashMap<>();

    private LambdaJar() {}

    /** Rewrites the jar that is named. */
    public static void main(String[] arguments) throws IOException {
        rewrite(Path.of(arguments[0]));
    }

    /**
     * Rewrites a jar in its place. A second time changes nothing.
     *
     * @return how many lambdas and methods of records were replaced
     */
    static int rewrite(Path jar) throws IOException {
        LambdaJar rewritten = new LambdaJar();
        try (InputStream in = Files.newInputStream(jar)) {
            rewritten.read(in);
        }
        int replaced = rewritten.replace();
        Path whole = jar.resolveSibling(jar.getFileName() + ".new");
        try (OutputStream out = Files.newOutputStream(whole)) {
            rewritten.write(out);
        }
        Files.move(whole, jar, StandardCopyOption.REPLACE_EXISTING);
        return replaced;
    }

    private void read(InputStream in) throws IOException {
        ZipInputStream zip = new ZipInputStream(in);
        for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
            byte[] content = zip.readAllBytes();
            entries.put(entry.getName(), new Entry(entry.getTimeLocal(), content));
            if (entry.getName().endsWith(".class") && !entry.getName().startsWith("META-INF/")) {
                ClassReader reader = new ClassReader(content);
                if (reader.readUnsignedShort(6) >= FIRST_VERSION) {
                    ClassNode node = new ClassNode();
                    reader.accept(node, 0);
                    classes.put(entry.getName(), node);
                }
            }
        }
    }

    private int replace() {
        Map<String, ClassNode> byName = new LinkedHashMap<>();
        classes.values().forEach(node -> byName.put(node.name, node));
        Set<ClassNode> changed = new HashSet<>();
        Map<String, Entry> added = new LinkedHashMap<>();
        int methods = 0;
        for (ClassNode owner : classes.values()) {
            int written = RecordMethods.writeIn(owner);
            if (written > 0) {
                changed.add(owner);
            }
            methods += written;
        }
        classes.forEach((file, owner) -> {
            ClassNode host = owner.nestHostClass == null ? owner : byName.get(owner.nestHostClass);
            for (LambdaClass lambda : LambdaClass.replaceIn(owner)) {
                if (host.nestMembers == null) {
                    host.nestMembers = new ArrayList<>();
                }
                host.nestMembers.add(lambda.name());
                changed.add(owner);
                changed.add(host);
                added.put(lambda.name() + ".class", new Entry(entries.get(file).time(), lambda.code()));
            }
        });
        classes.forEach((file, node) -> {
            if (changed.contains(node)) {
                ClassWriter writer = new ClassWriter(0);
                node.accept(writer);
                entries.put(file, new Entry(entries.get(file).time(), writer.toByteArray()));
            }
        });
        entries.putAll(added);
        return added.size() + methods;
    }

    private void write(OutputStream out) throws IOException {
        ZipOutputStream zip = new ZipOutputStream(out);
        for (Map.Entry<String, Entry> each : entries.entrySet()) {
            ZipEntry entry = new ZipEntry(each.getKey());
            entry.setTimeLocal(each.getValue().time());
            zip.putNextEntry(entry);
            zip.write(each.getValue().content());
        }
        zip.finish();
    }
}
