package org.protypos.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.diagnostic.Findings;

/** Catalogs as XML Catalogs 1.1, sections 6 and 7 say. */
class CatalogTest {
    private static final String START =
            "<?xml version='1.0'?><!DOCTYPE catalog PUBLIC '-//OASIS//DTD XML Catalogs V1.1//EN'"
                    + " 'http://127.0.0.1:1/catalog.dtd'>"
                    + "<catalog xmlns='urn:oasis:names:tc:entity:xmlns:xml:catalog' xmlns:o='urn:other'>";

    @TempDir
    private Path folder;

    private final Catalog catalog = new Catalog();
    private final Findings findings = new Findings();

    private Path file(String name, String entries) throws IOException {
        return Files.writeString(folder.resolve(name), START + entries + "</catalog>");
    }

    @BeforeEach
    void write() throws IOException {
        file("tides.xml", "<uri name='http://tides.example/deep/one' uri='delegated.xsd'/>");
        file("pier.xml", "<uri name='urn:pier' uri='pier.xsd'/><nextCatalog catalog='main.xml'/>");
        Path main = file("main.xml", """
                <o:uri name='urn:ignored' uri='no.xsd'/>
                <uri name='urn:a' uri='first.xsd'/>
                <uri name='urn:a' uri='second.xsd'/>
                <uri name='urn:space%20d' uri='space d.xsd'/>
                <system systemId='http://harbour.example/desk.xsd' uri='desk.xsd'/>
                <public publicId=' -//Lantern  Bay//DTD Desk//EN ' uri='desk.dtd'/>
                <group prefer='system' xml:base='sub/'>
                  <uri name='urn:b' uri='b.xsd'/>
                  <public publicId='-//Lantern Bay//DTD Pier//EN' uri='pier.dtd'/>
                </group>
                <uri name='urn:c' xml:base='http://mirror.example/x/' uri='../c.xsd'/>
                <rewriteURI uriStartString='http://quay.example/' rewritePrefix='quay/'/>
                <rewriteURI uriStartString='http://quay.example/long/' rewritePrefix='file:///long/'/>
                <uri name='http://quay.example/long/exact' uri='exact.xsd'/>
                <uriSuffix uriSuffix='/types.xsd' uri='types.xsd'/>
                <uriSuffix uriSuffix='deep/types.xsd' uri='deep.xsd'/>
                <delegateURI uriStartString='http://tides.example/deep/' catalog='tides.xml'/>
                <delegateURI uriStartString='http://tides.example/' catalog='nothing.xml'/>
                <rewriteSystem systemIdStartString='sys:' rewritePrefix='::'/>
                <nextCatalog catalog='pier.xml'/>
                """);
        catalog.add(main, findings);
    }

    private String relative(URI found) {
        return found == null ? "" : folder.toUri().relativize(found).toString().replaceFirst("^file:/+", "file:/");
    }

    @ParameterizedTest
    @CsvSource(
            emptyValue = "",
            value = {
                "urn:a, first.xsd",
                "urn:space d, space%20d.xsd",
                "urn:ignored, ''",
                "urn:b, sub/b.xsd",
                "urn:c, http://mirror.example/c.xsd",
                "http://harbour.example/desk.xsd, desk.xsd",
                "http://quay.example/a/b.xsd, quay/a/b.xsd",
                "http://quay.example/long/a, file:/long/a",
                "http://quay.example/long/exact, exact.xsd",
                "any/types.xsd, types.xsd",
                "any/deep/types.xsd, deep.xsd",
                "http://tides.example/deep/one, delegated.xsd",
                // What is delegated is not asked of the next catalog.
                "http://tides.example/deep/two, ''",
                "urn:pier, pier.xsd",
                "sys:x, ''",
                "urn:unknown, ''",
            })
    void addressesLeadWhereTheEntriesSay(String address, String expected) {
        assertThat(relative(catalog.match(address))).isEqualTo(expected);
    }

    @Test
    void publicIdentifiersCountAsTheGroupPrefers() {
        assertThat(relative(catalog.matchExternal("-//Lantern Bay//DTD  Desk//EN", "http://x.example/d.dtd")))
                .isEqualTo("desk.dtd");
        assertThat(catalog.matchExternal("-//Lantern Bay//DTD Pier//EN", "http://x.example/d.dtd"))
                .isNull();
        assertThat(relative(catalog.matchExternal("-//Lantern Bay//DTD Pier//EN", null)))
                .isEqualTo("sub/pier.dtd");
        assertThat(relative(catalog.matchExternal(null, "http://harbour.example/desk.xsd")))
                .isEqualTo("desk.xsd");
    }

    @Test
    void aCatalogThatIsNoneIsAFinding() throws IOException {
        assertThat(findings.sorted()).extracting(finding -> finding.code()).containsExactly("catalog-unreadable");
        Findings more = new Findings();
        Catalog other = new Catalog();
        other.add(folder, more);
        other.add(Files.writeString(folder.resolve("broken.xml"), "<catalog"), more);
        other.add(Files.writeString(folder.resolve("other.xml"), "<other/>"), more);
        assertThat(more.sorted())
                .extracting(finding -> finding.code())
                .containsExactly("catalog-unreadable", "malformed-xml");
        assertThat(other.match("urn:a")).isNull();
    }
}
