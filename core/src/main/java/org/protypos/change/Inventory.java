package org.protypos.change;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.protypos.contract.Contract;

/** All components of a contract by designator, wherever in its documents they stand. */
final class Inventory {
    private final Map<String, Item> items = new LinkedHashMap<>();

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
            known.references().addAll(item.references());
        }
    }

    /** The same components with other words for namespaces. */
    Inventory renamed(UnaryOperator<String> words) {
        Inventory renamed = new Inventory();
        for (Item item : items.values()) {
            Item other = new Item(item.kind(), words.apply(item.designator()), item.place());
            item.facts().forEach((fact, value) -> other.say(fact, words.apply(value)));
            item.references().forEach(reference -> other.refer(words.apply(reference)));
            renamed.add(other);
        }
        return renamed;
    }

    Map<String, Item> items() {
        return items;
    }
}
