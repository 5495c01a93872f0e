package org.protypos.target.java.emit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaText;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.Protocol;

/** Writes the constants of a service: one for each port. */
public final class ServiceEmitter {
    private ServiceEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, PlannedService service) {
        JavaFile file = context.file(service.packageName(), service.name());
        file.doc(
                JavaText.comment(service.documentation()),
                "The ports of the service " + JavaText.comment(service.xmlName().getLocalPart()) + ".");
        file.block("public final class $N", service.name());
        for (PlannedService.Port port : service.ports()) {
            port(context, file, service, port);
        }
        file.line("private $N() {}", service.name());
        file.close();
        return file.finish();
    }

    private static void port(JavaContext context, JavaFile file, PlannedService service, PlannedService.Port port) {
        TypeName portClass = context.soap(port.type().isHttp() ? "HttpPort" : "SoapPort");
        TypeName type =
                TypeName.ofContract(port.type().packageName(), port.type().name());
        List<String> asked = PolicyAssertion.inWords(port.policy());
        file.doc(
                JavaText.comment(port.documentation()),
                JavaText.comment(port.speaks()) + " at " + JavaText.comment(port.address()) + "."
                        + (port.isDefault()
                                ? " The default port of {@code " + port.type().name() + "}."
                                : ""),
                asked.isEmpty() ? "" : "Its policies ask for " + JavaText.comment(String.join(", ", asked)) + ".");
        file.line("public static final $T<$T> $N = new $T<>(", portClass, type, port.constant(), portClass);
        file.indent();
        file.line("$S,", service.xmlName().getLocalPart());
        file.line("$S,", port.xmlName());
        file.line("$S,", port.address());
        if (port.type().isHttp()) {
            file.line("$S,", port.verb());
        } else {
            file.line("$T.$N,", context.soap("SoapVersion"), version(port.protocol()));
        }
        Code features = features(context, port);
        if (port.actions().isEmpty()) {
            file.line("$T.of()$L);", TypeName.ofLibrary("java.util.Map"), features);
        } else {
            actions(file, port, features);
        }
        file.outdent();
        file.gap();
    }

    /** The last argument for a port of which the policies ask for something that the runtime does by itself. */
    private static Code features(JavaContext context, PlannedService.Port port) {
        List<Code> features = new ArrayList<>();
        if (port.isOptimized()) {
            features.add(Code.of("$T.MTOM", context.soap("SoapFeature")));
        }
        if (port.isAddressed()) {
            features.add(Code.of("$T.ADDRESSING", context.soap("SoapFeature")));
        }
        return features.isEmpty() || port.type().isHttp()
                ? Code.NONE
                : Code.of(", $T.of($L)", TypeName.ofLibrary("java.util.Set"), Code.join(", ", features));
    }

    static String version(Protocol protocol) {
        return protocol == Protocol.SOAP_1_2 ? "SOAP_1_2" : "SOAP_1_1";
    }

    private static void actions(JavaFile file, PlannedService.Port port, Code features) {
        TypeName map = TypeName.ofLibrary("java.util.Map");
        file.line("$T.ofEntries(", map);
        file.indent();
        int left = port.actions().size();
        for (Map.Entry<String, String> action : port.actions().entrySet()) {
            left--;
            file.line(
                    "$T.entry($S, $S)$L",
                    map,
                    action.getKey(),
                    action.getValue(),
                    left == 0 ? Code.of(")$L);", features) : Code.of(","));
        }
        file.outdent();
    }
}
