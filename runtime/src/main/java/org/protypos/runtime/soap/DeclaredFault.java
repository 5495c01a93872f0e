package org.protypos.runtime.soap;

import java.util.ArrayList;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.runtime.xml.XmlOutput;

/**
 * A fault that the contract declares for an operation. Each declared fault is a generated subclass. What a server throws blames
 * the server, unless {@link #ofSender} says otherwise; what a client received and a server throws on keeps its codes.
 */
public abstract class DeclaredFault extends Exception {
    private static final long serialVersionUID = 1L;

    private final transient SoapFault fault;
    private transient List<QName> codes = List.of();
    private boolean isSenders;

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
        this.isSenders = fault.isSenders();
        this.codes = fault.ownCodes();
    }

    /**
     * Says that it is the request that is at fault: {@code throw DeclaredFault.ofSender(new NoBerthFreeFault(reason, detail))}.
     *
     * @param codes what says it more precisely: subcodes, the widest first (SOAP 1.2 Part 1, section 5.4.1.3); SOAP 1.1 has
     *     room for the first, in the place of its own code
     */
    public static <F extends DeclaredFault> F ofSender(F fault, QName... codes) {
        return blaming(fault, true, codes);
    }

    /**
     * Says that it is the service that is at fault, as it is when nothing is said.
     *
     * @param codes what says it more precisely, as for {@link #ofSender}
     */
    public static <F extends DeclaredFault> F ofReceiver(F fault, QName... codes) {
        return blaming(fault, false, codes);
    }

    private static <F extends DeclaredFault> F blaming(F fault, boolean sender, QName... codes) {
        DeclaredFault changed = fault;
        changed.isSenders = sender;
        changed.codes = List.of(codes);
        return fault;
    }

    /** Writes the element that stands in the fault's detail. */
    protected abstract void writeDetail(XmlOutput out);

    /** Whether it is the request that is at fault. */
    final boolean isSenders() {
        return isSenders;
    }

    /** The codes to send, the general one first. */
    final List<QName> codes(SoapVersion version) {
        List<QName> all = new ArrayList<>();
        all.add(new QName(version.namespace(), isSenders ? version.senderCode() : version.receiverCode()));
        all.addAll(codes == null ? List.of() : codes);
        return all;
    }

    /** The fault as it came, or null when it has not come over the wire. */
    public final SoapFault fault() {
        return fault;
    }

    /** The fault's code, or null when this fault has not come over the wire. */
    public final QName code() {
        return fault == null || fault.code().isEmpty() ? null : fault.code().get(0);
    }
}
