package org.protypos.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;

/** A content model as one text: {@code ( a , ( b | c )+ )}. Groups that change nothing are not told apart. */
final class ModelText {
    private final String[] words;
    private int at;

    /** A name or a group. */
    private record Node(String word, String compositor, List<Node> parts, String occurs) {
        @Override
        public String toString() {
            if (word != null) {
                return word;
            }
            List<String> texts = parts.stream().map(Node::toString).toList();
            return "( " + String.join(" " + compositor + " ", texts) + " )" + occurs;
        }
    }

    private ModelText(String text) {
        this.words = text.split(" ");
    }

    /** The text of a group. */
    static String of(ModelGroup.Compositor compositor, List<String> parts, int least, int most) {
        String between =
                switch (compositor) {
                    case SEQUENCE -> " , ";
                    case CHOICE -> " | ";
                    case ALL -> " & ";
                };
        return "( " + String.join(between, parts) + " )" + occurs(least, most);
    }

    private static String occurs(int least, int most) {
        if (most == Particle.UNBOUNDED && least <= 1) {
            return least == 0 ? "*" : "+";
        }
        String upper = most == Particle.UNBOUNDED ? "" : String.valueOf(most);
        return least == 1 && most == 1 ? "" : least == 0 && most == 1 ? "?" : "{" + least + "," + upper + "}";
    }

    /** A model with some of its names alone, groups of one dissolved. */
    static String only(String text, Set<String> names) {
        Node node = reduced(new ModelText(text).node(), names);
        return node == null ? "" : node.toString();
    }

    private Node node() {
        String word = words[at++];
        if (!word.equals("(")) {
            return new Node(word, null, List.of(), "");
        }
        List<Node> parts = new ArrayList<>();
        String compositor = ",";
        while (!words[at].startsWith(")")) {
            if (words[at].isEmpty()) {
                at++;
            } else if (words[at].matches("[,|&]")) {
                compositor = words[at++];
            } else {
                parts.add(node());
            }
        }
        return new Node(null, compositor, parts, words[at++].substring(1));
    }

    private static Node reduced(Node node, Set<String> names) {
        if (node.word() != null) {
            return node.word().equals("*") || names.contains(node.word()) ? node : null;
        }
        List<Node> parts = new ArrayList<>();
        for (Node part : node.parts()) {
            Node kept = reduced(part, names);
            if (kept != null
                    && kept.word() == null
                    && kept.occurs().isEmpty()
                    && kept.compositor().equals(node.compositor())) {
                parts.addAll(kept.parts());
            } else if (kept != null) {
                parts.add(kept);
            }
        }
        if (parts.isEmpty()) {
            return null;
        }
        boolean one =
                parts.size() == 1 && (node.occurs().isEmpty() || parts.get(0).word() != null);
        return one ? parts.get(0) : new Node(null, node.compositor(), parts, node.occurs());
    }
}
