package org.protypos.change;

import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** One component under its old name, and what is said of others in its old name. */
final class Renaming {
    private static final Set<String> TYPES = Set.of("type", "base", "list of", "union of", "content");
    private static final Set<String> ELEMENTS = Set.of("element", "stands for", "content", "order");

    private final Item item;
    private final String now;
    private final String was;
    private final Pattern name;
    private final String oldName;

    /**
     * Takes a renamed component.
     *
     * @param item the component as the new contract has it
     */
    Renaming(Item item, String was) {
        this.item = item;
        this.now = item.designator();
        this.was = was;
        this.name = Pattern.compile(Pattern.quote(qualified(now)) + "(?![\\p{L}\\p{N}_.-])");
        this.oldName = qualified(was);
    }

    /** The name in a designator with its namespace, if it has one. */
    private static String qualified(String designator) {
        int open = designator.lastIndexOf('{');
        return open < 0 ? designator : designator.substring(open);
    }

    String designator(String designator) {
        if (designator.equals(now)) {
            return was;
        }
        boolean inside = designator.startsWith(now)
                && designator.length() > now.length()
                && "/= [".indexOf(designator.charAt(now.length())) >= 0;
        return inside ? was + designator.substring(now.length()) : designator;
    }

    /** What is said of a component, in the old name where the renamed one is meant. */
    String said(Item of, String said, String text) {
        String fact = WsdlInventory.base(said);
        boolean meant =
                switch (item.kind()) {
                    case TYPE -> TYPES.contains(fact) || fact.startsWith("type of part");
                    case ELEMENT -> ELEMENTS.contains(fact);
                    case MEMBER -> fact.equals("order") && of.designator().equals(Renames.parent(item));
                    case PORT_TYPE -> fact.equals("port type");
                    default -> false;
                };
        return meant ? name.matcher(text).replaceAll(Matcher.quoteReplacement(oldName)) : text;
    }
}
