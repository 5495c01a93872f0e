package org.protypos.target.java.text;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.Plan;

/** The sources of the runtime, moved into a package of the contract's own so that two generated jars never collide. */
public final class EmbeddedRuntime {
    private static final String HEADER =
            "// " + SourceFile.MARK + ": what generated code calls. Changes made here are lost.\n";

    /** The package of the runtime when it is used as a library. */
    public static final String LIBRARY = "org.protypos.runtime";

    private static final String HOME = "/runtime-sources/org/protypos/runtime/";
    private static final List<String> VALUE = List.of(
            "CalendarText Conversions Lexical WrittenValue Order XmlDate XmlDateTime XmlDuration XmlPartialDate XmlTime"
                    .split(" "));
    private static final List<String> CHECK =
            List.of("BoundedText BuiltinText PatternAutomaton Spellings TextPattern ValueRule Violation".split(" "));
    private static final List<String> XML = List.of(
            ("BoundedStream Description Lenience ListInside MemoryBudget MessageReplay Names Notes Reading ScalarInput SharedValues TextInput Utf8Buffer Violations XmlAttributes XmlCursor XmlElement"
                            + " XmlFormatException XmlInput XmlLimits XmlObject XmlOutput XmlParsers XmlSimple XmlTree XmlTypes")
                    .split(" "));
    private static final List<String> PARSE = List.of(
            "CharSource CharWindow Characters DecodedText MessageScanner ScannedText Symbols TokenScanner".split(" "));
    private static final List<String> ATTACH =
            List.of("Attachment Gzip MediaType MimePackage OutgoingPackage QuotedPrintable Spool".split(" "));
    private static final List<String> SOAP =
            List.of(("Addressing AttachedParts CallFailedException CallRefusedException Connection"
                            + " ContractDocuments ContractEndpoint DeclaredFault EncodedMessage Endpoint Envelope Fields HttpConnection"
                            + " HttpEndpoint HttpPort Incoming Origin OutsideAddress Redirects Reply Request Secrets SoapConnection SoapEndpoint"
                            + " SoapFault SoapFeature SoapGuard SoapInterceptor SoapMessage SoapPort SoapServer SoapSettings SoapVersion"
                            + " SpooledBody TextBody UndeclaredFaultException WireLog")
                    .split(" "));

    private static final List<String> HTTP =
            List.of("Exchange HttpListener Peer Progress RequestBody RequestHead".split(" "));

    private static final List<String> SECURITY =
            List.of("Replays SecurityHeader SignatureCheck SigningCertificate UsernameCheck UsernameToken XmlSignature"
                    .split(" "));

    private EmbeddedRuntime() {}

    /** The package of the runtime for a plan: one of its own when the sources are written beside it. */
    public static String of(Plan plan, boolean embedded) {
        return embedded ? plan.rootPackage() + ".runtime" : LIBRARY;
    }

    /** The files, with or without those for SOAP and the one for servlet containers. */
    public static List<SourceFile> files(String packageName, boolean soap, boolean servlet) {
        List<SourceFile> files = new ArrayList<>();
        VALUE.forEach(name -> files.add(file("value/" + name, packageName)));
        CHECK.forEach(name -> files.add(file("check/" + name, packageName)));
        XML.forEach(name -> files.add(file("xml/" + name, packageName)));
        PARSE.forEach(name -> files.add(file("parse/" + name, packageName)));
        ATTACH.forEach(name -> files.add(file("attach/" + name, packageName)));
        if (soap) {
            HTTP.forEach(name -> files.add(file("http/" + name, packageName)));
            SOAP.forEach(name -> files.add(file("soap/" + name, packageName)));
            SECURITY.forEach(name -> files.add(file("security/" + name, packageName)));
        }
        if (servlet) {
            files.add(file("servlet/EndpointServlet", packageName));
        }
        return files;
    }

    private static SourceFile file(String name, String packageName) {
        try (InputStream stream = EmbeddedRuntime.class.getResourceAsStream(HOME + name + ".java")) {
            String text = new String(stream.readAllBytes(), StandardCharsets.UTF_8);
            return new SourceFile(
                    packageName.replace('.', '/') + "/" + name + ".java", HEADER + text.replace(LIBRARY, packageName));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
