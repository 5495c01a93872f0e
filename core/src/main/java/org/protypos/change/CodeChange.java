package org.protypos.change;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.naming.Designator;
import org.protypos.target.Surface;

/** Decides for whom differences break source: by what source sees of what was generated from both contracts. */
final class CodeChange {
    private static final List<String> TYPE_FACTS = List.of("type", "base", "list of", "union of");
    private static final Pattern QUALIFIED = Pattern.compile("\\{[^}]*\\}[^\\s,()]+");

    private final Inventory before;
    private final Inventory after;
    private final Surface oldCode;
    private final Surface newCode;
    private final UnaryOperator<String> old;
    private final Blame blame;
    private final Map<String, String> packages;

    /**
     * Takes what source sees of two contracts.
     *
     * @param before the components of the old contract
     * @param after the components of the new contract, in the words of the old one
     * @param old gives for a designator of the new contract that of the old one
     */
    CodeChange(
            Inventory before,
            Inventory after,
            Surface oldCode,
            Surface newCode,
            Namespaces namespaces,
            UnaryOperator<String> old,
            Blame blame) {
        this.before = before;
        this.after = after;
        this.oldCode = oldCode;
        this.newCode = newCode;
        this.old = old;
        this.blame = blame;
        this.packages = namespaces.renamed().isEmpty() ? Map.of() : renamedPackages();
    }

    /** For packages that come from new names of namespaces those that came from the old ones. */
    private Map<String, String> renamedPackages() {
        Map<String, String> found = new TreeMap<>(Comparator.reverseOrder());
        Map<String, String> were = oldCode.classes();
        newCode.classes().forEach((designator, is) -> {
            String was = were.get(old.apply(designator));
            String isIn = packageOf(is);
            String wasIn = was == null ? null : packageOf(was);
            if (wasIn != null && isIn != null && !isIn.equals(wasIn)) {
                found.put(isIn, wasIn);
            }
        });
        return found;
    }

    private static String packageOf(String name) {
        int dot = name.lastIndexOf('.');
        return dot < 0 ? null : name.substring(0, dot);
    }

    /** For packages of the new code those of the old one that they were, where a namespace has another name. */
    Map<String, String> packages() {
        return packages;
    }

    /** The name that a component of the old contract has in code, or null. */
    String oldName(String designator) {
        return oldCode.names().get(designator);
    }

    /** The name that a component of the new contract has in code, or null. */
    String newName(String designator) {
        return newCode.names().get(designator);
    }

    void judge() {
        Map<String, Surface.Symbol> now = new HashMap<>();
        Map<String, String> slots = new HashMap<>();
        newCode.symbols().forEach((key, symbol) -> {
            now.put(inOldPackages(key), symbol);
            slots.put(inOldPackages(symbol.slot()), symbol.shown());
        });
        oldCode.symbols().forEach((key, symbol) -> {
            if (!now.containsKey(key)) {
                tell(symbol, symbol.designator(), symbol.gone(), symbol.shown(), slots.get(symbol.slot()));
            }
        });
        now.forEach((key, symbol) -> {
            if (!symbol.come().isEmpty() && !oldCode.symbols().containsKey(key)) {
                tell(symbol, old.apply(symbol.designator()), symbol.come(), null, symbol.shown());
            }
        });
    }

    private String inOldPackages(String text) {
        String changed = text;
        for (Map.Entry<String, String> one : packages.entrySet()) {
            changed = changed.replace(one.getKey() + ".", one.getValue() + ".");
        }
        return changed;
    }

    private void tell(
            Surface.Symbol symbol, String designator, Set<Surface.Audience> audiences, String was, String is) {
        Set<Reader> readers = EnumSet.noneOf(Reader.class);
        audiences.forEach(
                audience -> readers.add(audience == Surface.Audience.CALLER ? Reader.CLIENT_CODE : Reader.SERVER_CODE));
        if (readers.isEmpty()) {
            return;
        }
        List<Told> reasons = reasons(designator);
        if (reasons.isEmpty()) {
            Item item = before.items().get(designator);
            Item other = after.items().get(designator);
            Item any = item == null ? other : item;
            reasons = List.of(blame.add(new Told(
                    Difference.Change.CHANGED,
                    any == null ? "code" : any.kind().text(),
                    designator,
                    "code",
                    was,
                    is,
                    item == null ? null : item.place(),
                    other == null ? null : other.place())));
        }
        reasons.forEach(reason -> reason.breaksCode(readers));
    }

