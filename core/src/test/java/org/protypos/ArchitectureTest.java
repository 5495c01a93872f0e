package org.protypos;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.methods;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.nio.file.Path;
import java.util.Formatter;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.protypos.target.Target;
import org.protypos.target.Targets;

/** The pipeline runs one way: each stage knows those to its left and nothing of those to its right. */
class ArchitectureTest {
    private static final List<String> STAGES = List.of(
            "diagnostic",
            "source",
            "schema",
            "wsdl",
            "contract",
            "wire",
            "message",
            "constraint",
            "authoring",
            "infer",
            "draft",
            "profile",
            "naming",
            "binding",
            "api",
            "layout",
            "record",
            "target",
            "change",
            "reference",
            "output",
            "proof",
            "exchange",
            "project",
            "generator",
            "archive");

    /** What naming has that gives no names: how one speaks of components, and what is left out. */
    private static final Set<String> GIVES_NO_NAMES = Set.of("Subject", "Kind", "Renaming");

    private static final JavaClasses CORE = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPath(Path.of("target/classes"));

    private static String stage(String name) {
        return "org.protypos." + name + "..";
    }

    @Test
    void importsRunFromOutputTowardsSource() {
        for (int i = 0; i < STAGES.size(); i++) {
            String[] later = STAGES.subList(i + 1, STAGES.size()).stream()
                    .map(ArchitectureTest::stage)
                    .toArray(String[]::new);
            if (later.length > 0) {
                noClasses()
                        .that()
                        .resideInAPackage(stage(STAGES.get(i)))
                        .should()
                        .dependOnClassesThat()
                        .resideInAnyPackage(later)
                        .check(CORE);
            }
        }
    }

    @Test
    void stagesKnowOnlyWhatTheyMust() {
        noClasses()
                .that()
                .resideInAPackage(stage("schema"))
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(stage("wsdl"), stage("naming"))
                .check(CORE);
        noClasses()
                .that()
                .resideInAPackage(stage("naming"))
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(stage("source"), stage("schema"), stage("wsdl"), stage("contract"))
                .check(CORE);
        noClasses()
                .that()
                .resideInAPackage(stage("target"))
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(stage("source"), "javax.xml.stream..")
                .check(CORE);
        // Code is texts until an output writes it; only what compiles and runs it on a machine needs files.
        noClasses()
                .that()
                .resideInAPackage(stage("target"))
                .and()
                .haveNameNotMatching(".*Toolchain.*")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("java.nio.file..")
                .check(CORE);
    }

    /** The API is in no language's terms: it gives no names and knows nobody who does, and says nothing that only code has. */
    @Test
    void theApiKnowsNoLanguage() {
        noClasses()
                .that()
                .resideInAPackage(stage("api"))
                .should()
                .dependOnClassesThat(new DescribedPredicate<>("give names") {
                    @Override
                    public boolean test(JavaClass type) {
                        return type.getPackageName().equals("org.protypos.naming")
                                && !GIVES_NO_NAMES.contains(type.getSimpleName());
                    }
                })
                .check(CORE);
        methods()
                .that()
                .areDeclaredInClassesThat()
                .resideInAPackage(stage("api"))
                .and()
                .arePublic()
                .should()
                .haveNameNotMatching(
                        "(?i).*(package|class|accessor|getter|setter|client|endpoint|servlet|constant|nested|method"
                                + "|parameter|exception|async|optionalValue|nilName|java|csharp).*")
                .check(CORE);
    }

    /** What all languages share knows nothing of classes, which not all of them have. */
    @Test
    void theSeamKnowsNoClasses() {
        noClasses()
                .that()
                .resideOutsideOfPackages("org.protypos.target.*..", "org.protypos.archive..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("org.protypos.target.classes..")
                .check(CORE);
    }

    /** Nothing knows a language but the language itself. */
    @Test
    void languagesAreKnownToNobody() {
        for (Target target : Targets.all()) {
            String home = target.getClass().getPackageName();
            noClasses()
                    .that()
                    .resideOutsideOfPackage(home + "..")
                    .should()
                    .dependOnClassesThat()
                    .resideInAPackage(home + "..")
                    .check(CORE);
        }
    }

    @Test
    void packagesFormNoCircles() {
        slices().matching("org.protypos.(**)").should().beFreeOfCycles().check(CORE);
    }

    @Test
    void theCoreHasNoInterfaceCode() {
        noClasses().should().dependOnClassesThat().resideInAPackage("picocli..").check(CORE);
        noClasses().should().callMethod(System.class, "exit", int.class).check(CORE);
        noClasses()
                .should()
                .accessField(System.class, "out")
                .orShould()
                .accessField(System.class, "err")
                .check(CORE);
    }

    /** What is written to messages, code and files is the same wherever the machine stands: digits and letters differ by locale. */
    @Test
    void nothingIsWrittenByTheRulesOfAPlace() {
        for (JavaClasses written :
                List.of(CORE, new ClassFileImporter().importPath(Path.of("../runtime/target/classes")))) {
            noClasses()
                    .should()
                    .callMethod(String.class, "format", String.class, Object[].class)
                    .orShould()
                    .callMethod(String.class, "toLowerCase")
                    .orShould()
                    .callMethod(String.class, "toUpperCase")
                    .orShould()
                    .callMethod(String.class, "getBytes")
                    .orShould()
                    .callConstructor(String.class, byte[].class)
                    .orShould()
                    .callConstructor(Formatter.class)
                    .check(written);
        }
    }

    @Test
    void everyPackageIsOneOfTheStages() {
        classes()
                .should()
                .resideInAnyPackage(STAGES.stream().map(ArchitectureTest::stage).toArray(String[]::new))
                .check(CORE);
    }

    @Test
    void theRuntimeNeedsThePlatformAloneAndNoReflection() {
        JavaClasses runtime = new ClassFileImporter().importPath(Path.of("../runtime/target/classes"));
        classes()
                .that()
                .resideOutsideOfPackage("org.protypos.runtime.servlet")
                .should()
                .onlyDependOnClassesThat(new DescribedPredicate<>("are of the platform or the runtime itself") {
                    @Override
                    public boolean test(JavaClass type) {
                        String name = type.getPackageName();
                        return name.startsWith("java")
                                || name.startsWith("org.w3c.dom")
                                || name.startsWith("org.xml.sax")
                                || name.startsWith("org.protypos.runtime")
                                || type.isPrimitive()
                                || type.isArray();
                    }
                })
                .check(runtime);
        noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAPackage("java.lang.reflect..")
                .check(runtime);
    }
}
