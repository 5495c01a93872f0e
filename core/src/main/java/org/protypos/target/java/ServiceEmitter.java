package org.protypos.target.java;

import java.util.Map;
import org.protypos.plan.ApiService;
import org.protypos.target.SourceFile;
import org.protypos.wsdl.Protocol;

/** Writes the constants of a service: one for each port. */
final class ServiceEmitter {
    private ServiceEmitter() {}

    static SourceFile emit(JavaContext context, ApiService service) {
        JavaFile file = context.file(service.packageName(), service.name());
        file.doc(
                JavaText.comment(service.documentation()),
                "The ports of the service " + JavaText.comment(service.xmlName().getLocalPart()) + ".");
        file.open("public final class ", service.name(), " {");
        for (ApiService.Port port : service.ports()) {
            port(context, file, service, port);
        }
        file.line("private ", service.name(), "() {}");
        file.close();
        return file.finish();
    }

    private static void port(JavaContext context, JavaFile file, ApiService service, ApiService.Port port) {
        String soapPort = context.soap(file, "SoapPort");
        String type = file.ref(port.type().packageName(), port.type().name());
        file.doc(
                JavaText.comment(port.documentation()),
                port.protocol().title() + " at " + JavaText.comment(port.address()) + "."
                        + (port.isDefault()
                                ? " The default port of {@code " + port.type().name() + "}."
                                : ""));
        file.line("public static final ", soapPort, "<", type, "> ", port.constant(), " = new ", soapPort, "<>(");
        file.indent();
        file.line(JavaText.literal(service.xmlName().getLocalPart()), ",");
        file.line(JavaText.literal(port.xmlName()), ",");
        file.line(JavaText.literal(port.address()), ",");
        file.line(context.soap(file, "SoapVersion"), version(port.protocol()), ",");
        if (port.actions().isEmpty()) {
            file.line(file.ref("java.util.Map"), ".of());");
        } else {
            actions(file, port);
        }
        file.outdent();
        file.gap();
    }

    static String version(Protocol protocol) {
        return protocol == Protocol.SOAP_1_2 ? ".SOAP_1_2" : ".SOAP_1_1";
    }

    private static void actions(JavaFile file, ApiService.Port port) {
        String map = file.ref("java.util.Map");
        file.line(map, ".ofEntries(");
        file.indent();
        int left = port.actions().size();
        for (Map.Entry<String, String> action : port.actions().entrySet()) {
            left--;
            file.line(
                    map,
                    ".entry(",
                    JavaText.literal(action.getKey()),
                    ", ",
                    JavaText.literal(action.getValue()),
                    left == 0 ? ")));" : "),");
        }
        file.outdent();
    }
}
