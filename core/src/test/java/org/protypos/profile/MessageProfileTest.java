package org.protypos.profile;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.protypos.diagnostic.Finding;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;

/** Envelopes that break the profiles, and one that does not. */
class MessageProfileTest {
    private static String told(String text) {
        MessageElement root = MessageReader.read("message.xml", text);
        StringBuilder told = new StringBuilder();
        for (Finding finding : MessageProfile.of(root)) {
            told.append(finding.place().line())
                    .append(' ')
                    .append(finding.message())
                    .append('\n');
        }
        return told.toString();
    }

    @Test
    void everyRequirementFindsWhatBreaksIt() {
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
    void whatKeepsThemIsLeftInPeace() {
        assertThat(told("""
                <s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/">
                  <s:Header><b:pass xmlns:b="urn:lantern-bay" s:mustUnderstand="1"/></s:Header>
                  <s:Body><s:Fault><faultcode>s:Server</faultcode><faultstring>no</faultstring></s:Fault></s:Body>
                </s:Envelope>
                """)).isEmpty();
        assertThat(told("<bare/>")).isEmpty();
    }
}
