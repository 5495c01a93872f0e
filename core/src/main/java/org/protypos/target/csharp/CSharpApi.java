package org.protypos.target.csharp;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
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
import org.protypos.target.csharp.emit.ClassEmitter;
import org.protypos.target.csharp.emit.ClientEmitter;
import org.protypos.target.csharp.emit.DocumentsEmitter;
import org.protypos.target.csharp.emit.EndpointEmitter;
import org.protypos.target.csharp.emit.EnumEmitter;
import org.protypos.target.csharp.emit.FaultEmitter;
import org.protypos.target.csharp.emit.InterfaceEmitter;
import org.protypos.target.csharp.emit.MessagesEmitter;
import org.protypos.target.csharp.emit.RegistryEmitter;
import org.protypos.target.csharp.emit.ScaffoldEmitter;
import org.protypos.target.csharp.emit.ServiceEmitter;
import org.protypos.target.csharp.emit.Signatures;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.EmbeddedRuntime;
import org.protypos.wsdl.PolicyAssertion;

/** An API in C#. */
final class CSharpApi extends ClassApi {
    CSharpApi(Plan plan) {
        super(plan);
    }

    @Override
    public List<Finding> findings() {
        Findings findings = new Findings();
        findings.addAll(super.findings());
        Set<Place> told = new HashSet<>();
        Stream<PolicyAssertion> ofPorts = plan().services().stream()
                .flatMap(service -> service.ports().stream())
                .flatMap(port -> port.policy().stream());
        Stream<PolicyAssertion> ofOperations = plan().interfaces().stream()
                .flatMap(type -> type.operations().stream())
                .flatMap(operation -> operation.policy().stream());
        Stream.concat(ofPorts, ofOperations)
                .filter(PolicyAssertion::isSigning)
                .filter(assertion -> told.add(assertion.place()))
                .forEach(assertion -> findings.warning(
                        "signature-left-out",
                        assertion.place(),
                        "messages are to be signed, and the code in C# does not sign them",
                        "sign them in an interceptor of your own, or generate Java"));
        return findings.sorted();
    }

    @Override
    public List<SourceFile> emit(Set<Product> products, boolean embedded, Supplier<List<String>> documents) {
        String runtime = EmbeddedRuntime.of(plan(), embedded);
        CSharpContext context = new CSharpContext(plan(), runtime);
        List<SourceFile> files = new ArrayList<>();
        files.addAll(written(plan().classes(), type -> ClassEmitter.emit(context, type)));
        files.addAll(written(plan().enums(), type -> EnumEmitter.emit(context, type)));
        files.add(RegistryEmitter.emit(context));
        boolean client = products.contains(Product.CLIENT);
        boolean server = products.contains(Product.SERVER);
        List<PlannedInterface> callable = plan().bound();
        boolean soap = (client || server) && !callable.isEmpty();
        if (soap) {
            services(context, callable, client, server, files);
        }
        if (soap && server) {
            files.add(DocumentsEmitter.emit(context, plan().publication(), documents.get()));
        }
        if (embedded) {
            files.addAll(EmbeddedRuntime.files(runtime, soap));
        }
        return files;
    }

    private static void services(
            CSharpContext context,
            List<PlannedInterface> callable,
            boolean client,
            boolean server,
            List<SourceFile> files) {
        for (PlannedFault fault : context.plan().faults()) {
            files.add(FaultEmitter.emit(context, fault));
        }
        for (PlannedInterface type : callable) {
            files.add(InterfaceEmitter.emit(context, type));
            files.addAll(InterfaceEmitter.results(context, type));
            files.add(MessagesEmitter.emit(context, type));
            if (client) {
                files.add(ClientEmitter.emit(context, type));
            }
            if (server) {
                files.add(EndpointEmitter.emit(context, type));
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
        return List.of(ScaffoldEmitter.project(plan(), sources));
    }

    @Override
    public String next() {
        return plan().bound().stream()
                .findFirst()
                .map(type -> "call " + type.packageName() + "." + type.client())
                .orElse("");
    }

    @Override
    public Surface surface() {
        return CSharpSurface.of(plan());
    }

    @Override
    public Toolchain.Types compiled(Set<QName> known) throws IOException {
        return new CSharpToolchain().types(plan().knowing(known));
    }

    @Override
    protected Function<PlannedInterface, Function<PlannedOperation, Signature>> signatures() {
        CSharpContext context = new CSharpContext(plan(), EmbeddedRuntime.LIBRARY);
        return type -> signatures(context, type);
    }

    private static Function<PlannedOperation, Signature> signatures(CSharpContext context, PlannedInterface type) {
        CSharpFile file = context.file(type.packageName(), type.name());
        Signatures writer = new Signatures(context, type);
        return operation -> new Signature(
                writer.method(operation).text(file),
                operation.resultName() == null ? "" : writer.results(operation).text(file));
    }
}
