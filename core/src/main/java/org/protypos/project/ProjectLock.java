package org.protypos.project;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParseException;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
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
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.diagnostic.Printable;
import org.protypos.diagnostic.SourceText;
import org.protypos.naming.GivenNames;
import org.protypos.output.InsideFolder;

/** Reads and writes the lock file of a project: which documents are pinned, and which names components have. */
final class ProjectLock {
    static final String FILE = "protypos.lock.json";

    /** The code of findings about a lock file that is not believed. */
    static final String BROKEN = "lock-file";

    private static final JsonFactory JSON = new JsonFactory();
    private static final Pattern MERGE = Pattern.compile("(?m)^(<{7}|={7}|>{7})( .*)?$");
    private static final long LONGEST = 256L << 20;

    private ProjectLock() {}

    /**
     * What the lock file of a project says of each contract; nothing when there is none, or when it is none of ours, of which
     * nothing is believed then.
     *
     * @param findings is told what is wrong with it
     */
    static Map<String, PinnedContract> read(Path root, Findings findings) throws IOException {
        Path file = root.resolve(FILE);
        if (!Files.isRegularFile(file)) {
            return new TreeMap<>();
        }
        if (Files.size(file) > LONGEST) {
            throw new IOException(file + " is longer than any lock file of ours");
        }
        SourceText text = new SourceText(FILE, GivenFile.decoded(Files.readAllBytes(file), FILE));
        Matcher merge = MERGE.matcher(text.text());
        if (merge.find()) {
            findings.error(
                    BROKEN,
                    text.at(merge.start()),
                    "the lock file has the marks of a merge that nobody has finished",
                    "take one of the two sides whole from version control, then type protypos refresh");
            return new TreeMap<>();
        }
        try (JsonParser in = JSON.createParser(text.text())) {
            return new Reader(in, text).contracts();
        } catch (JsonProcessingException e) {
            JsonLocation at = e.getLocation();
            findings.error(
                    BROKEN,
                    at == null ? text.at(0) : text.at((int) Math.max(0, at.getCharOffset())),
                    "the lock file cannot be read: " + (e instanceof Unlike ? e.getOriginalMessage() : "it is no JSON"),
                    "take it from version control again");
            return new TreeMap<>();
        }
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

        Map<String, PinnedContract> contracts() throws IOException {
            Map<String, PinnedContract> contracts = new TreeMap<>();
            in.nextToken();
            expect(JsonToken.START_OBJECT, "it holds no object");
            while (in.nextToken() == JsonToken.FIELD_NAME) {
                String field = in.currentName();
                in.nextToken();
                if (field.equals("about")) {
                    continue;
                }
                if (!field.equals("contracts")) {
                    throw wrong("\"" + Printable.of(field) + "\" is nothing that this version of protypos writes");
                }
                expect(JsonToken.START_OBJECT, "contracts is no object");
                while (in.nextToken() == JsonToken.FIELD_NAME) {
                    String name = in.currentName();
                    if (!name.matches(ProjectReader.NAME)) {
                        throw wrong("\"" + Printable.of(name) + "\" is no name for a contract");
                    }
                    in.nextToken();
                    expect(JsonToken.START_OBJECT, "a contract is no object");
                    contracts.put(name, contract());
                }
            }
            return contracts;
        }

        private PinnedContract contract() throws IOException {
            List<String> origins = new ArrayList<>();
            String catalog = null;
            List<PinnedDocument> documents = new ArrayList<>();
            Map<String, Map<String, String>> names = new HashMap<>();
            Map<String, String> namespaces = new HashMap<>();
            while (in.nextToken() == JsonToken.FIELD_NAME) {
                String field = in.currentName();
                in.nextToken();
                switch (field) {
                    case "from" -> {
                        expect(JsonToken.START_ARRAY, "from is no list");
                        while (in.nextToken() != JsonToken.END_ARRAY) {
                            origins.add(string("an address"));
                        }
                    }
                    case "catalog" -> catalog = string("catalog");
                    case "documents" -> {
                        expect(JsonToken.START_ARRAY, "documents is no list");
                        while (in.nextToken() != JsonToken.END_ARRAY) {
                            expect(JsonToken.START_OBJECT, "a document is no object");
                            documents.add(document());
                        }
                    }
                    case "namespaces" -> texts(namespaces, "namespaces");
                    case "names" -> {
                        expect(JsonToken.START_OBJECT, "names is no object");
                        while (in.nextToken() == JsonToken.FIELD_NAME) {
                            String scope = in.currentName();
                            in.nextToken();
                            texts(names.computeIfAbsent(scope, any -> new HashMap<>()), "names");
                        }
                    }
                    default -> in.skipChildren();
                }
            }
            Map<String, Map<String, String>> whole = new HashMap<>();
            names.forEach((scope, some) ->
                    some.forEach((designator, name) -> whole.computeIfAbsent(scope, any -> new HashMap<>())
                            .put(Shortened.expand(designator, namespaces), name)));
            return new PinnedContract(List.copyOf(origins), catalog, List.copyOf(documents), new GivenNames(whole));
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

    static byte[] bytes(Map<String, PinnedContract> contracts) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (JsonGenerator out = JSON.createGenerator(bytes).useDefaultPrettyPrinter()) {
            out.writeStartObject();
            out.writeStringField(
                    "about",
                    "Written by protypos. Keep it under version control: it pins the documents of the contracts and the"
                            + " names of their components.");
            out.writeObjectFieldStart("contracts");
            for (Map.Entry<String, PinnedContract> contract : new TreeMap<>(contracts).entrySet()) {
                out.writeObjectFieldStart(contract.getKey());
                write(out, contract.getValue());
                out.writeEndObject();
            }
            out.writeEndObject();
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
        Shortened shortened = Shortened.of(contract.names());
        texts(out, "namespaces", shortened.namespaces());
        if (!contract.names().isEmpty()) {
            out.writeObjectFieldStart("names");
            for (Map.Entry<String, Map<String, String>> scope : new TreeMap<>(shortened.names()).entrySet()) {
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
