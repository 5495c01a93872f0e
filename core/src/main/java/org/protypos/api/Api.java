package org.protypos.api;

import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.api.type.ApiElement;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.NamedType;
import org.protypos.diagnostic.Finding;

/**
 * The typed API that a contract becomes, in no language's terms.
 *
 * @param mainNamespace the namespace of the contract as a whole
 * @param namespaces the namespaces of its components
 * @param globalTypes the global types with structure or named values, then those of global elements, in the order of their names
 * @param types what each named type holds
 * @param elements the global elements
 * @param callElements what the elements hold that messages have beside the global ones: those called like an operation or a part
 * @param interfaces what can be called
 * @param services where it can be called
 * @param findings what is to be said about how the contract becomes this
 */
public record Api(
        String mainNamespace,
        Set<String> namespaces,
        List<NamedType> globalTypes,
        Map<QName, ApiValue> types,
        Map<QName, ApiElement> elements,
        Map<QName, ApiValue> callElements,
        List<ApiInterface> interfaces,
        List<ApiService> services,
        List<Finding> findings) {}
