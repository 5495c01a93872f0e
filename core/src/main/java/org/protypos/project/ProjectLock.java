package org.protypos.project;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
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
import org.protypos.naming.GivenNames;

/** Reads and writes the lock file of a project: which documents are pinned, and which names components have. */
final class ProjectLock {
    static final String FILE = "protypos.lock.json";

    private static final JsonFactory JSON = new JsonFactory();

    private ProjectLock() {}

    /** What the lock file of a project says of each contract; nothing when there is none. */
    static Map<String, PinnedContract> read(Path root) throws IOException {
        Map<String, PinnedContract> contracts = new TreeMap<>();
        Path file = root.resolve(FILE);
        if (Files.isRegularFile(file)) {
            try (JsonParser in = JSON.createParser(file.toFile())) {
                in.nextToken();
                while (in.nextToken() == JsonToken.FIELD_NAME) {
                    String field = in.currentName();
                    in.nextToken();
                    if (field.equals("contracts") && in.currentToken() == JsonToken.START_OBJECT) {
                        while (in.nextToken() == JsonToken.FIELD_NAME) {
                            String name = in.currentName();
                            in.nextToken();
                            contracts.put(name, contract(in));
                        }
                    } else {
                        in.skipChildren();
                    }
                }
            }
        }
        return contracts;
    }

    private static PinnedContract contract(JsonParser in) throws IOException {
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
                    while (in.nextToken() != JsonToken.END_ARRAY) {
                        origins.add(in.getText());
                    }
                }
                case "catalog" -> catalog = in.getText();
                case "documents" -> {
                    while (in.nextToken() != JsonToken.END_ARRAY) {
                        documents.add(document(in));
                    }
                }
                case "namespaces" -> texts(in, namespaces);
                case "names" -> {
                    while (in.nextToken() == JsonToken.FIELD_NAME) {
                        String scope = in.currentName();
                        in.nextToken();
                        texts(in, names.computeIfAbsent(scope, any -> new HashMap<>()));
                    }
                }
                default -> in.skipChildren();
            }
        }
        Map<String, Map<String, String>> whole = new HashMap<>();
        names.forEach(
                (scope, some) -> some.forEach((designator, name) -> whole.computeIfAbsent(scope, any -> new HashMap<>())
                        .put(Shortened.expand(designator, namespaces), name)));
        return new PinnedContract(List.copyOf(origins), catalog, List.copyOf(documents), new GivenNames(whole));
    }

    private static PinnedDocument document(JsonParser in) throws IOException {
        Map<String, String> texts = new HashMap<>();
        Map<String, String> references = new TreeMap<>();
        boolean entry = false;
        while (in.nextToken() == JsonToken.FIELD_NAME) {
            String field = in.currentName();
            in.nextToken();
            if (field.equals("references")) {
                texts(in, references);
            } else if (field.equals("entry")) {
                entry = in.getBooleanValue();
            } else {
                texts.put(field, in.getText());
            }
        }
        return new PinnedDocument(
                texts.getOrDefault("path", ""),
                texts.getOrDefault("origin", ""),
                texts.getOrDefault("sha256", ""),
                texts.getOrDefault("taken", ""),
                entry,
                references);
    }

    private static void texts(JsonParser in, Map<String, String> to) throws IOException {
        while (in.nextToken() == JsonToken.FIELD_NAME) {
            String key = in.currentName();
            in.nextToken();
            to.put(key, in.getText());
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
