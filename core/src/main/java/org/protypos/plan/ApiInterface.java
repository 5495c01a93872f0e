package org.protypos.plan;

import java.util.List;
import javax.xml.namespace.QName;

/**
 * A port type: an interface with its client and its endpoint.
 *
 * @param client the name of the client
 * @param endpoint the name of the endpoint
 * @param servlet the name of the adapter that serves the endpoint in a servlet container
 * @param messages the name of the class that holds the messages
 * @param binding whether some binding carries it, so that it can be called and served
 * @param verbs the HTTP methods of its bindings when they speak HTTP alone, empty when they speak SOAP
 */
public record ApiInterface(
        String packageName,
        String name,
        QName xmlName,
        String client,
        String endpoint,
        String servlet,
        String messages,
        List<ApiOperation> operations,
        boolean binding,
        List<String> verbs,
        String documentation) {
    /** Whether it is called by HTTP alone. */
    public boolean isHttp() {
        return !verbs.isEmpty();
    }
}
