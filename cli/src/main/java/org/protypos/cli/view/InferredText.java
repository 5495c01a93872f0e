package org.protypos.cli.view;

import org.protypos.infer.Inferred;
import org.protypos.infer.Remark;

/** Writes the beginning of a file of decisions: nothing is decided in it, and what was inferred on little stands ready. */
public final class InferredText {
    private static final int MOST = 200;

    private InferredText() {}

    /** The first lines about what was inferred. */
    public static String beginning(Inferred inferred) {
        StringBuilder text = new StringBuilder();
        text.append("# What stands here is decided and not inferred; it is read each time.\n");
        text.append("# One decision is about one place (berth, berth/number, berth/@id) and has any of these keys:\n");
        text.append("#   type: token              the built-in type of its values\n");
        text.append("#   values: [high, low]      the values that there are; or any\n");
        text.append("#   occurs: 0..*             1, 0..1, 1..* or 0..*\n");
        text.append("#   order: any               the elements in it come in any order\n");
        text.append("#   name: Berth              how its type is called\n");
        text.append("#   apart: true              its type is its own, however alike others are\n");
        text.append("# What was decided on little comes first; take the # away and change what is not so.\n");
        text.append("decisions:\n");
        inferred.remarks().stream()
                .filter(remark -> remark.isThin() && otherwise(remark) != null)
                .limit(MOST)
                .forEach(remark -> {
                    text.append("#  - at: ").append(quoted(remark.at())).append('\n');
                    text.append("#    ")
                            .append(otherwise(remark))
                            .append("    # ")
                            .append(remark.evidence())
                            .append('\n');
                });
        return text.toString();
    }

    /** What a decision about it would begin with, or null when there is none to make. */
    private static String otherwise(Remark remark) {
        return switch (remark.kind()) {
            case VALUE -> "type: " + remark.decided();
            case VALUES -> "values: any";
            case ORDER -> "order: any";
            case SHARED, EXTENSION, REQUIRED, OPEN -> null;
        };
    }

    /** Names of elements are letters, digits and a few signs, but in any script. */
    private static String quoted(String at) {
        return at.matches("[A-Za-z0-9_./-]+")
                ? at
                : "\"" + at.replace("\\", "\\\\").replace("\"", "\\\"") + "\"";
    }
}
