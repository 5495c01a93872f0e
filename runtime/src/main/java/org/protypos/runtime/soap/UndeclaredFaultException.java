package org.protypos.runtime.soap;

/** The service answered with a fault that the contract does not declare for the operation. */
public final class UndeclaredFaultException extends CallFailedException {
    private static final long serialVersionUID = 1L;

    private final transient SoapFault fault;

    UndeclaredFaultException(String operation, SoapFault fault, int status) {
        super(
                "the service answered " + operation + " with the fault "
                        + (fault.code().isEmpty() ? "" : fault.code().get(0).getLocalPart() + ": ") + fault.reason()
                        + (fault.detailText().isEmpty() ? "" : " (" + fault.detailText() + ")"),
                status,
                null);
        this.fault = fault;
    }

    /** The fault as it came. */
    public SoapFault fault() {
        return fault;
    }
}
