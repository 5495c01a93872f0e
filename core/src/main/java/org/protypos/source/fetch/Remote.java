package org.protypos.source.fetch;

import java.net.URI;

/** Asked before a document is fetched from a web server. */
@FunctionalInterface
public interface Remote {
    /**
     * Looks at an address.
     *
     * @param named whether somebody has named its server, rather than a document alone
     * @return why nothing is fetched from there, for a person; null to have it fetched
     */
    String refusal(URI address, boolean named);
}
