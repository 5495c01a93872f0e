package org.protypos.target.java;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import org.protypos.diagnostic.Finding;
import org.protypos.plan.ApiClass;
import org.protypos.plan.ApiEnum;
import org.protypos.plan.ApiFault;
import org.protypos.plan.ApiInterface;
import org.protypos.plan.ApiOperation;
import org.protypos.plan.ApiService;
import org.protypos.plan.Plan;
import org.protypos.plan.TargetRules;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;
import org.protypos.target.Surface;
import org.protypos.target.Target;
import org.protypos.target.Toolchain;
import org.protypos.wsdl.PortType;

/** Turns a plan into Java source. The door of this package. */
public final class JavaTarget implements Target {
    static final String NAME = "java";

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String title() {
        return "Java";
    }

    @Override
    public TargetRules rules() {
        return new JavaNames();
    }

    @Override
    public Set<Product> products() {
        return EnumSet.allOf(Product.class);
    }

    @Override
    public Toolchain toolchain() {
        return new JavaToolchain();
    }

    @Override
    public List<Finding> findings(Plan plan) {
        return List.of();
    }

    @Override
    public List<SourceFile> emit(Plan plan, Set<Product> products, boolean embedded, Supplier<List<String>> documents) {
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
        List<ApiInterface> callable = plan.bound();
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

    @Override
    public Map<ApiInterface, SourceFile> scaffold(Plan plan, boolean embedded) {
        return ScaffoldEmitter.emit(plan, embedded);
    }

    @Override
    public List<SourceFile> project(Plan plan, boolean embedded) {
        return List.of();
    }

    @Override
    public Map<String, String> methods(Plan plan, boolean embedded, ApiInterface type) {
        return ScaffoldEmitter.methods(plan, embedded, type);
    }

    @Override
    public String next(Plan plan) {
        return plan.bound().stream()
                .findFirst()
                .map(type -> "call " + type.packageName() + "." + type.client() + ".connect()")
                .orElse("");
    }

    @Override
    public Surface surface(Plan plan, Iterable<PortType> portTypes) {
        return JavaSurface.of(plan, portTypes);
    }

    @Override
    public Map<ApiOperation, Signature> signatures(Plan plan) {
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
