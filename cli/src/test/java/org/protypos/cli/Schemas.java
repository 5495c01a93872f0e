package org.protypos.cli;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.networknt.schema.InputFormat;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import java.io.IOException;
import java.util.List;

/** Judges documents by the JSON Schemas that the program hands out. */
final class Schemas {
    private Schemas() {}

    /** What is wrong with a JSON document. */
    static List<String> complaints(String name, String json) throws IOException {
        // A member that is there twice is lost to most who read it (RFC 8259, section 4).
        new ObjectMapper().enable(JsonParser.Feature.STRICT_DUPLICATE_DETECTION).readTree(json);
        return complaints(name, json, InputFormat.JSON);
    }

    /** What is wrong with a YAML file. */
    static List<String> yaml(String name, String yaml) throws IOException {
        return complaints(name, yaml, InputFormat.YAML);
    }

    private static List<String> complaints(String name, String text, InputFormat format) throws IOException {
        JsonSchema schema = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
                .getSchema(new ObjectMapper().readTree(SchemaCommand.text(name)));
        return schema.validate(text, format).stream().map(Object::toString).toList();
    }
}
