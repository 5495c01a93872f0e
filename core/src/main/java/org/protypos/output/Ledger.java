package org.protypos.output;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import org.protypos.diagnostic.Printable;

/**
 * The record of the files written, each with the checksum of its content, so that the next run knows which are ours. Several
 * contracts may write into one folder: each has the files of its own, and what is the same in two belongs to both.
 */
final class Ledger {
    static final String FILE = "protypos.lock.json";

    /** Who owns the files of a contract that is none of a project. */
    static final String NOBODY = "";

    private final Map<String, Map<String, String>> byOwner;

    private Ledger(Map<String, Map<String, String>> byOwner) {
        this.byOwner = byOwner;
    }

    /** The same with other files of one owner; one without files is no owner. */
    Ledger with(String owner, Map<String, String> files) {
        Map<String, Map<String, String>> all = new TreeMap<>(byOwner);
        all.remove(owner);
        if (!files.isEmpty()) {
            all.put(owner, new TreeMap<>(files));
        }
        return new Ledger(all);
    }

    /** Whether it knows of no file at all. */
    boolean isEmpty() {
        return byOwner.isEmpty();
    }

    /** Reads the ledger of a folder; a folder without one has written nothing. */
    static Ledger read(Path folder) throws IOException {
        Path file = folder.resolve(FILE);
        Map<String, Map<String, String>> byOwner = new TreeMap<>();
        if (Files.isRegularFile(file)) {
            String text = Files.readString(file);
            if (LockFormat.firstMergeMark(text) >= 0) {
                // Neither side is right: what is generated is known by what is in it, and the next run writes the
                // ledger anew.
                return new Ledger(new TreeMap<>());
            }
            try (JsonParser parser = LockFormat.JSON.createParser(text)) {
                parse(parser, byOwner);
            } catch (JsonProcessingException e) {
                throw refused("it is no JSON");
            }
        }
        return new Ledger(byOwner);
    }

    private static void parse(JsonParser parser, Map<String, Map<String, String>> byOwner) throws IOException {
        if (parser.nextToken() != JsonToken.START_OBJECT) {
            return;
        }
        while (parser.nextToken() == JsonToken.FIELD_NAME) {
            String field = parser.currentName();
            if (parser.nextToken() == JsonToken.START_OBJECT && field.equals("files")) {
                files(parser, byOwner.computeIfAbsent(NOBODY, any -> new TreeMap<>()));
            } else if (parser.currentToken() == JsonToken.START_OBJECT && field.equals("contracts")) {
                while (parser.nextToken() == JsonToken.FIELD_NAME) {
                    Map<String, String> files = byOwner.computeIfAbsent(parser.currentName(), any -> new TreeMap<>());
                    if (parser.nextToken() != JsonToken.START_OBJECT) {
                        throw refused("the files of a contract are no object");
                    }
                    files(parser, files);
                }
            } else {
                parser.skipChildren();
            }
        }
    }

    private static void files(JsonParser parser, Map<String, String> files) throws IOException {
        while (parser.nextToken() == JsonToken.FIELD_NAME) {
            String path = parser.currentName();
            String complaint = InsideFolder.complaint(path);
            if (complaint != null) {
                throw refused("\"" + Printable.of(path) + "\" " + complaint);
            }
            if (parser.nextToken() != JsonToken.VALUE_STRING) {
                throw refused("the checksum of " + path + " is no text");
            }
            files.put(path, parser.getText());
        }
    }

    private static IOException refused(String why) {
        return new IOException(FILE + " among the generated files is none of ours, and is not believed: " + why
                + "; take it from version control again, or delete it with the generated files");
    }

    /** The checksum of each file of an owner by its path. */
    Map<String, String> files(String owner) {
        return byOwner.getOrDefault(owner, Map.of());
    }

    /** The checksum of each file of all other owners by its path. */
    Map<String, String> others(String owner) {
        Map<String, String> others = new TreeMap<>();
        byOwner.forEach((other, files) -> {
            if (!other.equals(owner)) {
                others.putAll(files);
            }
        });
        return others;
    }

    byte[] bytes() {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (JsonGenerator json = LockFormat.JSON.createGenerator(bytes).useDefaultPrettyPrinter()) {
            json.writeStartObject();
            json.writeStringField(
                    "about",
                    "Written by protypos generate. Keep it with the files: it tells which of them are generated.");
            if (byOwner.containsKey(NOBODY)) {
                json.writeObjectFieldStart("files");
                files(json, byOwner.get(NOBODY));
            }
            if (byOwner.keySet().stream().anyMatch(owner -> !owner.equals(NOBODY))) {
                json.writeObjectFieldStart("contracts");
                for (Map.Entry<String, Map<String, String>> owner : byOwner.entrySet()) {
                    if (!owner.getKey().equals(NOBODY)) {
                        json.writeObjectFieldStart(owner.getKey());
                        files(json, owner.getValue());
                    }
                }
                json.writeEndObject();
            }
            json.writeEndObject();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        bytes.writeBytes("\n".getBytes(StandardCharsets.UTF_8));
        return bytes.toByteArray();
    }

    private static void files(JsonGenerator json, Map<String, String> files) throws IOException {
        for (Map.Entry<String, String> file : files.entrySet()) {
            json.writeStringField(file.getKey(), file.getValue());
        }
        json.writeEndObject();
    }
}
