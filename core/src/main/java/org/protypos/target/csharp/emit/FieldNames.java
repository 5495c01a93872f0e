package org.protypos.target.csharp.emit;

import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Set;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.csharp.text.CSharpNames;

/** The names of the private fields of one class, each once and none that a member of the class has. */
final class FieldNames {
    private final Set<String> taken = new HashSet<>();
    private final Map<Property, String> behind = new IdentityHashMap<>();
    private final Map<String, Integer> numbers = new HashMap<>();

    FieldNames(PlannedClass type) {
        for (PlannedClass inherited = type; inherited != null; inherited = inherited.base()) {
            for (Property property : inherited.properties()) {
                taken.add(property.name());
                if (property.nilName() != null) {
                    taken.add(property.nilName());
                }
            }
        }
        type.nestedClasses().forEach(nested -> taken.add(nested.name()));
        type.nestedEnums().forEach(nested -> taken.add(nested.name()));
        taken.add(type.name());
    }

    /** The field behind a property. */
    String of(Property property) {
        return behind.computeIfAbsent(property, any -> made(CSharpNames.field(property.name())));
    }

    /** A field that no property stands before. */
    String made(String wanted) {
        String name = wanted;
        while (!taken.add(name)) {
            name = wanted + (numbers.merge(wanted, 1, Integer::sum) + 1);
        }
        return name;
    }
}
