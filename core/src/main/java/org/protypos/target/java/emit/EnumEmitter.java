package org.protypos.target.java.emit;

import java.util.List;
import java.util.stream.Collectors;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.PlannedEnum;
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
        file.block("public enum ", name, implemented(file, type.interfaces()));
        int last = type.constants().size() - 1;
        for (int i = 0; i <= last; i++) {
            PlannedEnum.Constant constant = type.constants().get(i);
            file.doc(JavaText.comment(constant.documentation()));
            file.line(constant.name(), "(", JavaText.literal(constant.value()), ")", i == last ? ";" : ",");
        }
        file.gap();
        file.line("private final String value;");
        file.gap();
        file.block(name, "(String value)");
        file.line("this.value = value;");
        file.close();
        file.gap().doc("The value as it is written in XML.");
        file.block("public String value()");
        file.line("return this.value;");
        file.close();
        file.gap().doc("The constant for a value written in XML, or null when there is none.");
        file.block("public static ", name, " find(String value)");
        if (type.constants().size() > MOST_CASES) {
            file.line("return BY_VALUE.get(value);");
            file.close();
            byValue(file, name);
            file.close();
            return;
        }
        file.block("switch (value)");
        for (PlannedEnum.Constant constant : type.constants()) {
            file.line("case ", JavaText.literal(constant.value()), ": return ", constant.name(), ";");
        }
        file.line("default: return null;");
        file.close();
        file.close();
        file.close();
    }

    /** The clause that names interfaces, or nothing. */
    static String implemented(JavaFile file, List<String> interfaces) {
        return interfaces.isEmpty()
                ? ""
                : " implements " + interfaces.stream().map(file::ref).collect(Collectors.joining(", "));
    }

    private static void byValue(JavaFile file, String name) {
        String map = file.ref("java.util.Map");
        String hashMap = file.ref("java.util.HashMap");
        file.gap();
        file.line("private static final ", map, "<String, ", name, "> BY_VALUE = byValue();");
        file.gap();
        file.block("private static ", map, "<String, ", name, "> byValue()");
        file.line(map, "<String, ", name, "> found = new ", hashMap, "<>();");
        file.block("for (", name, " constant : values())");
        file.line("found.put(constant.value, constant);");
        file.close();
        file.line("return found;");
        file.close();
    }
}
