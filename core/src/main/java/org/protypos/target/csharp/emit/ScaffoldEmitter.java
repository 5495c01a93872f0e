package org.protypos.target.csharp.emit;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.target.Beginning;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.FreeName;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpNames;
import org.protypos.target.csharp.text.EmbeddedRuntime;
import org.protypos.target.csharp.text.ProjectFile;

/**
 * Writes a beginning of the implementations of port types and of a project that builds them, for developers to go on with: it is
 * written once, and is theirs from then on.
 */
public final class ScaffoldEmitter {
    private static final String PROJECT = """
            <Project Sdk="Microsoft.NET.Sdk">
              <!-- This file is yours: it was written once and is not touched again. -->
              <PropertyGroup>
                <TargetFramework>netstandard2.0</TargetFramework>
                <LangVersion>7.3</LangVersion>
                <RootNamespace>%s</RootNamespace>
                <TreatWarningsAsErrors>true</TreatWarningsAsErrors>
              </PropertyGroup>
            %s</Project>
            """;

    private static final String OTHERS = """
              <ItemGroup>
                <Compile Include="%s/**/*.cs"/>
              </ItemGroup>
            """;

    /** The project's own sources are among them, and what it makes while it builds lies there too. */
    private static final String AROUND = """
              <PropertyGroup>
                <EnableDefaultCompileItems>false</EnableDefaultCompileItems>
              </PropertyGroup>
              <ItemGroup>
                <Compile Include="%1$s/**/*.cs" Exclude="%1$s/**/bin/**;%1$s/**/obj/**"/>
              </ItemGroup>
            """;

    private ScaffoldEmitter() {}

    /** A class for each port type that can be served, in the namespace of its interface. */
    public static List<Beginning> emit(Plan plan, boolean embedded) {
        CSharpContext context = new CSharpContext(plan, EmbeddedRuntime.of(plan, embedded));
        return plan.bound().stream().map(type -> emit(context, type)).toList();
    }

    /**
     * What builds the code.
     *
     * @param sources the folder of the generated sources as seen from the project's, empty when it is there or below
     */
    public static SourceFile project(Plan plan, String sources) {
        boolean around = sources.matches("\\.\\.(/\\.\\.)*");
        String others = sources.isEmpty() ? "" : (around ? AROUND : OTHERS).formatted(ProjectFile.escaped(sources));
        return new SourceFile(plan.rootPackage() + ".csproj", PROJECT.formatted(plan.rootPackage(), others));
    }

    private static String className(Plan plan, PlannedInterface type) {
        CSharpNames names = new CSharpNames();
        return FreeName.of(
                plan,
                type.packageName(),
                List.of(
                        names.companionName(type.name(), "Service"),
                        names.companionName(type.name(), "Implementation")));
    }

    private static Beginning emit(CSharpContext context, PlannedInterface type) {
        String name = className(context.plan(), type);
        CSharpFile file = context.file(type.packageName(), name);
        Signatures signatures = new Signatures(context, type);
        file.doc("What the service does. This file is yours: it was written once and is not touched again.");
        file.block("public class $N : $T", name, TypeName.ofContract(type.packageName(), type.name()));
        boolean first = true;
        Map<String, String> methods = new LinkedHashMap<>();
        for (PlannedOperation operation : type.operations()) {
            if (!first) {
                file.gap();
            }
            first = false;
            file.line("/// <inheritdoc/>");
            List<Code> method = method(signatures, operation);
            method.forEach(line -> file.line("$L", line));
            methods.put(operation.method(), Code.join("\n", method).text(file));
        }
        file.close();
        return new Beginning(file.own(), methods, Beginning.METHOD);
    }

    private static List<Code> method(Signatures signatures, PlannedOperation operation) {
        return List.of(
                Code.of("public $L", signatures.method(operation)),
                Code.of("{"),
                Code.of(
                        "    throw new $T($S);",
                        TypeName.ofLibrary("System", "NotImplementedException"),
                        operation.method()),
                Code.of("}"));
    }
}
