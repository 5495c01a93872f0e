package org.protypos.testing;

import java.lang.reflect.Array;
import java.lang.reflect.Method;
import java.lang.reflect.Proxy;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.HashMap;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;

/** Generated servers that answer what they are told and keep what they were asked, and generated clients. */
public final class GeneratedEnds {
    private final Generated generated;
    private final String runtime;
    private final Map<String, Object> results = new HashMap<>();
    private Object[] seen;

    public GeneratedEnds(Generated generated) {
        this.generated = generated;
        this.runtime = generated.plan().rootPackage() + ".runtime.";
    }

    /** The operation of an interface that is called at one of its ports. */
    public static PlannedOperation operation(PlannedInterface type, CalledOperation called) {
        return type.operations().stream()
                .filter(one ->
                        one.api().subject().place().equals(called.operation().place()))
                .findFirst()
                .orElseThrow();
    }

    /** What is called at a port by the name that the contract has for it. */
    public CalledOperation called(PlannedService.Port port, String operation) {
        return CalledOperation.of(generated.contract()).stream()
                .filter(one -> one.port().name().equals(port.xmlName())
                        && one.operation().name().equals(operation))
                .findFirst()
                .orElseThrow();
    }

    /** What the servers answer, or throw, by the name of the method. */
    public Map<String, Object> results() {
        return results;
    }

    /** The arguments of the last call at a server, or null. */
    public Object[] seen() {
        return seen;
    }

    public void forget() {
        seen = null;
    }

    /** A class of the runtime beside the generated code. */
    public Class<?> runtime(String name) throws ClassNotFoundException {
        return generated.load(runtime + name);
    }

    /** Serves an interface under {@code /p}; the server is to be closed. */
    public AutoCloseable serve(PlannedInterface type) throws Exception {
        return serve(type, null);
    }

    /**
     * Serves an interface that somebody watches over.
     *
     * @param guard a guard of the runtime beside the generated code, or null
     */
    public AutoCloseable serve(PlannedInterface type, Object guard) throws Exception {
        Class<?> api = generated.load(type.packageName() + "." + type.name());
        Object implementation =
                Proxy.newProxyInstance(api.getClassLoader(), new Class<?>[] {api}, (proxy, method, arguments) -> {
                    seen = arguments == null ? new Object[0] : arguments;
                    Object result = results.get(method.getName());
                    if (result instanceof Throwable thrown) {
                        throw thrown;
                    }
                    return results.containsKey(method.getName()) ? result : nothing(method);
                });
        Object endpoint = generated
                .load(type.packageName() + "." + type.endpoint())
                .getMethod("of", api)
                .invoke(null, implementation);
        if (guard != null) {
            endpoint.getClass().getMethod("guarded", runtime("soap.SoapGuard")).invoke(endpoint, guard);
        }
        Class<?> servers = runtime("soap.SoapServer");
        Object server = servers.getMethod("listen", InetSocketAddress.class)
                .invoke(null, new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
        servers.getMethod("publish", String.class, runtime("soap.Endpoint")).invoke(server, "/p", endpoint);
        return (AutoCloseable) server;
    }

    /** Where a server of {@link #serve} listens. */
    public static String address(AutoCloseable server) throws ReflectiveOperationException {
        return "http://127.0.0.1:" + server.getClass().getMethod("port").invoke(server) + "/p";
    }

    private static Object nothing(Method method) {
        Class<?> type = method.getReturnType();
        return type.isPrimitive() && type != void.class ? Array.get(Array.newInstance(type, 1), 0) : null;
    }

    /** A client for an address; it may keep binary content in the message, where it can be compared. */
    public Object client(
            PlannedInterface type, PlannedService service, PlannedService.Port port, String address, boolean optimized)
            throws Exception {
        Class<?> settings = runtime("soap.SoapSettings");
        UnaryOperator<Object> with = given -> {
            try {
                Object changed = settings.getMethod("address", String.class).invoke(given, address);
                return optimized ? changed : settings.getMethod("notOptimized").invoke(changed);
            } catch (ReflectiveOperationException e) {
                throw new IllegalStateException(e);
            }
        };
        Object constant = generated
                .load(service.packageName() + "." + service.name())
                .getField(port.constant())
                .get(null);
        return generated
                .load(type.packageName() + "." + type.client())
                .getMethod("connect", runtime(type.isHttp() ? "soap.HttpPort" : "soap.SoapPort"), UnaryOperator.class)
                .invoke(null, constant, with);
    }

    /** Calls an operation of a client. */
    public Object call(PlannedInterface type, PlannedOperation api, Object client, Object[] arguments)
            throws Exception {
        for (Method method :
                generated.load(type.packageName() + "." + type.name()).getMethods()) {
            if (method.getName().equals(api.method())) {
                return method.invoke(client, arguments);
            }
        }
        throw new NoSuchMethodException(api.method());
    }
}
