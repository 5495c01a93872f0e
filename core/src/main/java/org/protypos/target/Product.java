package org.protypos.target;

/** What can be produced of a contract. */
public enum Product {
    /** The types of the schemas. */
    TYPES,
    /** What a client needs. */
    CLIENT,
    /** What a server needs. */
    SERVER,
    /** What runs a server's endpoints in a servlet container; of targets that know such containers. */
    SERVLET
}
