package org.protypos.runtime.soap;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** No secret reaches a log, in whatever form a message has it; what is none stays readable. */
class SecretsTest {
    @ParameterizedTest
    @ValueSource(
            strings = {
                "<a><password>S3CRET</password><b>seen</b></a>",
                "<a><password><![CDATA[S3CRET]]></password><b>seen</b></a>",
                "<a><password>S3<!-- x -->CRET</password><b>seen</b></a>",
                "<a><password><part>S3CRET</part><part/></password><b>seen</b></a>",
                "<a><p:userPassword xmlns:p='urn:p' p:v='S3CRET'>S3CRET</p:userPassword><b>seen</b></a>",
                "<a><b apiKey = 'S3CRET' c='seen'/></a>",
                "<a><b c='seen' api-key=\"S3CRET\"></b></a>",
                "<a><param name='password' value='S3CRET'/><b>seen</b></a>",
                "<a><field name=\"Api_Key\">S3CRET</field><b>seen</b></a>",
                "<a><Passwort>S3CRET</Passwort><b>seen</b></a>",
                "<a><motDePasse>S3CRET</motDePasse><b>seen</b></a>",
                "<a><\u043f\u0430\u0440\u043e\u043b\u044c>S3CRET</\u043f\u0430\u0440\u043e\u043b\u044c><b>seen</b></a>",
                "<a><\u5bc6\u7801>S3CRET</\u5bc6\u7801><b>seen</b></a>",
                "<a><pin>S3CRET</pin><userPIN>S3CRET</userPIN><spin>seen</spin></a>",
                "<e xmlns:w='urn:w'><w:Security><w:Nonce>S3CRET</w:Nonce></w:Security><b>seen</b></e>",
                "<e><saml:Assertion xmlns:saml='urn:s' ID='x'><i>S3CRET</i></saml:Assertion><b>seen</b></e>",
                "<?xml version='1.0'?><!-- c --><a><token>S3CRET&lt;</token>seen</a>",
                "{\"password\": \"S3CRET\", \"b\": \"seen\"}",
                "{\"a\": [{\"access_token\": {\"x\": [\"S3CRET\", 1]}}, \"seen\"]}",
                "{\"pass\\u0077ord-\": 1, \"secret\" : S3CRET , \"b\": \"seen\"}",
                "user=seen&password=S3CRET&x=1",
                "api_key=S3CRET&b=seen",
            })
    void valuesAreBlanked(String message) {
        assertThat(WireLog.blanked(message)).contains("seen", "***").doesNotContain("S3CRET", "CRET");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<a><password>S3CRET</pass",
                "<a><password>S3CRET",
                "<a password='S3CRET'",
                "<password>S3CRET</password><a>",
                "{\"password\": \"S3CRET\"",
                "{\"password\" \"S3CRET\"}",
                "password: S3CRET\nand more",
                "S3CRET",
                "<!DOCTYPE a [<!ENTITY e 'S3CRET'>]><a>&e;</a>",
            })
    void nothingIsShownOfWhatCannotBeRead(String message) {
        assertThat(WireLog.blanked(message))
                .startsWith("(a message of " + message.length())
                .doesNotContain("S3CRET");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<a b='1' c=\"2>3\"><d/>text &amp; more<![CDATA[<x>]]><!-- <password> --><?p password?></a>",
                "<a>\n  <name>x</name>\n</a>",
                "<compass>north</compass>",
                "{\"a\": [1, true, null, \"x\\\"y\", {}], \"b\": -1.5e3}",
                "a=1&b=%3D",
                "",
                "  ",
            })
    void whatIsNoSecretIsShownAsItCame(String message) {
        assertThat(WireLog.blanked(message)).isEqualTo(message);
    }

    @ParameterizedTest
    @CsvSource({
        "Authorization, true",
        "Proxy-Authorization, true",
        "Set-Cookie, true",
        "X-Api-Key, true",
        "X-Auth-Token, true",
        "Author, false",
        "Content-Type, false",
        "Accept, false",
        "SOAPAction, false",
    })
    void headersThatSayWhoSomebodyIs(String name, boolean secret) {
        assertThat(WireLog.blankedHeader(name, "v").equals("***")).isEqualTo(secret);
    }

    @Test
    void thePropertyAddsWords() {
        assertThat(WireLog.blanked("<a><Losung>x</Losung></a>")).contains("x");
        System.setProperty(Secrets.PROPERTY, "losung, schibboleth");
        try {
            assertThat(WireLog.blanked("<a><Losung>x</Losung></a>")).contains("<Losung>***</Losung>");
        } finally {
            System.clearProperty(Secrets.PROPERTY);
        }
    }

    /** The time grows with the message and no faster, whatever it is made of. */
    @Test
    @Timeout(20)
    void longMessagesTakeNoLongerThanTheyAreLong() {
        for (String piece : new String[] {"<password ", "<a b=\"", "&lt;", "passw", "<b/>", "x=\"token\" "}) {
            WireLog.blanked("<a>" + piece.repeat(400_000));
            WireLog.blanked(("<a>" + "<password>x</password>".repeat(50_000) + "</a>"));
        }
        WireLog.blanked("{\"a\":".repeat(200_000));
    }
}
