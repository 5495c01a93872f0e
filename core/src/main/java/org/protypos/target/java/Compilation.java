package org.protypos.target.java;

import java.io.ByteArrayOutputStream;
import java.io.File;
import java.io.IOException;
import java.io.OutputStream;
import java.io.StringWriter;
import java.net.URI;
import java.net.URISyntaxException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.tools.FileObject;
import javax.tools.ForwardingJavaFileManager;
import javax.tools.JavaCompiler;
import javax.tools.JavaFileManager;
import javax.tools.JavaFileObject;
import javax.tools.SimpleJavaFileObject;
import javax.tools.StandardLocation;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.target.SourceFile;

/** Compiles generated sources in memory, only those that a first class leads to, and loads them. */
final class Compilation {
    private final JavaCompiler compiler;
    private final Map<String, List<Source>> byPackage = new HashMap<>();
    private final Map<String, Compiled> classes = new HashMap<>();

    Compilation(JavaCompiler compiler, List<SourceFile> files) {
        this.compiler = compiler;
        for (SourceFile file : files) {
            Source source = new Source(file);
            byPackage
                    .computeIfAbsent(source.packageName(), any -> new ArrayList<>())
                    .add(source);
        }
    }

    /**
     * Compiles a class with all that it needs and loads it.
     *
     * @throws IllegalStateException when the sources do not compile
     */
    Class<?> load(String packageName, String name) throws IOException {
        Source first = byPackage.get(packageName).stream()
                .filter(source -> source.binaryName.equals(packageName + "." + name))
                .findFirst()
                .orElseThrow();
        StringWriter messages = new StringWriter();
        try (Files files = new Files(compiler.getStandardFileManager(null, null, null))) {
            List<String> options =
                    List.of("-proc:none", "-Xlint:none", "-implicit:class", "-g:none", "-classpath", runtimeHome());
            boolean compiled = compiler.getTask(messages, files, null, options, null, List.of(first))
                    .call();
            if (!compiled) {
                throw new IllegalStateException("the generated code does not compile: " + messages);
            }
        }
        try {
            return new Loader().loadClass(packageName + "." + name);
        } catch (ClassNotFoundException e) {
            throw new IllegalStateException(e);
        }
    }

    private static String runtimeHome() {
        try {
            return new File(XmlTypes.class
                            .getProtectionDomain()
                            .getCodeSource()
                            .getLocation()
                            .toURI())
                    .getPath();
        } catch (URISyntaxException e) {
            throw new IllegalStateException(e);
        }
    }

    private final class Loader extends ClassLoader {
        Loader() {
            super(XmlTypes.class.getClassLoader());
        }

        @Override
        protected Class<?> findClass(String name) throws ClassNotFoundException {
            Compiled compiled = classes.get(name);
            if (compiled == null) {
                throw new ClassNotFoundException(name);
            }
            byte[] bytes = compiled.bytes.toByteArray();
            return defineClass(name, bytes, 0, bytes.length);
        }
    }

    private static final class Source extends SimpleJavaFileObject {
        private final String text;
        private final String binaryName;

        Source(SourceFile file) {
            super(URI.create("memory:///" + file.path()), Kind.SOURCE);
            text = file.text();
            binaryName = file.path()
                    .substring(0, file.path().length() - Kind.SOURCE.extension.length())
                    .replace('/', '.');
        }

        String packageName() {
            int dot = binaryName.lastIndexOf('.');
            return dot < 0 ? "" : binaryName.substring(0, dot);
        }

        @Override
        public CharSequence getCharContent(boolean ignoreEncodingErrors) {
            return text;
        }
    }

    private static final class Compiled extends SimpleJavaFileObject {
        private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();

        Compiled(String name) {
            super(URI.create("memory:///" + name.replace('.', '/') + Kind.CLASS.extension), Kind.CLASS);
        }

        @Override
        public OutputStream openOutputStream() {
            return bytes;
        }
    }

    /** Shows the compiler the sources as its source path, and keeps what it makes. */
    private final class Files extends ForwardingJavaFileManager<JavaFileManager> {
        Files(JavaFileManager standard) {
            super(standard);
        }

        @Override
        public boolean hasLocation(Location location) {
            return location == StandardLocation.SOURCE_PATH || super.hasLocation(location);
        }

        @Override
        public Iterable<JavaFileObject> list(
                Location location, String packageName, Set<JavaFileObject.Kind> kinds, boolean recurse)
                throws IOException {
            if (location == StandardLocation.SOURCE_PATH) {
                return new ArrayList<>(byPackage.getOrDefault(packageName, List.of()));
            }
            return super.list(location, packageName, kinds, recurse);
        }

        @Override
        public String inferBinaryName(Location location, JavaFileObject file) {
            return file instanceof Source source ? source.binaryName : super.inferBinaryName(location, file);
        }

        @Override
        public boolean isSameFile(FileObject a, FileObject b) {
            return a == b;
        }

        @Override
        public JavaFileObject getJavaFileForOutput(
                Location location, String name, JavaFileObject.Kind kind, FileObject sibling) {
            return classes.computeIfAbsent(name, Compiled::new);
        }
    }
}
