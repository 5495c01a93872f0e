package org.protypos.wire;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/**
 * What can be called and served as one: the bindings of a port type that carry its operations alike. A port type has as many as
 * it has ways to be carried, most often one.
 *
 * @param made all that its bindings carry, under the first of them: every operation that one of them has, with the header blocks
 *     of all. A block that a port does not have is left out there
 * @param bindings its bindings; those of ports come first, in the order of the ports
 * @param standing how it stands beside the others of its port type
 * @param otherwise what sets its messages apart from those of the first that speaks likewise; null when it is that one
 */
public record WireInterface(WireBinding made, List<WireBinding> bindings, Standing standing, Otherwise otherwise) {
    /** How an interface stands beside the others of its port type. */
    public enum Standing {
        /** It is the first. */
        FIRST,
        /** It is the first by plain HTTP, and SOAP carries the port type as well. */
        BY_HTTP,
        /** It speaks as another does, but its messages look different. */
        OTHERWISE
    }

    /**
     * What a binding does otherwise.
     *
     * @param operation the first operation that looks different
     * @param how how it looks here and there, in words
     */
    public record Otherwise(WireOperation operation, String how) {}

    /**
     * Those of a port type.
     *
     * @param bindings the bindings of the port type; what comes first decides how the messages of the first interface look
     */
    static List<WireInterface> of(PortType portType, Collection<WireBinding> bindings) {
        List<WireInterface> all = new ArrayList<>();
        for (boolean soap : new boolean[] {true, false}) {
            List<WireBinding> speaking =
                    bindings.stream().filter(one -> one.isSoap() == soap).toList();
            for (Group group : groups(speaking)) {
                Standing standing = group.otherwise != null
                        ? Standing.OTHERWISE
                        : all.isEmpty() ? Standing.FIRST : Standing.BY_HTTP;
                all.add(new WireInterface(
                        merged(portType, group.bindings), List.copyOf(group.bindings), standing, group.otherwise));
            }
        }
        return List.copyOf(all);
    }

    /** Bindings that carry operations alike, and what sets them apart from those of the first group. */
    private record Group(List<WireBinding> bindings, Otherwise otherwise) {}

    /** Those that share operations come together first: bindings that share none say little about one another. */
    private static List<Group> groups(List<WireBinding> bindings) {
        List<List<WireBinding>> sharing = new ArrayList<>();
        for (WireBinding binding : bindings) {
            sharing.stream()
                    .filter(some -> share(binding, some) && otherwise(List.of(binding), some) == null)
                    .findFirst()
                    .ifPresentOrElse(some -> some.add(binding), () -> sharing.add(new ArrayList<>(List.of(binding))));
        }
        List<Group> groups = new ArrayList<>();
        for (List<WireBinding> some : sharing) {
            List<Otherwise> found = groups.stream()
                    .map(group -> otherwise(some, group.bindings))
                    .toList();
            int same = found.indexOf(null);
            if (same < 0) {
                groups.add(new Group(some, found.isEmpty() ? null : found.get(0)));
            } else {
                groups.get(same).bindings.addAll(some);
            }
        }
        return groups;
    }

    private static boolean share(WireBinding binding, List<WireBinding> others) {
        return binding.operations().stream()
                .anyMatch(one -> others.stream().anyMatch(other -> other.operation(one.operation()) != null));
    }

    private static Otherwise otherwise(List<WireBinding> some, List<WireBinding> others) {
        for (WireBinding binding : some) {
            for (WireOperation operation : binding.operations()) {
                for (WireBinding other : others) {
                    WireOperation same = other.operation(operation.operation());
                    String how = same == null ? null : operation.unlike(same);
                    if (how != null) {
                        return new Otherwise(operation, how);
                    }
                }
            }
        }
        return null;
    }

    private static WireBinding merged(PortType portType, List<WireBinding> bindings) {
        List<WireOperation> operations = new ArrayList<>();
        for (Operation operation : portType.operations()) {
            bindings.stream()
                    .map(binding -> binding.operation(operation))
                    .filter(Objects::nonNull)
                    .reduce(WireOperation::with)
                    .ifPresent(operations::add);
        }
        return new WireBinding(bindings.get(0).binding(), portType, operations);
    }

    /** Whether a binding belongs to it. */
    boolean has(WireBinding binding) {
        return bindings.stream().anyMatch(one -> one == binding);
    }

    /** Whether its messages travel in envelopes. */
    public boolean isSoap() {
        return made.isSoap();
    }

    /** How a server knows each of its operations, in their order, at whichever port. */
    public List<Recognition> recognitions() {
        return recognitions(made);
    }

    /** How a server that plays one of its bindings knows the operations of that one. */
    List<Recognition> recognitions(WireBinding binding) {
        return Recognition.of(binding, operation -> soapActions(operation.operation()));
    }

    private List<String> soapActions(Operation operation) {
        return carried(operation)
                .map(WireOperation::bound)
                .map(BoundOperation::soapAction)
                .toList();
    }

    /** Where its bindings find an operation without an envelope, beneath the address of the port; none by SOAP. */
    public List<String> locations(Operation operation) {
        return isSoap()
                ? List.of()
                : carried(operation).map(WireOperation::target).distinct().toList();
    }

    private Stream<WireOperation> carried(Operation operation) {
        return bindings.stream().map(binding -> binding.operation(operation)).filter(Objects::nonNull);
    }
}
