package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.List;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.Protocol;

/** Writes the constants of a service: one for each port. */
public final class ServiceEmitter {
    private ServiceEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(CSharpContext context, PlannedService service) {
        CSharpFile file = context.file(service.packageName(), service.name());
        file.doc(
                CSharpText.comment(service.documentation()),
                "The ports of the service "
                        + CSharpText.comment(service.xmlName().getLocalPart()) + ".");
        file.block("public static class ", service.name());
        boolean first = true;
        for (PlannedService.Port port : service.ports()) {
            if (!first) {
                file.gap();
            }
            first = false;
            port(context, file, service, port);
        }
        file.close();
        return file.finish();
    }

    private static void port(CSharpContext context, CSharpFile file, PlannedService service, PlannedService.Port port) {
        String api = file.contractType(port.type().packageName(), port.type().name());
        String type = context.runtime(file, port.type().isHttp() ? "HttpPort" : "SoapPort") + "<" + api + ">";
        List<String> asked = PolicyAssertion.inWords(port.policy());
        file.doc(
                CSharpText.comment(port.documentation()),
                port.speaks() + " at " + CSharpText.comment(port.address()) + "."
                        + (port.isDefault()
                                ? " The default port of " + port.type().name() + "."
                                : ""),
                asked.isEmpty() ? "" : "Its policies ask for " + CSharpText.comment(String.join(", ", asked)) + ".");
        file.line("public static readonly ", type, " ", port.constant(), " = new ", type, "(");
        file.indent();
        List<String> arguments = new ArrayList<>();
        arguments.add(CSharpText.literal(service.xmlName().getLocalPart()));
        arguments.add(CSharpText.literal(port.xmlName()));
        arguments.add(CSharpText.literal(port.address()));
        if (port.type().isHttp()) {
            arguments.add(CSharpText.literal(port.verb()));
        } else {
            arguments.add(context.runtime(file, "SoapVersion")
                    + (port.protocol() == Protocol.SOAP_1_2 ? ".Soap12" : ".Soap11"));
            arguments.add(features(context, file, port));
        }
        for (int i = 0; i < arguments.size(); i++) {
            boolean last = i == arguments.size() - 1 && port.actions().isEmpty();
            file.line(arguments.get(i), last ? ");" : ",");
        }
        if (!port.actions().isEmpty()) {
            file.block("new ", file.type("System.Collections.Generic", "Dictionary"), "<string, string>");
            port.actions()
                    .forEach((operation, action) ->
                            file.line("{ ", CSharpText.literal(operation), ", ", CSharpText.literal(action), " },"));
            file.close(");");
        }
        file.outdent();
    }

    private static String features(CSharpContext context, CSharpFile file, PlannedService.Port port) {
        String type = context.runtime(file, "SoapFeatures");
        List<String> features = new ArrayList<>();
        if (port.isOptimized()) {
            features.add(type + ".Mtom");
        }
        if (port.isAddressed()) {
            features.add(type + ".Addressing");
        }
        return features.isEmpty() ? type + ".None" : String.join(" | ", features);
    }
}
