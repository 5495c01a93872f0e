package org.protypos.output;

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
import java.util.Map;
import java.util.TreeMap;

/** The record of the files written, each with the hash of its content, so that the next run knows which are ours. */
final class Ledger {
    static final String FILE = "protypos.lock.json";

    private static final JsonFactory JSON = new JsonFactory();

    private final Map<String, String> files;

    private Ledger(Map<String, String> files) {
        this.files = files;
    }

    static Ledger of(Map<String, String> files) {
        return new Ledger(new TreeMap<>(files));
    }

    /** Reads the ledger of a folder; a folder without one has written nothing. */
    static Ledger read(Path folder) throws IOException {
        Path file = folder.resolve(FILE);
        Map<String, String> files = new TreeMap<>();
        if (Files.isRegularFile(file)) {
            try (JsonParser parser = JSON.createParser(file.toFile())) {
                parse(parser, files);
            }
        }
        return new Ledger(files);
    }

    private static void parse(JsonParser parser, Map<String, String> files) throws IOException {
        if (parser.nextToken() != JsonToken.START_OBJECT) {
            return;
        }
        while (parser.nextToken() == JsonToken.FIELD_NAME) {
            String field = parser.currentName();
            if (parser.nextToken() == JsonToken.START_OBJECT && field.equals("files")) {
                while (parser.nextToken() == JsonToken.FIELD_NAME) {
                    String path = parser.currentName();
                    parser.nextToken();
                    files.put(path, parser.getText());
                }
            } else {
                parser.skipChildren();
            }
        }
    }

    /** The hash of each file by its path. */
    Map<String, String> files() {
        return files;
    }

    byte[] bytes() {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (JsonGenerator json = JSON.createGenerator(bytes).useDefaultPrettyPrinter()) {
            json.writeStartObject();
            json.writeStringField(
                    "about",
                    "Written by protypos generate. Keep it with the files: it tells which of them are generated.");
            json.writeObjectFieldStart("files");
            for (Map.Entry<String, String> file : files.entrySet()) {
                json.writeStringField(file.getKey(), file.getValue());
            }
            json.writeEndObject();
            json.writeEndObject();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        bytes.writeBytes("\n".getBytes(StandardCharsets.UTF_8));
        return bytes.toByteArray();
    }
}
