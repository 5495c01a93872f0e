package org.protypos.maven;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/**
 * Real Maven builds of small projects, with a repository of their own: what the build around has fetched already comes from
 * there, and the plugin as it was just built lies in it.
 */
final class Build {
    static final String VERSION = System.getProperty("protypos.version");
    private static final Path TOP = Path.of("..").toAbsolutePath().normalize();
    private static final Path REPOSITORY = Path.of("target/it-repository").toAbsolutePath();
    private static final Path SETTINGS = Path.of("target/it-settings.xml").toAbsolutePath();

    private final Path folder;

    Build(Path folder) {
        this.folder = folder;
    }

    /** What a build gave. */
    record Run(int status, String log) {
        Run good() {
            assertThat(status).as(log).isZero();
            return this;
        }

        Run bad() {
            assertThat(status).as(log).isNotZero();
            assertThat(log).doesNotContain("\tat org.protypos", "BUILD SUCCESS");
            return this;
        }
    }

    /** Puts the plugin and what it needs into the repository. */
    static void stage() throws IOException {
        install(TOP.resolve("pom.xml"), "org/protypos", "protypos", VERSION, "pom");
        for (String module : List.of("runtime", "core", "maven-plugin")) {
            String id = "protypos-" + module;
            install(TOP.resolve(module + "/pom.xml"), "org/protypos", id, VERSION, "pom");
            install(TOP.resolve(module + "/target/" + id + "-" + VERSION + ".jar"), "org/protypos", id, VERSION, "jar");
        }
        Files.writeString(SETTINGS, """
                <settings>
                  <profiles>
                    <profile>
                      <id>around</id>
                      <repositories><repository><id>around</id><url>%1$s</url></repository></repositories>
                      <pluginRepositories><pluginRepository><id>around</id><url>%1$s</url></pluginRepository></pluginRepositories>
                    </profile>
                  </profiles>
                  <activeProfiles><activeProfile>around</activeProfile></activeProfiles>
                </settings>
                """.formatted(
                        Path.of(System.getProperty("maven.repository")).toUri()));
    }

    /** Puts a file into the repository. */
    static void install(Path file, String group, String id, String version, String type) throws IOException {
        Path place = REPOSITORY.resolve(group).resolve(id).resolve(version);
        Files.createDirectories(place);
        Files.copy(file, place.resolve(id + "-" + version + "." + type), StandardCopyOption.REPLACE_EXISTING);
    }

    Path file(String name) {
        return folder.resolve(name);
    }

    Build write(String name, String text) throws IOException {
        Files.createDirectories(folder.resolve(name).getParent());
        Files.writeString(folder.resolve(name), text, StandardCharsets.UTF_8);
        return this;
    }

    /** Copies a folder of the examples. */
    Build example(String from, String to) throws IOException {
        Path source = TOP.resolve("examples").resolve(from);
        try (Stream<Path> files = Files.walk(source)) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                Path copy = folder.resolve(to).resolve(source.relativize(file).toString());
                Files.createDirectories(copy.getParent());
                Files.copy(file, copy, StandardCopyOption.REPLACE_EXISTING);
            }
        }
        return this;
    }

    /** A project with one execution of goals, configured as said, and with dependencies. */
    Build pom(String goals, String configuration, String more) throws IOException {
        return pom("pom.xml", goals, configuration, more);
    }

    Build pom(String file, String goals, String configuration, String more) throws IOException {
        return write(file, """
                <project xmlns="http://maven.apache.org/POM/4.0.0">
                  <modelVersion>4.0.0</modelVersion>
                  <groupId>example.lanternbay</groupId>
                  <artifactId>%5$s</artifactId>
                  <version>1</version>
                  <properties>
                    <maven.compiler.release>17</maven.compiler.release>
                    <project.build.sourceEncoding>UTF-8</project.build.sourceEncoding>
                  </properties>
                  %4$s
                  <build>
                    <plugins>
                      <plugin>
                        <groupId>org.protypos</groupId>
                        <artifactId>protypos-maven-plugin</artifactId>
                        <version>%1$s</version>
                        <executions>
                          <execution>
                            <goals>%2$s</goals>
                            <configuration>%3$s</configuration>
                          </execution>
                        </executions>
                      </plugin>
                      <plugin><artifactId>maven-resources-plugin</artifactId><version>3.3.1</version></plugin>
                      <plugin><artifactId>maven-compiler-plugin</artifactId><version>3.14.1</version></plugin>
                      <plugin><artifactId>maven-surefire-plugin</artifactId><version>3.5.4</version></plugin>
                      <plugin>
                        <artifactId>maven-failsafe-plugin</artifactId>
                        <version>3.5.4</version>
                        <configuration>
                          <systemPropertyVariables><desk>${protypos.stand-in.address}</desk></systemPropertyVariables>
                        </configuration>
                        <executions>
                          <execution><goals><goal>integration-test</goal><goal>verify</goal></goals></execution>
                        </executions>
                      </plugin>
                      <plugin><artifactId>maven-jar-plugin</artifactId><version>3.4.2</version></plugin>
                      <plugin><artifactId>maven-clean-plugin</artifactId><version>3.5.0</version></plugin>
                    </plugins>
                  </build>
                </project>
                """.formatted(
                VERSION,
                Stream.of(goals.split(" "))
                        .map(goal -> "<goal>" + goal + "</goal>")
                        .reduce("", String::concat),
                configuration,
                more,
                file.equals("pom.xml") ? "harbour" : Path.of(file).getParent().getFileName()));
    }

    /** Runs a build. */
    Run run(String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("maven.home"), "bin", "mvn").toString(),
                "-B",
                "-ntp",
                // Who builds may have settings of their own: they hold too.
                "-gs",
                SETTINGS.toString(),
                "-Dmaven.repo.local=" + REPOSITORY,
                "-Dstyle.color=never"));
        command.addAll(List.of(arguments));
        Path log = Files.createTempFile("build", ".log");
        ProcessBuilder builder = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectOutput(log.toFile());
        builder.environment().put("JAVA_HOME", System.getProperty("java.home"));
        builder.environment().remove("MAVEN_ARGS");
        Process process = builder.start();
        assertThat(process.waitFor(300, TimeUnit.SECONDS)).isTrue();
        Run run = new Run(process.exitValue(), Files.readString(log));
        Files.delete(log);
        return run;
    }
}