    /** The differences that may be the reason why what a component became is another: its own, else those of what it is made of. */
    private List<Told> reasons(String designator) {
        Told own = blame.find(List.of(new Blame.Suspect(designator, List.of())));
        if (own != null) {
            return List.of(own);
        }
        // What is inside of something that has another name now is called otherwise with it.
        for (String around = around(designator); around != null; around = around(around)) {
            Told told = blame.find(List.of(new Blame.Suspect(around, List.of("name"))));
            if (told != null && told.change() == Difference.Change.RENAMED) {
                return List.of(told);
            }
        }
        Set<String> made = new LinkedHashSet<>();
        collect(designator, made, 0);
        for (String component : made) {
            Told told = blame.find(List.of(new Blame.Suspect(component, List.of())));
            if (told != null && !component.equals(designator)) {
                return List.of(told);
            }
        }
        if (designator.startsWith("portType ")) {
            List<Told> all = members(designator);
            if (!all.isEmpty()) {
                return all;
            }
        }
        for (String around = above(designator); around != null; around = above(around)) {
            Told told = blame.find(List.of(new Blame.Suspect(around, List.of("order"))));
            if (told != null) {
                return List.of(told);
            }
        }
        // What stands for a group without a name is called and made after what is in it.
        return blame.all().stream()
                .filter(told -> told.designator().startsWith(designator + "/") && !told.isProse())
                .toList();
    }

    /** What a component stands in, of a schema or of a WSDL document; null for a global one. */
    private static String around(String designator) {
        String operation = Renames.operation(designator);
        if (!operation.equals(designator)) {
            return operation;
        }
        String around = Designator.of(designator).around();
        return around.isEmpty() ? null : around;
    }

    /** The same of a component of a schema alone. */
    private static String above(String designator) {
        return designator.matches("(portType|service|message) .*") ? null : around(designator);
    }

    /** A component, its type, what that is derived from, and the element that it refers to. */
    private void collect(String designator, Set<String> to, int depth) {
        if (depth > 8 || !to.add(designator)) {
            return;
        }
        for (Inventory inventory : List.of(before, after)) {
            Item item = inventory.items().get(designator);
            if (item == null) {
                continue;
            }
            TYPE_FACTS.forEach(fact -> names(item, fact).forEach(name -> collect("~" + name, to, depth + 1)));
            names(item, "element").forEach(name -> collect(name, to, depth + 1));
            names(item, "attribute").forEach(name -> collect("@" + name, to, depth + 1));
            collect(designator + "/~0", to, depth + 1);
        }
    }

    private static List<String> names(Item item, String fact) {
        List<String> names = new ArrayList<>();
        Matcher found = QUALIFIED.matcher(item.facts().getOrDefault(fact, ""));
        while (found.find()) {
            names.add(found.group());
        }
        return names;
    }

    /** A method changes with the members of what it takes and gives. */
    private List<Told> members(String operation) {
        String of = Renames.operation(operation);
        Set<String> roots = new HashSet<>();
        for (String way : List.of(" input", " output")) {
            for (Inventory inventory : List.of(before, after)) {
                Item message = inventory.items().get(of + way);
                if (message != null) {
                    names(message, "content").forEach(name -> collect(name, roots, 0));
                }
            }
        }
        List<Told> found = new ArrayList<>();
        for (Told told : blame.all()) {
            boolean member = roots.contains(Item.root(told.designator()))
                    || told.designator().startsWith(of + " ")
                    || roots.contains(told.designator());
            if (member && !told.isProse()) {
                found.add(told);
            }
        }
        if (found.isEmpty()) {
            Set<String> types = new LinkedHashSet<>();
            for (Inventory inventory : List.of(before, after)) {
                for (Item item : inventory.items().values()) {
                    if (roots.contains(Item.root(item.designator()))) {
                        collect(item.designator(), types, 0);
                    }
                }
            }
            blame.all().stream()
                    .filter(told -> types.contains(told.designator()) && !told.isProse())
                    .forEach(found::add);
        }
        return found;
    }
}
