package org.protypos.target.csharp;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
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
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.PortType;

/** Turns a plan into C# 7.3 source for .NET Standard 2.0. The door of this package. */
public final class CSharpTarget implements Target {
    static final String NAME = "csharp";

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String title() {
        return "C#";
    }

    @Override
    public TargetRules rules() {
        return new CSharpNames();
    }

    @Override
    public Set<Product> products() {
        return EnumSet.of(Product.TYPES, Product.CLIENT, Product.SERVER);
    }

    @Override
    public Toolchain toolchain() {
        return new CSharpToolchain();
    }

    @Override
    public List<Finding> findings(Plan plan) {
        Findings findings = new Findings();
        Set<Place> told = new HashSet<>();
        Stream<PolicyAssertion> ofPorts = plan.services().stream()
                .flatMap(service -> service.ports().stream())
                .flatMap(port -> port.policy().stream());
        Stream<PolicyAssertion> ofOperations = plan.interfaces().stream()
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
    public List<SourceFile> emit(Plan plan, Set<Product> products, boolean embedded, Supplier<List<String>> documents) {
        String runtime = EmbeddedRuntime.of(plan, embedded);
        CSharpContext context = new CSharpContext(plan, runtime);
        List<SourceFile> files = new ArrayList<>();
        for (ApiClass type : plan.classes()) {
            files.add(ClassEmitter.emit(context, type));
        }
        for (ApiEnum type : plan.enums()) {
            files.add(EnumEmitter.emit(context, type));
        }
        files.add(RegistryEmitter.emit(context));
        boolean client = products.contains(Product.CLIENT);
        boolean server = products.contains(Product.SERVER);
        List<ApiInterface> callable = plan.bound();
        boolean soap = (client || server) && !callable.isEmpty();
        if (soap) {
            services(context, callable, client, server, files);
        }
        if (soap && server) {
            files.add(DocumentsEmitter.emit(context, plan.publication(), documents.get()));
        }
        if (embedded) {
            files.addAll(EmbeddedRuntime.files(runtime, soap));
        }
        return files;
    }

    private static void services(
            CSharpContext context,
            List<ApiInterface> callable,
            boolean client,
            boolean server,
            List<SourceFile> files) {
        for (ApiFault fault : context.plan().faults()) {
            files.add(FaultEmitter.emit(context, fault));
        }
        for (ApiInterface type : callable) {
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
        return List.of(ScaffoldEmitter.project(plan));
    }

    @Override
    public Map<String, String> methods(Plan plan, boolean embedded, ApiInterface type) {
        return ScaffoldEmitter.methods(plan, embedded, type);
    }

    @Override
    public Map<ApiOperation, Signature> signatures(Plan plan) {
        CSharpContext context = new CSharpContext(plan, EmbeddedRuntime.LIBRARY);
        Map<ApiOperation, Signature> signatures = new IdentityHashMap<>();
        for (ApiInterface type : plan.interfaces()) {
            CSharpFile file = context.file(type.packageName(), type.name());
            Signatures writer = new Signatures(context, file, type);
            for (ApiOperation operation : type.operations()) {
                String result = operation.resultName() == null ? "" : writer.results(operation);
                signatures.put(operation, new Signature(writer.method(operation), result));
            }
        }
        return signatures;
    }

    @Override
    public Surface surface(Plan plan, Iterable<PortType> portTypes) {
        return CSharpSurface.of(plan, portTypes);
    }

    @Override
    public String next(Plan plan) {
        return plan.bound().stream()
                .findFirst()
                .map(type -> "call " + type.packageName() + "." + type.client())
                .orElse("");
    }
}
