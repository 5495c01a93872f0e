package org.protypos.testing;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.Method;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.apache.catalina.Context;
import org.apache.catalina.startup.Tomcat;

/** The harbour desk, generated, compiled and served: by the JDK's own server and in a servlet container. */
public final class HarbourOffice {
    /** Where the contract and the implementation are. */
    public static final Path EXAMPLE = Path.of("../examples/harbour");

    private static final String DESK = "example.lanternbay.harbour.desk.";

    private final URLClassLoader loader;
    private AutoCloseable server;
    private Tomcat container;
    private String address;

    private HarbourOffice(URLClassLoader loader) {
        this.loader = loader;
    }

    /** Generates, compiles and starts, with everything in a folder. */
    public static HarbourOffice open(Path folder) throws Exception {
        Generated.withServlets(EXAMPLE.resolve("contract/desk.wsdl"), folder).close();
        Path sources = Files.createDirectories(folder.resolve("sources/example/lanternbay/office"));
        Files.copy(
                EXAMPLE.resolve("src/example/lanternbay/office/LanternBayDesk.java"),
                sources.resolve("LanternBayDesk.java"));
        for (String callers : List.of("Calls.java", "Wire.java")) {
            Files.copy(Path.of("src/test/resources/calls", callers), sources.resolve(callers));
        }
        Path classes = folder.resolve("classes");
        assertThat(Generated.compile(folder.resolve("sources"), classes)).isEmpty();
        URL[] path = {classes.toUri().toURL()};
        HarbourOffice office = new HarbourOffice(new URLClassLoader(path, HarbourOffice.class.getClassLoader()));
        Object desk = office.load("example.lanternbay.office.LanternBayDesk")
                .getConstructor()
                .newInstance();
        office.serve(desk);
        office.contain(desk, folder);
        return office;
    }

    private void serve(Object desk) throws Exception {
        Class<?> servers = load(DESK + "runtime.soap.SoapServer");
        server = (AutoCloseable) servers.getMethod("listen", InetSocketAddress.class)
                .invoke(null, new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
        Object endpoint = load(DESK + "HarbourDeskEndpoint")
                .getMethod("of", load(DESK + "HarbourDesk"))
                .invoke(null, desk);
        servers.getMethod("publish", String.class, load(DESK + "runtime.soap.Endpoint"))
                .invoke(server, "/desk", endpoint);
        address = "http://127.0.0.1:" + servers.getMethod("port").invoke(server) + "/desk";
    }

    private void contain(Object desk, Path folder) throws Exception {
        container = new Tomcat();
        container.setBaseDir(folder.resolve("container").toString());
        container.setPort(0);
        container.getConnector().setProperty("address", "127.0.0.1");
        Context context = container.addContext("/office", null);
        Tomcat.addServlet(context, "desk", (jakarta.servlet.Servlet) load(DESK + "HarbourDeskServlet")
                .getConstructor(load(DESK + "HarbourDesk"))
                .newInstance(desk));
        context.addServletMappingDecoded("/desk/*", "desk");
        container.start();
    }

    /** The address of the desk at the JDK's own server. */
    public String address() {
        return address;
    }

    /** The address of the desk in the servlet container. */
    public String containedAddress() {
        return "http://127.0.0.1:" + container.getConnector().getLocalPort() + "/office/desk";
    }

    /** Loads a generated class. */
    public Class<?> load(String name) throws ClassNotFoundException {
        return loader.loadClass(name);
    }

    /** Has the caller make some calls and gives what it tells. */
    public String calls(String method, Object... arguments) throws Exception {
        for (Method candidate : load("example.lanternbay.office.Calls").getMethods()) {
            if (candidate.getName().equals(method)) {
                return (String) candidate.invoke(null, arguments);
            }
        }
        throw new NoSuchMethodException(method);
    }

    /** Stops both servers. */
    public void close() throws Exception {
        server.close();
        container.stop();
        container.destroy();
        loader.close();
    }
}
