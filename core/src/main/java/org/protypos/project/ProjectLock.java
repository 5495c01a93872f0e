package org.protypos.project;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParseException;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.util.DefaultIndenter;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.diagnostic.MalformedText;
import org.protypos.diagnostic.Printable;
import org.protypos.diagnostic.SourceText;
import org.protypos.naming.Designator;
import org.protypos.naming.GivenNames;
import org.protypos.output.InsideFolder;
import org.protypos.output.LockFormat;
import org.protypos.target.Targets;

/**
 * Reads and writes the lock files of a project, one in the folder of each contract: which documents are pinned, and which names components
 * have. One fact stands on each line, in an order of its own, so that changes to different facts can be merged.
 */
final class ProjectLock {
    static final String FILE = "protypos.lock.json";

    /** The code of findings about a lock file that is not believed. */
    static final String BROKEN = "lock-file";

    private static final int VERSION = 1;
    private static final long LONGEST = 256L << 20;

    private ProjectLock() {}

    /**
     * What the lock file of a contract says; null when there is none, or when it is none of ours, of which nothing is believed then.
     *
     * @param folder the folder of the contract, relative to the project
     * @param findings is told what is wrong with it
     */
    static PinnedContract read(Path root, String folder, Findings findings) throws IOException {
        String name = path(folder);
        Path file = root.resolve(name);
        if (!Files.isRegularFile(file)) {
            return null;
        }
        if (Files.size(file) > LONGEST) {
            throw new IOException(file + " is longer than any lock file of ours");
        }
        return read(new SourceText(name, GivenFile.decoded(Files.readAllBytes(file), name)), findings);
    }

    /** Likewise, of a text. */
    static PinnedContract read(SourceText text, Findings findings) throws IOException {
        int merge = LockFormat.firstMergeMark(text.text());
        if (merge >= 0) {
            findings.error(
                    BROKEN,
                    text.at(merge),
                    "the lock file has the marks of a merge that nobody has finished",
                    "type: protypos repair");
            return null;
        }
        try (JsonParser in = LockFormat.JSON.createParser(text.text())) {
            return new Reader(in, text).lock();
        } catch (JsonProcessingException e) {
            findings.error(
                    BROKEN,
                    MalformedText.place(text, e),
                    "the lock file cannot be read: " + (e instanceof Unlike ? e.getOriginalMessage() : "it is no JSON"),
                    "take it from version control again, or type: protypos repair");
            return null;
        }
    }

    /** Where the lock file of a contract is, relative to the project. */
    static String path(String folder) {
        return folder + "/" + FILE;
    }

    /** The two sides of a text in which a merge has left its marks; what both have alike is in both. */
    static List<String> sides(String text) {
        StringBuilder ours = new StringBuilder();
        StringBuilder theirs = new StringBuilder();
        int side = 0;
        for (String line : text.split("(?<=\n)")) {
            if (line.startsWith("<<<<<<<")) {
                side = 1;
            } else if (line.startsWith("|||||||") && side == 1) {
                side = 3;
            } else if (line.startsWith("=======") && side != 0) {
                side = 2;
            } else if (line.startsWith(">>>>>>>") && side == 2) {
                side = 0;
            } else {
                ours.append(side < 2 ? line : "");
                theirs.append(side == 0 || side == 2 ? line : "");
            }
        }
        return List.of(ours.toString(), theirs.toString());
    }

    /** It is JSON, and not what we write. */
    private static final class Unlike extends JsonParseException {
        private static final long serialVersionUID = 1L;

        Unlike(JsonParser in, String what) {
            super(in, what, in.currentTokenLocation());
        }
    }

    /** Takes a lock file apart; whatever is not as we write it is told with its place, and then nothing of it counts. */
    private record Reader(JsonParser in, SourceText text) {
        private JsonParseException wrong(String what) {
            return new Unlike(in, what);
        }

        private void expect(JsonToken token, String what) throws IOException {
            if (in.currentToken() != token) {
                throw wrong(what);
            }
        }

        private String string(String of) throws IOException {
            expect(JsonToken.VALUE_STRING, of + " is no text");
            return in.getText();
        }

