package org.protypos.target.java.emit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedService;
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
        file.block("public final class ", service.name());
        for (PlannedService.Port port : service.ports()) {
            port(context, file, service, port);
        }
        file.line("private ", service.name(), "() {}");
        file.close();
        return file.finish();
    }

    private static void port(JavaContext context, JavaFile file, PlannedService service, PlannedService.Port port) {
        String portClass = context.soap(file, port.type().isHttp() ? "HttpPort" : "SoapPort");
        String type = file.ref(port.type().packageName(), port.type().name());
        List<String> asked = PolicyAssertion.inWords(port.policy());
        file.doc(
                JavaText.comment(port.documentation()),
                port.speaks() + " at " + JavaText.comment(port.address()) + "."
                        + (port.isDefault()
                                ? " The default port of {@code " + port.type().name() + "}."
                                : ""),
                asked.isEmpty() ? "" : "Its policies ask for " + JavaText.comment(String.join(", ", asked)) + ".");
        file.line("public static final ", portClass, "<", type, "> ", port.constant(), " = new ", portClass, "<>(");
        file.indent();
        file.line(JavaText.literal(service.xmlName().getLocalPart()), ",");
        file.line(JavaText.literal(port.xmlName()), ",");
        file.line(JavaText.literal(port.address()), ",");
        if (port.type().isHttp()) {
            file.line(JavaText.literal(port.verb()), ",");
        } else {
            file.line(context.soap(file, "SoapVersion"), version(port.protocol()), ",");
        }
        String features = features(context, file, port);
        if (port.actions().isEmpty()) {
            file.line(file.ref("java.util.Map"), ".of()", features, ");");
        } else {
            actions(file, port, features);
        }
        file.outdent();
        file.gap();
    }

    /** The last argument for a port of which the policies ask for something that the runtime does by itself. */
    private static String features(JavaContext context, JavaFile file, PlannedService.Port port) {
        List<String> features = new ArrayList<>();
        if (port.isOptimized()) {
            features.add(context.soap(file, "SoapFeature") + ".MTOM");
        }
        if (port.isAddressed()) {
            features.add(context.soap(file, "SoapFeature") + ".ADDRESSING");
        }
        return features.isEmpty() || port.type().isHttp()
                ? ""
                : ", " + file.ref("java.util.Set") + ".of(" + String.join(", ", features) + ")";
    }

    static String version(Protocol protocol) {
        return protocol == Protocol.SOAP_1_2 ? ".SOAP_1_2" : ".SOAP_1_1";
    }

    private static void actions(JavaFile file, PlannedService.Port port, String features) {
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
                    left == 0 ? "))" + features + ");" : "),");
        }
        file.outdent();
    }
}
