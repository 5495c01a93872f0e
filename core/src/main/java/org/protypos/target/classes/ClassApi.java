package org.protypos.target.classes;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Stream;
import org.protypos.diagnostic.Finding;
import org.protypos.naming.Clash;
import org.protypos.naming.GivenNames;
import org.protypos.target.LoweredApi;
import org.protypos.target.Outline;
import org.protypos.target.SourceFile;

/** An API in a language that has classes: what its plan says of it in whichever of them it is. */
public abstract class ClassApi implements LoweredApi {
    /** So many types are worth a thread of their own. */
    private static final int MANY = 200;

    private final Plan plan;

    /** Begins with a plan. */
    protected ClassApi(Plan plan) {
        this.plan = plan;
    }

    /** The classes of the API. */
    public final Plan plan() {
        return plan;
    }

    @Override
    public final List<Clash> clashes() {
        return plan.clashes();
    }

    @Override
    public final GivenNames names() {
        return plan.names();
    }

    @Override
    public List<Finding> findings() {
        return plan.findings();
    }

    /** The files of types, in their order; where there are many, all processors have a share in writing them. */
    protected static <T> List<SourceFile> written(List<T> types, Function<T, SourceFile> emitter) {
        return (types.size() < MANY ? types.stream() : types.parallelStream())
                .map(emitter)
                .toList();
    }

    /** For each interface, what writes its operations as they look to somebody who calls them. */
    protected abstract Function<PlannedInterface, Function<PlannedOperation, Signature>> signatures();

    /**
     * How an operation looks to somebody who calls it.
     *
     * @param method the method
     * @param result the type that carries several results with its components, or an empty text
     */
    public record Signature(String method, String result) {}

    @Override
    public final Outline outline() {
        Function<PlannedInterface, Function<PlannedOperation, Signature>> signatures = signatures();
        return new Outline(
                plan.services().stream()
                        .map(service -> new Outline.Service(
                                service.packageName(),
                                service.name(),
                                service.ports().stream()
                                        .map(PlannedService.Port::constant)
                                        .toList(),
                                service.api()))
                        .toList(),
                plan.interfaces().stream()
                        .map(type -> outlined(type, signatures.apply(type)))
                        .toList(),
                plan.classes().size(),
                plan.enums().size(),
                Stream.of(
                                plan.classes().stream().map(PlannedClass::packageName),
                                plan.enums().stream().map(PlannedEnum::packageName),
                                Stream.of(plan.rootPackage()))
                        .flatMap(Function.identity())
                        .distinct()
                        .sorted()
                        .toList());
    }

    private static Outline.Interface outlined(PlannedInterface type, Function<PlannedOperation, Signature> signatures) {
        List<Outline.Operation> operations = new ArrayList<>();
        for (PlannedOperation operation : type.operations()) {
            Signature signature = signatures.apply(operation);
            operations.add(new Outline.Operation(
                    signature.method(),
                    signature.result(),
                    operation.faults().stream().map(PlannedFault::name).toList(),
                    operation.api()));
        }
        return new Outline.Interface(type.packageName(), type.name(), operations, type.api());
    }
}
