package org.protypos.archive;

import java.net.URI;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedService;

/**
 * What a servlet container is told: a servlet for each interface, so that all its ports share one implementation, mapped to
 * the paths of the ports (Jakarta Servlet 5.0, sections 12.2 and 14).
 */
final class Deployment {
    private final Plan plan;
    private final Map<PlannedInterface, Set<String>> paths = new LinkedHashMap<>();

    Deployment(Plan plan) {
        this.plan = plan;
        Set<String> taken = new LinkedHashSet<>();
        for (PlannedService service : plan.services()) {
            for (PlannedService.Port port : service.ports()) {
                if (port.type().binding()) {
                    String path = path(port.address(), port.xmlName());
                    Set<String> own = paths.computeIfAbsent(port.type(), any -> new LinkedHashSet<>());
                    if (!own.contains(path)) {
                        // Two interfaces at one path are told apart by the names of their ports.
                        own.add(taken.contains(path) ? free(port.xmlName(), taken) : path);
                        taken.addAll(own);
                    }
                }
            }
        }
        for (PlannedInterface type : plan.interfaces()) {
            if (type.binding() && !paths.containsKey(type)) {
                paths.put(type, Set.of(free(type.xmlName().getLocalPart(), taken)));
            }
        }
    }

    /** A path made of a name that no other has. */
    private static String free(String name, Set<String> taken) {
        String free = "/" + segment(name);
        for (int number = 2; !taken.add(free); number++) {
            free = "/" + segment(name) + "-" + number;
        }
        return free;
    }

    /** The interfaces that are served. */
    List<PlannedInterface> interfaces() {
        return List.copyOf(paths.keySet());
    }

    /** The path that the address of a port has; one made of its name where there is none that a container takes. */
    private static String path(String address, String port) {
        try {
            String path = address == null ? null : URI.create(address).getPath();
            if (path != null && path.matches("(/[A-Za-z0-9._~-]+)+/?")) {
                return path.replaceFirst("/$", "");
            }
        } catch (IllegalArgumentException e) {
            // What is no address has no path.
        }
        return "/" + segment(port);
    }

    private static String segment(String name) {
        return name.replaceAll("[^A-Za-z0-9._~-]", "_");
    }

    private String servlet(PlannedInterface type) {
        return plan.rootPackage() + ".deployed." + type.servlet() + "Deployed"
                + interfaces().indexOf(type);
    }

    /** Servlets that a container can make by itself. */
    List<SourceFile> servlets(Map<String, String> implementations) {
        List<SourceFile> files = new ArrayList<>();
        for (PlannedInterface type : interfaces()) {
            String name = servlet(type);
            String simple = name.substring(name.lastIndexOf('.') + 1);
            files.add(new SourceFile(name.replace('.', '/') + ".java", """
                    package %s;

                    public final class %s extends %s.%s {
                        private static final long serialVersionUID = 1L;

                        public %s() {
                            super(new %s());
                        }
                    }
                    """.formatted(
                    name.substring(0, name.lastIndexOf('.')),
                    simple,
                    type.packageName(),
                    type.servlet(),
                    simple,
                    implementations.get(type.packageName() + "." + type.name()).replace('$', '.'))));
        }
        return files;
    }

    /** The deployment descriptor. */
    String descriptor() {
        StringBuilder text = new StringBuilder("""
                <?xml version="1.0" encoding="UTF-8"?>
                <web-app xmlns="https://jakarta.ee/xml/ns/jakartaee" version="5.0" metadata-complete="true">
                """);
        for (PlannedInterface type : interfaces()) {
            String name = servlet(type).substring(servlet(type).lastIndexOf('.') + 1);
            text.append("  <servlet>\n    <servlet-name>")
                    .append(name)
                    .append("</servlet-name>\n    <servlet-class>")
                    .append(servlet(type))
                    .append("</servlet-class>\n  </servlet>\n  <servlet-mapping>\n    <servlet-name>")
                    .append(name)
                    .append("</servlet-name>\n");
            for (String path : paths.get(type)) {
                text.append("    <url-pattern>").append(path).append("/*</url-pattern>\n");
            }
            text.append("  </servlet-mapping>\n");
        }
        return text.append("</web-app>\n").toString();
    }
}
