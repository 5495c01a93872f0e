package org.protypos.target;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.protypos.api.ApiInterface;
import org.protypos.api.ApiOperation;
import org.protypos.api.ApiService;

/**
 * How all that can be called looks in a language, for a person.
 *
 * @param structures how many types with structure there are
 * @param enumerations how many sets of named values there are
 * @param packages the packages of all of it, sorted
 */
public record Outline(
        List<Service> services, List<Interface> interfaces, int structures, int enumerations, List<String> packages) {
    /**
     * A service.
     *
     * @param constants the names of its ports, in their order
     */
    public record Service(String packageName, String name, List<String> constants, ApiService api) {}

    /** What can be called. */
    public record Interface(String packageName, String name, List<Operation> operations, ApiInterface api) {}

    /**
     * An operation as it looks to somebody who calls it.
     *
     * @param method the method
     * @param result the type that carries several results with its components, or an empty text
     * @param faults the names of what may come instead
     */
    public record Operation(String method, String result, List<String> faults, ApiOperation api) {}

    /** The methods of all operations, by the designators of these. */
    public Map<String, String> methods() {
        Map<String, String> methods = new HashMap<>();
        interfaces.forEach(type ->
                type.operations().forEach(one -> methods.put(one.api().subject().designator(), one.method())));
        return methods;
    }

    /** The name of an interface. */
    public String nameOf(ApiInterface type) {
        return interfaces.stream()
                .filter(one -> one.api() == type)
                .findFirst()
                .orElseThrow()
                .name();
    }
}
