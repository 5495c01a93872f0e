package org.protypos.profile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.params.provider.Arguments.arguments;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.message.capture.HttpCapture;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.source.DocumentGatherer;

/** Envelopes that break the profiles, and one that does not. */
class MessageProfileTest {
    private static String told(String text) throws IOException {
        MessageElement root = MessageReader.read("message.xml", text);
        return told(judge(Path.of("../examples/harbour/contract/desk.wsdl")).of(root));
    }

    private static MessageProfile judge(Path contract) throws IOException {
        return new MessageProfile(ContractReader.read(DocumentGatherer.gather(List.of(contract.toString()), null)));
    }

    /** What is told of a message as HTTP brought it. */
    private static String captured(Path contract, String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.ISO_8859_1);
        HttpCapture capture = HttpCapture.of("message.http", bytes);
        MessageElement root =
                capture.isEmpty() ? null : MessageReader.read("message.http", capture.document(), new Findings());
        return told(judge(contract).of(capture, root));
    }

    private static String told(List<Finding> findings) {
        StringBuilder told = new StringBuilder();
        for (Finding finding : findings) {
            told.append(finding.place().line())
                    .append(' ')
                    .append(finding.message())
                    .append('\n');
        }
        return told.toString();
    }

    @Test
    void everyRequirementFindsWhatBreaksIt() throws IOException {
        assertThat(told("""
                <s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/" xmlns:e="http://schemas.xmlsoap.org/soap/encoding/"
                            xmlns:b="urn:lantern-bay" s:encodingStyle="urn:x">
                  <s:Header><b:pass s:mustUnderstand="true"/></s:Header>
                  <s:Body>
                    <bare/>
                    <b:styled s:encodingStyle="urn:x"><b:list e:arrayType="b:x[1]"/></b:styled>
                    <s:Fault s:encodingStyle="urn:x">
                      <faultcode>s:Server.Tide</faultcode>
                      <b:detail/>
                      <why/>
                    </s:Fault>
                    <s:Fault><faultcode>Odd</faultcode></s:Fault>
                  </s:Body>
                  <b:late/>
                </s:Envelope>
                """)).isEqualTo("""
                2 R1005: an element of SOAP says an encoding style: Envelope
                2 R1032: Envelope, Header or Body has an attribute of SOAP: encodingStyle
                3 R1013: mustUnderstand is neither 0 nor 1: true
                4 R9981: there is more than one element in the body: 4 elements
                5 R1014: an element in the body is in no namespace: bare
                6 R1006: an element in the body says an encoding style: styled
                6 R2113: soapenc:arrayType is there: list
                7 R1005: an element of SOAP says an encoding style: Fault
                8 R1031: the fault code has a dot: s:Server.Tide
                9 R1001: a part of a fault is in a namespace: detail
                10 R1000: a fault has other parts than faultcode, faultstring, faultactor and detail: why
                12 R1004: the fault code is none of SOAP and has no namespace: Odd
                14 R1011: an element stands behind the body: late
                """);
    }

    @Test
    void whatKeepsThemIsLeftInPeace() throws IOException {
        assertThat(told("""
                <s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/">
                  <s:Header><b:pass xmlns:b="urn:lantern-bay" s:mustUnderstand="1"/></s:Header>
                  <s:Body><s:Fault><faultcode>s:Server</faultcode><faultstring>no</faultstring></s:Fault></s:Body>
                </s:Envelope>
                """)).isEmpty();
        assertThat(told("<bare/>")).isEmpty();
    }

    @Test
    void whatOnlyTheTextShowsIsFound() throws IOException {
        assertThat(told("""
                <?xml version="1.0"?><!-- <?no?> xmlns:xml="" -->
                <?first x?><s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/">
                  <s:Body><b:a xmlns:b="urn:b" b:c=" xmlns:xml='' " /><![CDATA[<?no?>]]><?second?><b:b xmlns:b="urn:b"
                    xmlns:xml = "http://www.w3.org/XML/1998/namespace"/></s:Body>
                </s:Envelope>
                """)).isEqualTo("""
                2 R1009: there is a processing instruction: first
                3 R9981: there is more than one element in the body: 2 elements
                3 R1009: there is a processing instruction: second
                3 R1033: the prefix xml is declared
                """);
    }

    private static final String ENVELOPE =
            "<s:Envelope xmlns:s=\"http://schemas.xmlsoap.org/soap/envelope/\"><s:Body>%s</s:Body></s:Envelope>";
    private static final String LIST =
            ENVELOPE.formatted("<d:listBerths xmlns:d=\"http://lanternbay.example/harbour/desk\"/>");

    static Stream<Arguments> requests() {
        String action = "http://lanternbay.example/harbour/desk/listBerths";
        return Stream.of(
                arguments(
                        "POST /desk HTTP/1.1\nSOAPAction: \"" + action + "\"\nContent-Type: text/xml; charset=utf-8\n\n"
                                + LIST,
                        ""),
                arguments(
                        "PUT /desk HTTP/1.0\r\nSOAPAction: " + action + "\r\nContent-Type: text/xml\r\n\r\n" + LIST,
                        """
                        1 R1132: the method is not POST: PUT
                        1 R1140: it is not HTTP/1.1: HTTP/1.0
                        2 R1109: the value of SOAPAction is not in quotation marks: ACTION
                        3 R1018: the content type does not say the encoding: text/xml
                        """.replace("ACTION", action)),
                arguments(
                        "M-POST /desk HTTP/2.0\ncontent-type: text/xml; charset=\"ISO-8859-1\"\nsoapaction: \"\"\n\n"
                                + LIST,
                        """
                        1 R1108: the request uses the extension framework of HTTP: M-POST
                        1 R1141: it is neither HTTP/1.1 nor HTTP/1.0: HTTP/2.0
                        2 R1012: the envelope is in another encoding than UTF-8 and UTF-16: ISO-8859-1
                        3 R2744: SOAPAction is not that of the binding: "", not "ACTION"
                        """.replace("ACTION", action)),
                arguments(
                        "POST /desk HTTP/1.1\nContent-Type: text/xml; charset=utf-8\n\n" + LIST,
                        "1 R2744: SOAPAction is not that of the binding: it is not there, not \"" + action + "\"\n"),
                arguments("POST /desk HTTP/1.1\nContent-Type: application/json\n\n{}", ""));
    }

    @ParameterizedTest
    @MethodSource("requests")
    void fieldsOfRequestsAreJudged(String request, String told) throws IOException {
        assertThat(captured(Path.of("../examples/harbour/contract/desk.wsdl"), request))
                .isEqualTo(told);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "200 OK                    | good  |",
                "202 Accepted              | good  | R1111: an answer that is no fault has another status than 200: 202",
                "404 Not Found             | good  | R1124: an answer that is no fault has a status that means something went wrong: 404",
                "200 OK                    | fault | R1126: a fault has another status than 500: 200",
                "500 Internal Server Error | fault |",
                "202 Accepted              | none  |",
                "204 No Content            | none  | R1112: an answer without an envelope has another status than 200 or 202: 204",
                "302 Found                 | none  | R1130: a request is sent elsewhere with another status than 307: 302",
                "307 Temporary Redirect    | none  |",
                "500                       | none  |"
            })
    void statusesOfAnswersAreJudged(String status, String carried, String told) throws IOException {
        String body =
                switch (carried) {
                    case "good" -> LIST;
                    case "fault" -> ENVELOPE.formatted("<s:Fault><faultcode>s:Server</faultcode></s:Fault>");
                    default -> "";
                };
        assertThat(captured(
                        Path.of("../examples/harbour/contract/desk.wsdl"),
                        "HTTP/1.1 " + status + "\nContent-Type: text/xml; charset=UTF-8\n\n" + body))
                .isEqualTo(told == null ? "" : "1 " + told + "\n");
    }

    @Test
    void callsOfRpcHaveNoEncodingInTheirParts(@TempDir Path folder) throws IOException {
        Path contract = Files.writeString(folder.resolve("gauge.wsdl"), """
                <definitions xmlns="http://schemas.xmlsoap.org/wsdl/" xmlns:s="http://schemas.xmlsoap.org/wsdl/soap/"
                    xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:t="urn:gauge" targetNamespace="urn:gauge">
                  <message name="read"><part name="at" type="xs:string"/></message>
                  <portType name="Gauge"><operation name="read"><input message="t:read"/></operation></portType>
                  <binding name="Gauge" type="t:Gauge">
                    <s:binding style="rpc" transport="http://schemas.xmlsoap.org/soap/http"/>
                    <operation name="read"><s:operation/><input><s:body use="literal" namespace="urn:gauge"/></input></operation>
                  </binding>
                </definitions>
                """);
        String call = ENVELOPE.formatted("<t:read xmlns:t=\"urn:gauge\"><at s:encodingStyle=\"urn:x\">1</at></t:read>");
        assertThat(captured(
                        contract,
                        "POST / HTTP/1.1\nContent-Type: text/xml; charset=UTF-8\nSOAPAction: \"read\"\n\n" + call))
                .isEqualTo("""
                        3 R2745: SOAPAction is not empty, and the binding has none: "read"
                        5 R1007: an element in what the body of an RPC carries says an encoding style: at
                        """);
    }
}
