package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Braces that stand in patterns, values and prose are none around a namespace: they are shown as they are, and rules with them fit. */
class BracesTest {
    private static final String SCHEMA = """
            <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:quay" xmlns="urn:quay">
              <xs:element name="sign"><xs:annotation><xs:documentation>Like {sign} of ${quay}.</xs:documentation></xs:annotation>
                <xs:simpleType><xs:restriction base="xs:string"><xs:pattern value="[A-Z]{3}x"/></xs:restriction></xs:simpleType>
              </xs:element>
              <xs:simpleType name="Flag"><xs:restriction base="xs:string">
                <xs:enumeration value="{a}b"/><xs:enumeration value="a.b"/>
              </xs:restriction></xs:simpleType>
              <xs:element name="flag" type="Flag" default="{a}b"/>
            </xs:schema>
            """;

    @TempDir
    Path folder;

    private Path old;

    @BeforeEach
    void write() throws IOException {
        old = folder.resolve("old.xsd");
        Files.writeString(old, SCHEMA);
    }

    @Test
    void what_has_changed_is_told_as_it_is_written() throws IOException {
        Path now = folder.resolve("now.xsd");
        Files.writeString(
                now,
                SCHEMA.replace("{3}", "{4}")
                        .replace("{sign}", "{mark}")
                        .replace("<xs:enumeration value=\"{a}b\"/>", "<xs:enumeration value=\"{z}b\"/>")
                        .replace("default=\"{a}b\"", "default=\"{z}b\""));
        assertThat(run("compare", old, now))
                .contains(
                        "element quay:sign: pattern [A-Z]{3}x becomes [A-Z]{4}x",
                        "\"Like {sign} of ${quay}.\" becomes \"Like {mark} of ${quay}.\"",
                        "value ~quay:Flag='{a}b' is called {z}b now",
                        "default '{a}b' becomes '{z}b'",
                        "it was called {a}b before");
    }

    @Test
    void rules_that_are_proposed_fit() throws IOException {
        Path rules = folder.resolve("names.yaml");
        assertThat(run("check", old, "--suggest", rules)).contains("1 clash of names");
        assertThat(Files.readString(rules)).contains("~quay:Flag='{a}b'").doesNotContain("  a:");
        assertThat(run("check", old, "--rules", rules))
                .contains("~quay:Flag='a.b'  meets one")
                .doesNotContain("clash");
    }

    private static String run(Object... arguments) {
        StringWriter out = new StringWriter();
        String[] words = new String[arguments.length];
        for (int i = 0; i < words.length; i++) {
            words[i] = arguments[i].toString();
        }
        assertThat(Main.run(new PrintWriter(out), new PrintWriter(out), words)).isZero();
        return out.toString();
    }
}
