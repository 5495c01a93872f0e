package org.protypos.target.csharp;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.Generator;
import org.protypos.generator.Order;
import org.protypos.target.Product;
import org.protypos.target.Targets;
import org.protypos.testing.CSharp;
import org.protypos.testing.Sections;

/** One file of rules for two languages. */
class CSharpRulesTest {
    private static final Path DESK = Path.of("../examples/harbour/contract/desk.wsdl");

    private static final String RULES = """
            prefixes: {d: "http://lanternbay.example/harbour/desk", v: "http://lanternbay.example/harbour/vessels"}
            rules:
              - {on: namespace d, java: {package: bay.desk}, csharp: {package: Bay.Desk}}
              - {on: "~d:BerthOffer", name: Offer, csharp: {documentation: Read in C#.}}
              - {on: "~v:Vessel/@callSign", as: bay.Sign, with: bay.Signs, csharp: {as: Bay.Sign, parse: new, print: ToString}}
              - {on: "~v:Vessel/v:name", csharp: {as: Bay.Sign, with: Bay.Signs}}
              - {on: "~v:Vessel/v:flag", java: {optional: true}}
              - {on: "~v:Ferry", csharp: {implements: Bay.ICrossing}}
              - {on: "~d:BerthOffer/d:from", csharp: {as: DateTimeOffset}}
              - {on: "d:noBerthFree/d:nextFree", csharp: {as: System.DateTimeOffset}}
              - {on: "d:requestBerth/d:stay", csharp: {as: TimeSpan}}
              - {on: "~v:Vessel/v:lengthInMetres", csharp: {as: decimal}}
              - {on: "~v:Vessel/v:draughtInMetres", csharp: {as: System.Decimal}}
              - {on: "~v:Tanker/v:cubicMetres", csharp: {as: decimal}}
            """;

    /** What somebody has beside the generated code. */
    private static final String OWN = """
            namespace Bay
            {
                /// <summary>A call sign.</summary>
                public sealed class Sign
                {
                    private readonly string text;

                    /// <summary>Of its text.</summary>
                    public Sign(string text)
                    {
                        this.text = text;
                    }

                    /// <inheritdoc/>
                    public override string ToString()
                    {
                        return this.text;
                    }
                }

                /// <summary>Makes call signs.</summary>
                public static class Signs
                {
                    /// <summary>Of text.</summary>
                    public static Sign parse(string text)
                    {
                        return new Sign(text);
                    }

                    /// <summary>As text.</summary>
                    public static string print(Sign sign)
                    {
                        return sign.ToString();
                    }
                }

                /// <summary>What crosses the bay.</summary>
                public interface ICrossing
                {
                }
            }
            """;

    /** How code sees lists that stand for their elements. */
    private static final String USES = """
            using System;
            using System.Collections.Generic;
            using Stack;

            /// <summary>Uses what was generated.</summary>
            public static class Uses
            {
                /// <summary>Says what it sees.</summary>
                public static void Main()
                {
                    Stack.Stack stack = new Stack.Stack { LostNil = true };
                    IList<Crate> crates = stack.Crates;
                    Console.WriteLine(crates.Count + " " + crates.Contains(new Crate { Weight = 1 }));
                    crates.Add(new Crate { Weight = 2 });
                    stack.Crates.Insert(0, new Crate { Weight = 1 });
                    stack.Lost.Add(null);
                    Console.WriteLine(Text(crates) + "; " + crates.Contains(new Crate { Weight = 1 }) + " " + stack.LostNil);
                    crates[1] = new Crate { Weight = 3 };
                    Crate[] copy = new Crate[3];
                    crates.CopyTo(copy, 1);
                    Console.WriteLine(Text(crates) + "; " + copy[2].Weight + " in " + copy.Length + " at "
                        + crates.IndexOf(new Crate { Weight = 3 }));
                    crates.RemoveAt(0);
                    crates.Remove(new Crate { Weight = 3 });
                    Console.WriteLine(crates.Count);
                    try
                    {
                        stack.Spare.Insert(1, new Crate());
                    }
                    catch (ArgumentOutOfRangeException e)
                    {
                        Console.WriteLine(e.GetType());
                    }

                    stack.Spare = new Crate[0];
                    stack.Lost = null;
                    stack.Marks = new List<int?> { 5 };
                    Console.WriteLine(stack);
                }

                private static string Text(IEnumerable<Crate> crates)
                {
                    string text = "";
                    foreach (Crate crate in crates)
                    {
                        text += crate.Weight + " ";
                    }

                    return text;
                }
            }
            """;

