package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.List;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
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
        file.block("public static class $N", service.name());
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
        TypeName api =
                TypeName.ofContract(port.type().packageName(), port.type().name());
        Code type = Code.of("$T<$T>", context.runtime(port.type().isHttp() ? "HttpPort" : "SoapPort"), api);
        List<String> asked = PolicyAssertion.inWords(port.policy());
        file.doc(
                CSharpText.comment(port.documentation()),
                CSharpText.comment(port.speaks()) + " at " + CSharpText.comment(port.address()) + "."
                        + (port.isDefault()
                                ? " The default port of " + port.type().name() + "."
                                : ""),
                asked.isEmpty() ? "" : "Its policies ask for " + CSharpText.comment(String.join(", ", asked)) + ".");
        file.line("public static readonly $T $N = new $T(", type, port.constant(), type);
        file.indent();
        List<Code> arguments = new ArrayList<>();
        arguments.add(Code.of("$S", service.xmlName().getLocalPart()));
        arguments.add(Code.of("$S", port.xmlName()));
        arguments.add(Code.of("$S", port.address()));
        if (port.type().isHttp()) {
            arguments.add(Code.of("$S", port.verb()));
        } else {
            arguments.add(Code.of(
                    port.protocol() == Protocol.SOAP_1_2 ? "$T.Soap12" : "$T.Soap11", context.runtime("SoapVersion")));
            arguments.add(features(context, port));
        }
        for (int i = 0; i < arguments.size(); i++) {
            boolean last = i == arguments.size() - 1 && port.actions().isEmpty();
            file.line(last ? "$L);" : "$L,", arguments.get(i));
        }
        if (!port.actions().isEmpty()) {
            file.block("new $T<string, string>", TypeName.ofLibrary("System.Collections.Generic", "Dictionary"));
            port.actions().forEach((operation, action) -> file.line("{ $S, $S },", operation, action));
            file.close(");");
        }
        file.outdent();
    }

    private static Code features(CSharpContext context, PlannedService.Port port) {
        TypeName type = context.runtime("SoapFeatures");
        List<Code> features = new ArrayList<>();
        if (port.isOptimized()) {
            features.add(Code.of("$T.Mtom", type));
        }
        if (port.isAddressed()) {
            features.add(Code.of("$T.Addressing", type));
        }
        return features.isEmpty() ? Code.of("$T.None", type) : Code.join(" | ", features);
    }
}
