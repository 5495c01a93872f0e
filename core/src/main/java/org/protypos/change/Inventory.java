package org.protypos.change;

import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.protypos.contract.Contract;

/** All components of a contract by designator, wherever in its documents they stand. */
final class Inventory {
    private final Map<String, Item> items = new LinkedHashMap<>();
    private final Map<Object, String> designators = new IdentityHashMap<>();

    private Inventory() {}

    static Inventory of(Contract contract) {
        Inventory inventory = new Inventory();
        new SchemaInventory(contract.schema(), inventory).take();
        new WsdlInventory(contract.wsdl(), inventory).take();
        return inventory;
    }

    /** Adds a component; the first of one designator counts, and says for all of them how often there is such a one. */
    void add(Item item) {
        Item known = items.putIfAbsent(item.designator(), item);
        if (known != null && known != item) {
            int times = Integer.parseInt(known.facts().getOrDefault("declared", "1")) + 1;
            known.say("declared", times);
            item.facts().forEach((fact, value) -> {
                if (!value.equals(known.facts().get(fact))) {
                    known.say(fact + " (" + times + ")", value);
                }
            });
        }
    }

    /**
     * The same components in other words.
     *
     * @param words gives for a designator the one to use
     * @param facts gives for what is said of a component what to say: the component's new designator, the fact, the text
     */
    Inventory renamed(UnaryOperator<String> words, FactWords facts) {
        Inventory renamed = new Inventory();
        for (Item item : items.values()) {
            Item other = item.called(words.apply(item.designator()));
            item.facts().forEach((fact, value) -> other.say(fact, facts.of(other, fact, value)));
            renamed.add(other);
        }
        designators.forEach((component, designator) -> renamed.know(component, words.apply(designator)));
        return renamed;
    }

    /** Says what is said of a component in other words. */
    interface FactWords {
        String of(Item item, String fact, String text);
    }

    /** Remembers under which designator the members of a type, or what is said of an element, are found. */
    void know(Object component, String designator) {
        designators.putIfAbsent(component, designator);
    }

    /** The designator of a type or an element declaration, or null when it has none. */
    String designator(Object component) {
        return designators.get(component);
    }

    Map<String, Item> items() {
        return items;
    }
}