    @Test
    void eachLanguageHasWhatIsSaidForItAndWhatIsSaidForAll(@TempDir Path folder) throws IOException {
        CSharp.assumed();
        GeneratedCode code = generated(folder, "csharp");
        assertThat(code.findings()).isEmpty();
        assertThat(text(code, "Offer")).contains("namespace Bay.Desk\n").contains("Read in C#.");
        assertThat(text(code, "Vessel")).contains("Sign CallSign").contains("Sign Name");
        assertThat(text(code, "Ferry")).contains("ICrossing");
        Path own = Files.writeString(folder.resolve("Own.cs"), OWN);
        List<Path> sources = new ArrayList<>(CSharp.sources(folder.resolve("csharp")));
        sources.add(own);
        CSharp.compile(sources, "library", folder.resolve("contract.dll"), List.of());

        GeneratedCode java = generated(folder, "java");
        assertThat(java.findings()).isEmpty();
        assertThat(text(java, "Offer")).contains("package bay.desk;").doesNotContain("Read in C#.");
        assertThat(text(java, "Vessel")).contains("bay.Sign;").contains("String getName()");
    }

    /** Names that begin with a small letter could mean variables; what documentation says of them must be understood all the same. */
    @Test
    void documentationRefersToNamesWithSmallLetters(@TempDir Path folder) throws IOException {
        CSharp.assumed();
        Rules rules = RuleReader.read("rules.yaml", """
                prefixes: {d: "http://lanternbay.example/harbour/desk"}
                rules:
                  - {on: "portType d:HarbourDesk", name: desk}
                  - {on: "d:noBerthFree", name: full}
                  - {on: "message d:*", prefix: text}
                """, Targets.named("csharp").rules());
        GeneratedCode code = CSharp.library(DESK, rules, folder);
        assertThat(code.findings()).isEmpty();
        assertThat(text(code, "deskClient"))
                .contains("<see cref=\"T:Example.Lanternbay.Harbour.Desk.desk\"/>")
                .contains("<exception cref=\"T:Example.Lanternbay.Harbour.Desk.text");
    }

    private static GeneratedCode generated(Path folder, String language) throws IOException {
        Path rules = Files.writeString(folder.resolve("rules.yaml"), RULES);
        return Generator.of(List.of(DESK.toString()))
                .target(Targets.named(language))
                .rules(List.of(rules))
                .generate(new Order("", folder.resolve(language), null, Set.of(Product.TYPES, Product.CLIENT), true))
                .written(false, false);
    }

    /** A list that stands for its element is there for whoever asks, and the element as soon as there is something in it. */
    @Test
    void aListStandsForItsElement(@TempDir Path folder) throws IOException {
        CSharp.assumed();
        Sections test = Sections.in("messages")
                .filter(one -> one.toString().startsWith("lists-in-elements"))
                .findFirst()
                .orElseThrow();
        Path schema = test.layOut(folder);
        Rules rules = RuleReader.read(
                List.of(folder.resolve("rules.yaml")), Targets.named("csharp").rules());
        assertThat(CSharp.library(schema, rules, folder).findings()).isEmpty();
        Path source = Files.writeString(folder.resolve("Uses.cs"), USES);
        Files.copy(CSharp.runtime(), folder.resolve("Protypos.Runtime.dll"));
        Path program = folder.resolve("Uses.exe");
        CSharp.compile(List.of(source), "exe", program, List.of(CSharp.runtime(), folder.resolve("contract.dll")));
        assertThat(CSharp.run(List.of("mono", program.toString()), folder).lines())
                .containsExactly(
                        "0 False",
                        "1 2 ; True False",
                        "1 3 ; 3 in 3 at 1",
                        "0",
                        "System.ArgumentOutOfRangeException",
                        "Stack { Crates = Crates { }, Spare = Crates { }, Marks = Marks { Mark = [5] } }");
    }

    private static String text(GeneratedCode code, String name) {
        return code.files().stream()
                .filter(file -> file.path().matches(".*/" + name + "\\.\\w+"))
                .findFirst()
                .orElseThrow()
                .text();
    }

    /** Rules, their schema and the project file know the languages that there are. */
    @Test
    void rulesSpeakOfEveryLanguage() throws IOException {
        Set<String> languages =
                Targets.all().stream().map(target -> target.rules().language()).collect(Collectors.toSet());
        assertThat(Targets.all()).extracting(target -> target.name()).containsExactlyInAnyOrderElementsOf(languages);
        String rules = Files.readString(Path.of("src/main/resources/org/protypos/binding/rules.schema.json"));
        String project = Files.readString(Path.of("src/main/resources/org/protypos/project/project.schema.json"));
        for (String language : languages) {
            assertThat(rules).contains("\"" + language + "\": {");
            assertThat(project).contains("\"" + language + "\"");
        }
    }
}
