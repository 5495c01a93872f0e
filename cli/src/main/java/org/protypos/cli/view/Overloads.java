package org.protypos.cli.view;

import java.util.List;
import java.util.stream.Collectors;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.wire.WirePart;

/** Operations of one name at one port (WSDL 1.1, section 2.4.5): told apart by their messages and actions. */
public final class Overloads {
    private Overloads() {}

    /** Whether somebody means an operation by the name of its input or by its SOAP action. */
    public static boolean isNamed(CalledOperation called, String name) {
        return name.equals(called.operation().input().name())
                || name.equals(called.request().message().name().getLocalPart())
                || called.isSoap() && name.equals(called.carried().target());
    }

    /** Whether a request is what the contract says of an operation. */
    public static boolean takes(CalledOperation called, ContractCheck check, MessageElement request) {
        MessageElement again = MessageReader.read("request", MessageText.of(request));
        return again != null
                && new OperationCheck(called.carried(), check)
                        .request(again)
                        .deviations()
                        .isEmpty();
    }

    /** Each by the name of its message, with its parts. */
    public static String inWords(List<CalledOperation> operations) {
        return operations.stream()
                .map(one -> one.operation().input().name() + " ("
                        + one.request().parts().stream().map(WirePart::name).collect(Collectors.joining(", ")) + ")")
                .collect(Collectors.joining(", "));
    }
}
