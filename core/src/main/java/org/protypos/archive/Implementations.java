package org.protypos.archive;

import java.io.IOException;
import java.lang.reflect.Modifier;
import java.net.MalformedURLException;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Setting;
import org.protypos.target.classes.PlannedInterface;

/** Finds the classes that implement the interfaces of a contract. None of them is run: they are only looked at. */
final class Implementations {
    private Implementations() {}

    /** The names of the classes in a jar. */
    static List<String> classNames(Path jar) throws IOException {
        try (ZipFile zip = new ZipFile(jar.toFile())) {
            return zip.stream()
                    .map(ZipEntry::getName)
                    .filter(name ->
                            name.endsWith(".class") && !name.startsWith("META-INF/") && !name.endsWith("-info.class"))
                    .map(name ->
                            name.substring(0, name.length() - ".class".length()).replace('/', '.'))
                    .toList();
        } catch (java.util.zip.ZipException e) {
            throw new IOException(jar + " is no jar: " + e.getMessage(), e);
        }
    }

    /**
     * Finds for each interface the one class that implements it.
     *
     * @return the names of the classes by those of the interfaces
     */
    static Map<String, String> find(
            List<PlannedInterface> interfaces, Collection<String> candidates, List<Path> classPath, Findings findings)
            throws IOException {
        Map<String, String> found = new TreeMap<>();
        URL[] places = classPath.stream().map(Implementations::url).toArray(URL[]::new);
        try (URLClassLoader loader = new URLClassLoader(places, ClassLoader.getPlatformClassLoader())) {
            for (PlannedInterface type : interfaces) {
                String name = type.packageName() + "." + type.name();
                List<String> of = new ArrayList<>();
                for (String candidate : candidates) {
                    if (isImplementation(loader, candidate, name)) {
                        of.add(candidate);
                    }
                }
                if (of.size() == 1) {
                    found.put(name, of.get(0));
                } else {
                    findings.error(
                            "no-implementation",
                            null,
                            of.isEmpty()
                                    ? "there is no public class with a constructor without parameters that implements "
                                            + name
                                    : "there is more than one class that implements " + name + ": "
                                            + String.join(", ", of),
                            of.isEmpty()
                                    ? "give it with " + Setting.WITH + ": a folder of sources, or a jar"
                                    : "leave one of them in what " + Setting.WITH + " names");
                }
            }
        }
        return found;
    }

    private static boolean isImplementation(ClassLoader loader, String candidate, String name) {
        try {
            Class<?> type = Class.forName(candidate, false, loader);
            return Modifier.isPublic(type.getModifiers())
                    && !Modifier.isAbstract(type.getModifiers())
                    && Class.forName(name, false, loader).isAssignableFrom(type)
                    && Modifier.isPublic(type.getConstructor().getModifiers());
        } catch (ReflectiveOperationException | LinkageError e) {
            // What cannot be loaded implements nothing.
            return false;
        }
    }

    private static URL url(Path path) {
        try {
            return path.toUri().toURL();
        } catch (MalformedURLException e) {
            throw new IllegalStateException(e);
        }
    }
}