        PinnedContract lock() throws IOException {
            in.nextToken();
            expect(JsonToken.START_OBJECT, "it holds no object");
            return contract();
        }

        private PinnedContract contract() throws IOException {
            List<String> origins = new ArrayList<>();
            String catalog = null;
            List<PinnedDocument> documents = new ArrayList<>();
            Map<String, Map<String, String>> names = new HashMap<>();
            Map<String, Map<String, Map<String, String>>> others = new HashMap<>();
            Map<String, String> namespaces = new HashMap<>();
            String language = Targets.STANDARD;
            while (in.nextToken() == JsonToken.FIELD_NAME) {
                String field = in.currentName();
                in.nextToken();
                switch (field) {
                    case "about" -> string(field);
                    case "version" -> version();
                    case "from" -> {
                        expect(JsonToken.START_ARRAY, "from is no list");
                        while (in.nextToken() != JsonToken.END_ARRAY) {
                            origins.add(string("an address"));
                        }
                    }
                    case "language" -> language = string(field);
                    case "catalog" -> catalog = string("catalog");
                    case "documents" -> {
                        expect(JsonToken.START_ARRAY, "documents is no list");
                        while (in.nextToken() != JsonToken.END_ARRAY) {
                            expect(JsonToken.START_OBJECT, "a document is no object");
                            documents.add(document());
                        }
                    }
                    case "namespaces" -> texts(namespaces, "namespaces");
                    case "names" -> names(names);
                    case "also" -> {
                        expect(JsonToken.START_OBJECT, "also is no object");
                        while (in.nextToken() == JsonToken.FIELD_NAME) {
                            String other = in.currentName();
                            in.nextToken();
                            names(others.computeIfAbsent(other, any -> new HashMap<>()));
                        }
                    }
                    default ->
                        throw wrong("\"" + Printable.of(field) + "\" is nothing that this version of protypos writes");
                }
            }
            others.put(language, names);
            PinnedNames given = PinnedNames.NONE;
            for (Map.Entry<String, Map<String, Map<String, String>>> one : others.entrySet()) {
                given = given.with(given(one.getKey(), one.getValue(), namespaces));
            }
            return new PinnedContract(List.copyOf(origins), catalog, List.copyOf(documents), given);
        }

        private static GivenNames given(
                String language, Map<String, Map<String, String>> names, Map<String, String> namespaces) {
            Map<String, Map<String, String>> whole = new HashMap<>();
            names.forEach((scope, some) ->
                    some.forEach((designator, name) -> whole.computeIfAbsent(scope, any -> new HashMap<>())
                            .put(Designator.withNamespaces(designator, namespaces), name)));
            return new GivenNames(language, whole);
        }

        private void names(Map<String, Map<String, String>> to) throws IOException {
            expect(JsonToken.START_OBJECT, "names is no object");
            while (in.nextToken() == JsonToken.FIELD_NAME) {
                String scope = in.currentName();
                in.nextToken();
                texts(to.computeIfAbsent(scope, any -> new HashMap<>()), "names");
            }
        }

        private void version() throws IOException {
            if (in.currentToken() != JsonToken.VALUE_NUMBER_INT || in.getIntValue() != VERSION) {
                throw wrong("it is of version " + Printable.of(in.getText()) + ", and this protypos writes version "
                        + VERSION + ": use the protypos that wrote it, or a newer one");
            }
        }

        private PinnedDocument document() throws IOException {
            Map<String, String> texts = new HashMap<>();
            Map<String, String> references = new TreeMap<>();
            boolean entry = false;
            while (in.nextToken() == JsonToken.FIELD_NAME) {
                String field = in.currentName();
                in.nextToken();
                if (field.equals("references")) {
                    texts(references, "references");
                } else if (field.equals("entry")) {
                    entry = in.currentToken() == JsonToken.VALUE_TRUE;
                } else {
                    texts.put(field, string(field));
                }
            }
            inside(texts.get("path"));
            for (String target : references.values()) {
                inside(target);
            }
            return new PinnedDocument(
                    texts.get("path"),
                    texts.getOrDefault("origin", ""),
                    texts.getOrDefault("sha256", ""),
                    texts.getOrDefault("taken", ""),
                    entry,
                    references);
        }

