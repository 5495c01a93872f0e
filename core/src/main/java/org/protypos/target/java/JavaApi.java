package org.protypos.target.java;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import org.protypos.target.Beginning;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;
import org.protypos.target.Surface;
import org.protypos.target.Toolchain;
import org.protypos.target.classes.ClassApi;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedFault;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.java.emit.ClassEmitter;
import org.protypos.target.java.emit.ClientEmitter;
import org.protypos.target.java.emit.DocumentsEmitter;
import org.protypos.target.java.emit.EndpointEmitter;
import org.protypos.target.java.emit.EnumEmitter;
import org.protypos.target.java.emit.FaultEmitter;
import org.protypos.target.java.emit.InterfaceEmitter;
import org.protypos.target.java.emit.MessagesEmitter;
import org.protypos.target.java.emit.RegistryEmitter;
import org.protypos.target.java.emit.ScaffoldEmitter;
import org.protypos.target.java.emit.ServiceEmitter;
import org.protypos.target.java.emit.ServletEmitter;
import org.protypos.target.java.text.EmbeddedRuntime;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;

/** An API in Java. */
final class JavaApi extends ClassApi {
    JavaApi(Plan plan) {
        super(plan);
    }

    @Override
    public List<SourceFile> emit(Set<Product> products, boolean embedded, Supplier<List<String>> documents) {
        String runtime = EmbeddedRuntime.of(plan(), embedded);
        JavaContext context = new JavaContext(plan(), runtime);
        List<SourceFile> files = new ArrayList<>();
        files.addAll(written(plan().classes(), type -> ClassEmitter.emit(context, type)));
        files.addAll(written(plan().enums(), type -> EnumEmitter.emit(context, type)));
        files.add(RegistryEmitter.emit(context));
        boolean client = products.contains(Product.CLIENT);
        boolean servlet = products.contains(Product.SERVLET);
        boolean server = servlet || products.contains(Product.SERVER);
        List<PlannedInterface> callable = plan().bound();
        boolean soap = (client || server) && !callable.isEmpty();
        if (soap) {
            services(context, callable, client, server, files);
        }
        if (soap && servlet) {
            callable.forEach(type -> files.add(ServletEmitter.emit(context, type)));
        }
        if (soap && server) {
            files.add(DocumentsEmitter.emit(context, plan().publication(), documents.get()));
        }
        if (embedded) {
            files.addAll(EmbeddedRuntime.files(runtime, soap, soap && servlet));
        }
        return files;
    }

    private static void services(
            JavaContext context,
            List<PlannedInterface> callable,
            boolean client,
            boolean server,
            List<SourceFile> files) {
        for (PlannedFault fault : context.plan().faults()) {
            files.add(FaultEmitter.emit(context, fault));
        }
        for (PlannedInterface type : callable) {
            files.add(InterfaceEmitter.emit(context, type));
            files.add(MessagesEmitter.emit(context, type));
            if (client) {
                files.add(ClientEmitter.emit(context, type));
            }
            if (server) {
                files.add(EndpointEmitter.emit(context, type, context.plan().publication()));
            }
        }
        for (PlannedService service : context.plan().services()) {
            files.add(ServiceEmitter.emit(context, service));
        }
    }

    @Override
    public List<Beginning> scaffold(Set<Product> products, boolean embedded) {
        return ScaffoldEmitter.emit(plan(), embedded);
    }

    @Override
    public List<SourceFile> project(String sources) {
        return List.of();
    }

    @Override
    public String next() {
        return plan().bound().stream()
                .findFirst()
                .map(type -> "call " + type.packageName() + "." + type.client() + ".connect()")
                .orElse("");
    }

    @Override
    public Surface surface() {
        return JavaSurface.of(plan());
    }

    @Override
    public Toolchain.Types compiled(Set<QName> known) throws IOException {
        return new JavaToolchain().types(plan().knowing(known));
    }

    @Override
    protected Function<PlannedInterface, Function<PlannedOperation, Signature>> signatures() {
        JavaContext context = new JavaContext(plan(), EmbeddedRuntime.LIBRARY);
        return type -> signatures(context, type);
    }

    private static Function<PlannedOperation, Signature> signatures(JavaContext context, PlannedInterface type) {
        JavaFile file = context.file(type.packageName(), type.name());
        InterfaceEmitter.Signatures writer = new InterfaceEmitter.Signatures(context, type, true);
        return operation -> new Signature(
                writer.method(operation).text(file),
                operation.resultName() == null
                        ? ""
                        : writer.resultRecord(operation).text(file));
    }
}
