package org.protypos.schema.pattern;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/** The sets of characters that some patterns speak of, and the kinds of characters that they tell apart. */
final class CharacterSets {
    /** Beyond the first plane characters come in blocks: one of so many is looked at. */
    private static final int STRIDE = 64;

    private final Map<String, Integer> numbers = new HashMap<>();
    private final List<Pattern> sets = new ArrayList<>();

    /**
     * Characters that all patterns treat alike.
     *
     * @param example one of them, one that people like to see if there is such a one
     * @param in the numbers of the sets that they are in
     */
    record Kind(String example, BitSet in) {}

    /** The number of a set; equal sets have the same. */
    int number(PatternNode.Characters characters) {
        return numbers.computeIfAbsent(characters.java(), java -> {
            sets.add(Pattern.compile(java));
            return sets.size() - 1;
        });
    }

    /** The kinds of characters that may stand in XML (XML 1.0, section 2.2), those that people like to see first. */
    List<Kind> kinds() {
        Map<BitSet, String> examples = new LinkedHashMap<>();
        SchemaPattern.LIKED.chars().forEach(c -> look(c, examples));
        for (int c = ' '; c <= Character.MAX_VALUE; c++) {
            if (!Character.isSurrogate((char) c) && c < 0xFFFE) {
                look(c, examples);
            }
        }
        List.of((int) '\t', (int) '\n', (int) '\r').forEach(c -> look(c, examples));
        for (int c = Character.MIN_SUPPLEMENTARY_CODE_POINT; c <= Character.MAX_CODE_POINT; c += STRIDE) {
            look(c, examples);
        }
        List<Kind> kinds = new ArrayList<>();
        examples.forEach((in, example) -> kinds.add(new Kind(example, in)));
        return kinds;
    }

    private void look(int c, Map<BitSet, String> examples) {
        String text = Character.toString(c);
        BitSet in = new BitSet();
        for (int i = 0; i < sets.size(); i++) {
            in.set(i, sets.get(i).matcher(text).matches());
        }
        examples.putIfAbsent(in, text);
    }
}
