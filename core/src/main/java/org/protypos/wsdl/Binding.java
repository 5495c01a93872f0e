package org.protypos.wsdl;

import java.util.Arrays;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * A binding: how the operations of a port type travel (WSDL 1.1, section 2.5).
 *
 * @param transport the transport's URI, or null when the binding names none
 * @param verb the HTTP method of an HTTP binding, or null (WSDL 1.1, section 4.3)
 * @param policy what the policies of the binding and its port type ask for
 */
public record Binding(
        QName name,
        QName portType,
        Protocol protocol,
        String transport,
        String verb,
        List<BoundOperation> operations,
        List<PolicyAssertion> policy,
        String documentation,
        Place place) {
    /** SOAP over HTTP, the transport everybody means (WSDL 1.1, section 3.3). */
    public static final String HTTP_TRANSPORT = "http://schemas.xmlsoap.org/soap/http";

    private static final Pattern OVER_HTTP = Pattern.compile("(.*[/:])?https?/?", Pattern.CASE_INSENSITIVE);

    /** Whether it travels over HTTP, by the last word of its transport, which names a version of SOAP or a server's vendor before it. */
    public boolean isOverHttp() {
        return transport == null || OVER_HTTP.matcher(transport.strip()).matches();
    }

    /**
     * How each operation of the port type is bound. Overloads are told apart by the names of input and output, given or by
     * default (WSDL 1.1, sections 2.4.5 and 2.5); where these say nothing, they are bound in their order.
     *
     * @return for each operation of the port type, in its order, what binds it, or null
     */
    public List<BoundOperation> bound(PortType portType) {
        List<Operation> wanted = portType.operations();
        BoundOperation[] found = new BoundOperation[wanted.size()];
        Set<BoundOperation> taken = Collections.newSetFromMap(new IdentityHashMap<>());
        Map<String, List<BoundOperation>> named =
                operations.stream().collect(Collectors.groupingBy(BoundOperation::name));
        for (BoundOperation.Likeness likeness : BoundOperation.Likeness.values()) {
            for (int i = 0; i < found.length; i++) {
                Operation operation = wanted.get(i);
                if (found[i] == null) {
                    found[i] = named.getOrDefault(operation.name(), List.of()).stream()
                            .filter(bound ->
                                    likeness.holds(bound, operation) && (likeness.isShared() || taken.add(bound)))
                            .findFirst()
                            .orElse(null);
                }
            }
        }
        return Arrays.asList(found);
    }
}