        /** Documents lie in the folder of their contract, and nowhere else. */
        private void inside(String path) throws IOException {
            String complaint = InsideFolder.complaint(path);
            if (complaint != null) {
                throw wrong("the path \"" + Printable.of(path) + "\" of a document " + complaint);
            }
        }

        private void texts(Map<String, String> to, String of) throws IOException {
            expect(JsonToken.START_OBJECT, of + " is no object");
            while (in.nextToken() == JsonToken.FIELD_NAME) {
                String key = in.currentName();
                in.nextToken();
                to.put(key, string("a value of " + of));
            }
        }
    }

    static byte[] bytes(PinnedContract contract) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        DefaultPrettyPrinter lines = new DefaultPrettyPrinter();
        lines.indentArraysWith(DefaultIndenter.SYSTEM_LINEFEED_INSTANCE.withLinefeed("\n"));
        lines.indentObjectsWith(DefaultIndenter.SYSTEM_LINEFEED_INSTANCE.withLinefeed("\n"));
        try (JsonGenerator out = LockFormat.JSON.createGenerator(bytes).setPrettyPrinter(lines)) {
            out.writeStartObject();
            out.writeStringField(
                    "about",
                    "Written by protypos. Keep it under version control: it pins the documents of the contract and the"
                            + " names of its components.");
            out.writeNumberField("version", VERSION);
            write(out, contract);
            out.writeEndObject();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        bytes.writeBytes("\n".getBytes(StandardCharsets.UTF_8));
        return bytes.toByteArray();
    }

    private static void write(JsonGenerator out, PinnedContract contract) throws IOException {
        out.writeArrayFieldStart("from");
        for (String origin : contract.origins()) {
            out.writeString(origin);
        }
        out.writeEndArray();
        if (contract.catalog() != null) {
            out.writeStringField("catalog", contract.catalog());
        }
        out.writeArrayFieldStart("documents");
        for (PinnedDocument document : contract.documents()) {
            out.writeStartObject();
            out.writeStringField("path", document.path());
            out.writeStringField("origin", document.origin());
            out.writeStringField("sha256", document.hash());
            out.writeStringField("taken", document.date());
            if (document.entry()) {
                out.writeBooleanField("entry", true);
            }
            texts(out, "references", document.references());
            out.writeEndObject();
        }
        out.writeEndArray();
        Map<String, GivenNames> names = contract.names().byLanguage();
        Shortened shortened = Shortened.of(names.values());
        texts(out, "namespaces", shortened.namespaces());
        // What is generated in one language has it above, as lock files had it when there was but one.
        String first = names.containsKey(Targets.STANDARD) || names.isEmpty()
                ? Targets.STANDARD
                : names.keySet().iterator().next();
        if (!first.equals(Targets.STANDARD)) {
            out.writeStringField("language", first);
        }
        names("names", contract.names().in(first), shortened, out);
        if (names.size() > 1) {
            out.writeObjectFieldStart("also");
            for (Map.Entry<String, GivenNames> other : names.entrySet()) {
                if (!other.getKey().equals(first)) {
                    names(other.getKey(), other.getValue(), shortened, out);
                }
            }
            out.writeEndObject();
        }
    }

    private static void names(String field, GivenNames names, Shortened shortened, JsonGenerator out)
            throws IOException {
        if (!names.isEmpty()) {
            out.writeObjectFieldStart(field);
            for (Map.Entry<String, Map<String, String>> scope : new TreeMap<>(shortened.names(names)).entrySet()) {
                texts(out, scope.getKey(), scope.getValue());
            }
            out.writeEndObject();
        }
    }

    private static void texts(JsonGenerator out, String field, Map<String, String> texts) throws IOException {
        if (!texts.isEmpty()) {
            out.writeObjectFieldStart(field);
            for (Map.Entry<String, String> text : new TreeMap<>(texts).entrySet()) {
                out.writeStringField(text.getKey(), text.getValue());
            }
            out.writeEndObject();
        }
    }
}
