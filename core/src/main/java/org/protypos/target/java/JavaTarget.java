package org.protypos.target.java;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import org.protypos.plan.ApiClass;
import org.protypos.plan.ApiEnum;
import org.protypos.plan.ApiFault;
import org.protypos.plan.ApiInterface;
import org.protypos.plan.ApiOperation;
import org.protypos.plan.ApiService;
import org.protypos.plan.Plan;
import org.protypos.target.SourceFile;

/** Turns a plan into Java source. The door of this package. */
public final class JavaTarget {
    /** What can be produced. */
    public enum Product {
        /** The types of the schemas. */
        TYPES,
        /** What a client needs. */
        CLIENT,
        /** What a server needs. */
        SERVER,
        /** What runs a server's endpoints in a servlet container. */
        SERVLET
    }

    private JavaTarget() {}

    /**
     * Writes the sources.
     *
     * @param products what to produce; types are always among it
     * @param embedded whether the runtime's sources are written beside it, rather than taken from a library
     * @param documents the contract's documents as a server publishes them; asked for only when it has to
     * @return the files, each path once
     */
    public static List<SourceFile> emit(
            Plan plan, Set<Product> products, boolean embedded, Supplier<List<String>> documents) {
        String runtime = EmbeddedRuntime.of(plan, embedded);
        JavaContext context = new JavaContext(plan, runtime);
        List<SourceFile> files = new ArrayList<>();
        for (ApiClass type : plan.classes()) {
            files.add(ClassEmitter.emit(context, type));
        }
        for (ApiEnum type : plan.enums()) {
            files.add(EnumEmitter.emit(context, type));
        }
        files.add(RegistryEmitter.emit(context));
        boolean client = products.contains(Product.CLIENT);
        boolean servlet = products.contains(Product.SERVLET);
        boolean server = servlet || products.contains(Product.SERVER);
        List<ApiInterface> callable =
                plan.interfaces().stream().filter(ApiInterface::binding).toList();
        boolean soap = (client || server) && !callable.isEmpty();
        if (soap) {
            services(context, callable, client, server, files);
        }
        if (soap && servlet) {
            callable.forEach(type -> files.add(ServletEmitter.emit(context, type)));
        }
        if (soap && server) {
            files.add(DocumentsEmitter.emit(context, plan.publication(), documents.get()));
        }
        if (embedded) {
            files.addAll(EmbeddedRuntime.files(runtime, soap, soap && servlet));
        }
        return files;
    }

    private static void services(
            JavaContext context, List<ApiInterface> callable, boolean client, boolean server, List<SourceFile> files) {
        for (ApiFault fault : context.plan().faults()) {
            files.add(FaultEmitter.emit(context, fault));
        }
        for (ApiInterface type : callable) {
            files.add(InterfaceEmitter.emit(context, type));
            files.add(MessagesEmitter.emit(context, type));
            if (client) {
                files.add(ClientEmitter.emit(context, type));
            }
            if (server) {
                files.add(EndpointEmitter.emit(context, type, context.plan().publication()));
            }
        }
        for (ApiService service : context.plan().services()) {
            files.add(ServiceEmitter.emit(context, service));
        }
    }

    /**
     * How an operation looks to somebody who calls it.
     *
     * @param method the method
     * @param result the type that carries several results with its components, or an empty text
     */
    public record Signature(String method, String result) {}

    /** How each operation looks to somebody who calls it. */
    public static Map<ApiOperation, Signature> signatures(Plan plan) {
        JavaContext context = new JavaContext(plan, EmbeddedRuntime.LIBRARY);
        Map<ApiOperation, Signature> signatures = new IdentityHashMap<>();
        for (ApiInterface type : plan.interfaces()) {
            JavaFile file = context.file(type.packageName(), type.name());
            InterfaceEmitter.Signatures writer = new InterfaceEmitter.Signatures(context, file, type, true);
            for (ApiOperation operation : type.operations()) {
                String result = operation.resultName() == null ? "" : writer.resultRecord(operation);
                signatures.put(operation, new Signature(writer.method(operation), result));
            }
        }
        return signatures;
    }
}
