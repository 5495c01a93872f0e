package org.protypos.target.java.emit;

import java.util.List;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedEnum;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaText;

/** Writes an enum for a simple type that names its values. */
public final class EnumEmitter {
    /** A switch over more values would make a method longer than the platform allows. */
    private static final int MOST_CASES = 500;

    private EnumEmitter() {}

    /** The source file for this part of a plan. */
    public static SourceFile emit(JavaContext context, PlannedEnum type) {
        JavaFile file = context.file(type.packageName(), type.name());
        write(file, type);
        return file.finish();
    }

    static void write(JavaFile file, PlannedEnum type) {
        String name = type.name();
        file.doc(JavaText.comment(type.documentation()));
        file.block("public enum $N$L", name, implemented(type.interfaces()));
        int last = type.constants().size() - 1;
        for (int i = 0; i <= last; i++) {
            PlannedEnum.Constant constant = type.constants().get(i);
            file.doc(JavaText.comment(constant.documentation()));
            file.line(i == last ? "$N($S);" : "$N($S),", constant.name(), constant.value());
        }
        file.gap();
        file.line("private final String value;");
        file.gap();
        file.block("$N(String value)", name);
        file.line("this.value = value;");
        file.close();
        file.gap().doc("The value as it is written in XML.");
        file.block("public String value()");
        file.line("return this.value;");
        file.close();
        file.gap().doc("The constant for a value written in XML, or null when there is none.");
        file.block("public static $N find(String value)", name);
        if (type.constants().size() > MOST_CASES) {
            file.line("return BY_VALUE.get(value);");
            file.close();
            byValue(file, name);
            file.close();
            return;
        }
        file.block("switch (value)");
        for (PlannedEnum.Constant constant : type.constants()) {
            file.line("case $S: return $N;", constant.value(), constant.name());
        }
        file.line("default: return null;");
        file.close();
        file.close();
        file.close();
    }

    /** The clause that names interfaces, or nothing. */
    static Code implemented(List<String> interfaces) {
        return interfaces.isEmpty()
                ? Code.NONE
                : Code.of(
                        " implements $L",
                        Code.join(
                                ", ",
                                interfaces.stream()
                                        .map(name -> Code.of(TypeName.foreign(name)))
                                        .toList()));
    }

    private static void byValue(JavaFile file, String name) {
        TypeName map = TypeName.ofLibrary("java.util.Map");
        TypeName hashMap = TypeName.ofLibrary("java.util.HashMap");
        file.gap();
        file.line("private static final $T<String, $N> BY_VALUE = byValue();", map, name);
        file.gap();
        file.block("private static $T<String, $N> byValue()", map, name);
        file.line("$T<String, $N> found = new $T<>();", map, name, hashMap);
        file.block("for ($N constant : values())", name);
        file.line("found.put(constant.value, constant);");
        file.close();
        file.line("return found;");
        file.close();
    }
}
