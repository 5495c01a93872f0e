package org.protypos.naming;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import javax.lang.model.SourceVersion;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.diagnostic.Findings;
import org.protypos.target.java.text.JavaNames;

/** XML names, and what Java makes of them. */
class JavaNamesTest {
    private final JavaNames names = new JavaNames();

    @ParameterizedTest
    @CsvSource({
        "berth, Berth, berth, BERTH",
        "berth-no, BerthNo, berthNo, BERTH_NO",
        "berth_no, BerthNo, berthNo, BERTH_NO",
        "URLName, URLName, urlName, URL_NAME",
        "ID, ID, id, ID",
        "class, Class, class_, CLASS",
        "a1b, A1B, a1B, A1_B",
        "_3d, _3D, _3D, _3_D",
        "été, Été, été, ÉTÉ",
        "e\u0301te, Éte, éte, ÉTE",
        "名, 名, 名, 名",
        "a\u202eb, AB, ab, A_B",
        "..., Unnamed, unnamed, FULL_STOP_FULL_STOP_FULL_STOP",
    })
    void namesAreSplitIntoWords(String xml, String type, String parameter, String constant) {
        assertThat(List.of(names.typeName(xml), names.parameterName(xml), names.constantName(xml)))
                .containsExactly(type, parameter, constant)
                .allMatch(SourceVersion::isIdentifier);
    }

    @ParameterizedTest
    @CsvSource({
        "http://lanternbay.example/harbour/desk, example.lanternbay.harbour.desk",
        "http://www.lantern-bay.example/2027/Desk.xsd, example.lantern_bay._2027.desk",
        "http://lanternbay.example:8480/a//b?c#d, example.lanternbay._8480.a.b.c.d",
        "http://lanternbay.example/v1.0/, example.lanternbay.v1_0",
        "urn:harbour:new:desk-1, harbour.new_.desk_1",
        "urn:harbour.example, harbour_example",
        "http://util.java/, java_.util",
        "http://dom.w3c.org/quay, org_.w3c.dom.quay",
        "http://www.w3.org/1999/xlink, org.w3._1999.xlink",
        "desk, desk",
        "'', generated",
        "http://, generated",
        "///, generated",
    })
    void packagesComeFromNamespaces(String namespace, String packageName) {
        assertThat(names.packageName(namespace)).isEqualTo(packageName);
        assertThat(SourceVersion.isName(packageName)).isTrue();
    }

    @Test
    void longNamesFitAFile() {
        String name = names.typeName("a".repeat(3000));
        assertThat(name).hasSizeLessThan(130).isNotEqualTo(names.typeName("a".repeat(3001)));
        assertThat(names.constantName("value ".repeat(300))).hasSizeLessThan(61);
    }

    @Test
    void aScopeGivesEachNameOnce() {
        Findings findings = new Findings();
        Naming naming = new Naming(names, Renaming.NONE, GivenNames.NONE, findings);
        NameScope outer = naming.scope("bay", List.of("Object"));
        Subject alone = type("berth-2");
        outer.expect(expected -> expected.wants(alone, "Berth2"));
        assertThat(outer.claim(type("Berth"), "Berth", "Type")).isEqualTo("Berth");
        assertThat(outer.claim(type("BERTH"), "BERTH", "Type")).isEqualTo("BERTHType");
        assertThat(outer.claim(type("berth"), "berth", "Type")).isEqualTo("berthType2");
        assertThat(outer.claim(type("object"), "object", "")).isEqualTo("object2");
        assertThat(outer.make("Berth", "")).isEqualTo("Berth3");
        assertThat(outer.claim(alone, "Berth2", "")).isEqualTo("Berth2");
        NameScope inner = outer.within("bay.Berth");
        assertThat(inner.claim(type("b"), "Berth", "")).isEqualTo("Berth4");
        assertThat(naming.clashes())
                .extracting(clash -> clash.cause() + " " + clash.given())
                .containsExactly("CASE BERTHType", "CASE berthType2", "RESERVED object2", "CONVERSION Berth4");
        assertThat(findings.sorted()).isEmpty();
    }

    /** What has no name in the contract keeps the one that was made for it, also where several want one. */
    @Test
    void whatIsMadeUpStays() {
        Naming first = new Naming(names, Renaming.NONE, GivenNames.NONE, new Findings());
        assertThat(made(first)).containsExactly("Lamp", "Lamp2");
        assertThat(made(new Naming(names, Renaming.NONE, first.given(), new Findings())))
                .containsExactly("Lamp", "Lamp2");
        GivenNames earlier = new GivenNames(names.language(), Map.of("bay", Map.of("+Lamp", "Lamp2")));
        assertThat(made(new Naming(names, Renaming.NONE, earlier, new Findings())))
                .containsExactly("Lamp", "Lamp2");
    }

    private static List<String> made(Naming naming) {
        NameScope scope = naming.scope("bay", List.of());
        return List.of(scope.make("Lamp", ""), scope.make("Lamp", ""));
    }

    private static Subject type(String name) {
        return Subject.type(new QName("urn:b", name), null);
    }
}
