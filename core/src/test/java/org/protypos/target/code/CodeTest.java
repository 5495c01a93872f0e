package org.protypos.target.code;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.protypos.target.java.text.JavaFile;

/** Code from templates: what can stand in it, and what becomes of it in a file. */
class CodeTest {
    private static final TypeName LIST = TypeName.ofLibrary("java.util.List");
    private static final TypeName OTHER = TypeName.ofContract("bay.desk", "List");

    private static JavaFile file() {
        return new JavaFile("bay.yard", "Slip", Set.of("Slip", "Hull"), Set.of("Map"));
    }

    /** The one that is written first has the simple name; what is made and not written is not imported. */
    @Test
    void typesAreNamedWhereTheyAreWritten() {
        JavaFile file = file();
        Code unused = Code.of("$T", TypeName.ofLibrary("java.util.Optional"));
        Code field = Code.of("$T<$T>", LIST, OTHER);
        file.block("class $N", "Slip");
        file.line("private $T hulls;", field);
        file.line("private $T more = new $T<>();", TypeName.ofContract("bay.yard", "Hull"), OTHER);
        file.line("private $T own;", TypeName.ofLibrary("java.util.Map"));
        file.line("private $T row;", TypeName.ofContract("bay.desk", "Berth").nested("Row"));
        file.line("private $T plain;", TypeName.foreign("Plain"));
        file.line("private $T text = $S;", TypeName.ofLibrary("java.lang.String"), "a $T \"b\"\\u0041\n");
        file.close();
        assertThat(file.own().text()).isEqualTo("""
                package bay.yard;

                import bay.desk.Berth;
                import java.util.List;

                class Slip {
                    private List<bay.desk.List> hulls;
                    private Hull more = new bay.desk.List<>();
                    private java.util.Map own;
                    private Berth.Row row;
                    private Plain plain;
                    private String text = "a $T \\"b\\"\\\\u0041\\n";
                }
                """);
        assertThat(unused.isEmpty()).isFalse();
    }

    @Test
    void namesNumbersAndTextsAreWhatTheySayTheyAre() {
        Spelling full = new FullNames(true);
        assertThat(Code.of("$N.$N($L, $L, $S, $$)", "dock", "moor", 3, true, "\"")
                        .text(full))
                .isEqualTo("dock.moor(3, true, \"\\\"\", $)");
        assertThat(Code.join(" | ", List.of(Code.of(LIST), Code.of("$T", OTHER)))
                        .text(full))
                .isEqualTo("java.util.List | bay.desk.List");
        assertThat(Code.of(LIST).text(new FullNames(false))).isEqualTo("List");
        assertThat(Code.of("$T", LIST)).isEqualTo(Code.of(LIST)).hasSameHashCodeAs(Code.of(LIST));
        assertThatThrownBy(() -> Code.of("$N()", "moor(); evil")).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> Code.of("$L", "moor()")).isInstanceOf(ClassCastException.class);
        assertThatThrownBy(() -> Code.of("moor()", "dock")).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> Code.of("$X", "dock")).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void linesThatAreTooLongGoOnInTheNext() {
        JavaFile file = file();
        file.line("moor($L);", Code.literals(List.of("a".repeat(40), "b".repeat(40), "c".repeat(40))));
        assertThat(file.own().text()).endsWith("""
                moor("%s", "%s",
                        "%s");
                """.formatted("a".repeat(40), "b".repeat(40), "c".repeat(40)));
    }
}
