package org.protypos.naming;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Designators are taken apart, whatever signs namespaces and values have. */
class DesignatorTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "~{http://a/b}Berth                  | ~{http://a/b}Berth  |                              | Berth    | {http://a/b}",
                "{http://a/b}berth                   | {http://a/b}berth   |                              | berth    | {http://a/b}",
                "berth                               | berth               |                              | berth    |",
                "~{http://a/b}Berth/{http://a/b}side | ~{http://a/b}Berth  | ~{http://a/b}Berth           | side     | {http://a/b}",
                "~{http://a/b}T/{http://a/b}a/b      | ~{http://a/b}T      | ~{http://a/b}T/{http://a/b}a | b        |",
                "~{urn:a}T/{urn:a}a/@{urn:b}c        | ~{urn:a}T           | ~{urn:a}T/{urn:a}a           | c        | {urn:b}",
                "~{urn:a}T/@c                        | ~{urn:a}T           | ~{urn:a}T                    | c        |",
                "~{urn:a}T='high/low'                | ~{urn:a}T           | ~{urn:a}T                    | high/low |",
                "~{urn:a}T/@k='{x}='y''              | ~{urn:a}T           | ~{urn:a}T/@k                 | {x}='y'  |",
                "{urn:a}berth/~0                     | {urn:a}berth        | {urn:a}berth                 | ~0       |",
                "~{urn:a}T/choice()[2]               | ~{urn:a}T           | ~{urn:a}T                    | choice()[2] |",
                "portType {http://a/b}Desk           | portType {http://a/b}Desk |                        | Desk     | {http://a/b}",
                "portType {http://a/b}Desk/payDues   | portType {http://a/b}Desk | portType {http://a/b}Desk | payDues |",
                "~{urn:a={'/}T/x                     | ~{urn:a={'/}T       | ~{urn:a={'/}T                | x        |"
            })
    void itIsTakenApart(String text, String root, String around, String local, String namespace) {
        Designator designator = Designator.of(text);
        assertThat(designator.root()).isEqualTo(root);
        assertThat(designator.around()).isEqualTo(around == null ? "" : around);
        assertThat(designator.local()).isEqualTo(local);
        assertThat(designator.namespace()).isEqualTo(namespace == null ? "" : namespace);
        assertThat(designator.isGlobal()).isEqualTo(around == null);
    }
}
