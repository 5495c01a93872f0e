package org.protypos.runtime.xml;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.Test;

/** What the message says of an element of a simple type beside its value: it is kept as long as the value is. */
class ExtendedValuesTest {
    private static final String SPACES = " xmlns=\"urn:l\" xmlns:i=\"http://www.w3.org/2001/XMLSchema-instance\"";

    /** As generated code has it: a list of texts, and a number. */
    private static final class Log extends XmlObject {
        private List<String> line = new ArrayList<>();
        private int depth;

        @Override
        protected void readElements(XmlInput in) {
            while (in.at("urn:l", "line")) {
                if (in.takeSimpleNil()) {
                    line.add(null);
                } else {
                    in.add(line, in.text());
                }
            }
            in.expect("urn:l", "depth");
            depth = in.toInt(in.text());
        }

        @Override
        protected void writeElements(XmlOutput out) {
            for (String item : line) {
                if (item == null) {
                    out.nil("urn:l", "line");
                } else {
                    out.element("urn:l", "line", item);
                }
            }
            out.element("urn:l", "depth", String.valueOf(depth));
        }
    }

    private static final class Signed extends XmlObject {
        private String by;
        private String value;

        @Override
        protected void readAttributes(XmlInput in) {
            by = in.requiredAttribute("", "by");
        }

        @Override
        protected void readBody(XmlInput in) {
            value = in.body();
        }

        @Override
        protected void writeAttributes(XmlOutput out) {
            out.attribute("", "by", by);
        }

        @Override
        protected void writeBody(XmlOutput out) {
            out.text(value);
        }

        @Override
        protected QName xmlType() {
            return new QName("urn:l", "Signed");
        }
    }

    private static final XmlTypes TYPES = new XmlTypes() {
        @Override
        protected XmlObject element(String namespace, String name) {
            return name.equals("log") ? new Log() : null;
        }

        @Override
        protected XmlObject type(String namespace, String name) {
            return name.equals("Signed") ? new Signed() : null;
        }
    };

    private static Log read(String lines) {
        String document = "<log" + SPACES + ">" + lines + "<depth>3</depth></log>";
        return TYPES.read(new ByteArrayInputStream(document.getBytes(StandardCharsets.UTF_8)), Log.class);
    }

    private static String written(Log log) {
        String text = new String(TYPES.write(XmlElement.of("urn:l", "log", log)), StandardCharsets.UTF_8);
        return text.substring(text.indexOf("?>") + 3);
    }

    @Test
    void theTypedValueCanBeSeenAndIsWrittenAgain() {
        Log log = read("<line>a</line><line i:type=\"Signed\" by=\"Ada\">b</line>");
        assertThat(log.line).containsExactly("a", "b");
        assertThat(log.extended("line")).hasSize(1);
        Signed signed = (Signed) log.extended("line").get(0);
        assertThat(signed.by).isEqualTo("Ada");
        assertThat(signed.value).isEqualTo("b");
        assertThat(log.extended("depth")).isEmpty();
        assertThat(written(log)).contains("<n1:line>a</n1:line><n1:line xsi:type=\"n1:Signed\" by=\"Ada\">b</n1:line>");
        signed.by = "Bo";
        assertThat(written(log)).contains("by=\"Bo\">b<");
    }

    @Test
    void whatBelongsToAnotherValueIsNotWritten() {
        Log log = read("<line>a</line><line i:type=\"Signed\" by=\"Ada\">b</line>");
        log.line.set(1, "c");
        assertThat(written(log)).contains("<n1:line>c</n1:line>").doesNotContain("Ada", "Signed\" by");
        log.line.remove(0);
        assertThat(written(log)).doesNotContain("Ada");
    }

    @Test
    void equalTextIsNotEqualWhenOneOfThemSaysMore() {
        Log plain = read("<line>b</line>");
        Log signed = read("<line i:type=\"Signed\" by=\"Ada\">b</line>");
        assertThat(signed).isNotEqualTo(plain);
        assertThat(signed.extended("line")).isNotEqualTo(plain.extended("line"));
        assertThat(read("<line>b</line>")).isEqualTo(plain);
    }

    @Test
    void nilKeepsItsTypeAndWhatThatAdds() {
        Log log = read("<line i:nil=\"true\" i:type=\"Signed\" by=\"Ada\"/><line i:nil=\"true\"/>");
        assertThat(log.line).containsExactly(null, null);
        assertThat(written(log))
                .contains("<n1:line xsi:type=\"n1:Signed\" xsi:nil=\"true\" by=\"Ada\"/><n1:line xsi:nil=\"true\"/>");
        log.line.set(0, "now there");
        assertThat(written(log)).contains("<n1:line>now there</n1:line>").doesNotContain("Ada");
    }
}
