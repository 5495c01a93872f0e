package org.protypos.runtime.soap;

import javax.xml.namespace.QName;
import org.protypos.runtime.xml.XmlOutput;

/** A fault that the contract declares for an operation. Each declared fault is a generated subclass. */
public abstract class DeclaredFault extends Exception {
    private static final long serialVersionUID = 1L;

    private final transient SoapFault fault;

    /**
     * A fault that a server is to send.
     *
     * @param reason what went wrong, for a person
     */
    protected DeclaredFault(String reason) {
        super(reason);
        this.fault = null;
    }

    /** A fault that a client received. */
    protected DeclaredFault(SoapFault fault) {
        super(fault.reason());
        this.fault = fault;
    }

    /** Writes the element that stands in the fault's detail. */
    protected abstract void writeDetail(XmlOutput out);

    /** The fault's code, or null when this fault has not come over the wire. */
    public final QName code() {
        return fault == null || fault.code().isEmpty() ? null : fault.code().get(0);
    }
}
