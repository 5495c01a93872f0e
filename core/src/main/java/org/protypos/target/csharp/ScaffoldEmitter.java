package org.protypos.target.csharp;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.protypos.plan.ApiInterface;
import org.protypos.plan.ApiOperation;
import org.protypos.plan.Plan;
import org.protypos.target.FreeName;
import org.protypos.target.SourceFile;

/**
 * Writes a beginning of the implementations of port types and of a project that builds them, for developers to go on with: it is
 * written once, and is theirs from then on.
 */
final class ScaffoldEmitter {
    private static final String PROJECT = """
            <Project Sdk="Microsoft.NET.Sdk">
              <!-- This file is yours: it was written once and is not touched again. -->
              <PropertyGroup>
                <TargetFramework>netstandard2.0</TargetFramework>
                <LangVersion>7.3</LangVersion>
                <RootNamespace>%s</RootNamespace>
                <TreatWarningsAsErrors>true</TreatWarningsAsErrors>
              </PropertyGroup>
              <ItemGroup>
                <!-- Say here where the generated sources lie, unless it is below this folder. -->
                <!-- <Compile Include="../generated/**/*.cs" /> -->
              </ItemGroup>
            </Project>
            """;

    private ScaffoldEmitter() {}

    /** A class for each port type that can be served, in the namespace of its interface. */
    static Map<ApiInterface, SourceFile> emit(Plan plan, boolean embedded) {
        CSharpContext context = new CSharpContext(plan, EmbeddedRuntime.of(plan, embedded));
        Map<ApiInterface, SourceFile> files = new LinkedHashMap<>();
        for (ApiInterface type : plan.bound()) {
            files.put(type, emit(context, type));
        }
        return files;
    }

    /** What builds the code. */
    static SourceFile project(Plan plan) {
        return new SourceFile(plan.rootPackage() + ".csproj", PROJECT.formatted(plan.rootPackage()));
    }

    private static String className(Plan plan, ApiInterface type) {
        CSharpNames names = new CSharpNames();
        return FreeName.of(
                plan,
                type.packageName(),
                List.of(
                        names.companionName(type.name(), "Service"),
                        names.companionName(type.name(), "Implementation")));
    }

    private static SourceFile emit(CSharpContext context, ApiInterface type) {
        String name = className(context.plan(), type);
        CSharpFile file = context.file(type.packageName(), name);
        Signatures signatures = new Signatures(context, file, type);
        file.doc("What the service does. This file is yours: it was written once and is not touched again.");
        file.open("public class ", name, " : ", file.contractType(type.packageName(), type.name()));
        boolean first = true;
        for (ApiOperation operation : type.operations()) {
            if (!first) {
                file.gap();
            }
            first = false;
            file.line("/// <inheritdoc/>");
            method(file, signatures, operation).forEach(file::line);
        }
        file.close();
        return file.own();
    }

    private static List<String> method(CSharpFile file, Signatures signatures, ApiOperation operation) {
        return List.of(
                "public " + signatures.method(operation),
                "{",
                "    throw new " + file.type("System", "NotImplementedException") + "("
                        + CSharpText.literal(operation.method()) + ");",
                "}");
    }

    /** The methods of an implementation, by name. */
    static Map<String, String> methods(Plan plan, boolean embedded, ApiInterface type) {
        CSharpContext context = new CSharpContext(plan, EmbeddedRuntime.of(plan, embedded));
        CSharpFile file = context.file(type.packageName(), className(context.plan(), type));
        Signatures signatures = new Signatures(context, file, type);
        Map<String, String> methods = new LinkedHashMap<>();
        for (ApiOperation operation : type.operations()) {
            methods.put(
                    operation.method(),
                    method(file, signatures, operation).stream().collect(Collectors.joining("\n")));
        }
        return methods;
    }
}
