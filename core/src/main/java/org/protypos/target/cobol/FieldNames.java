package org.protypos.target.cobol;

import java.util.Set;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.Slot;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;

/**
 * Gives the fields of a record their names, each alone in the record, so that none needs to be qualified there. Of several
 * that want the same the first gets it, and the others have the name of the group around them in front.
 */
final class FieldNames {
    private final Naming naming;
    private final CobolNames rules;

    FieldNames(Naming naming, CobolNames rules) {
        this.naming = naming;
        this.rules = rules;
    }

    /**
     * Gives them.
     *
     * @param records the names of all records, which no field may have
     */
    void give(RecordLayout record, Set<String> records) {
        NameScope scope = naming.scope(record.name(), rules.reservedWords());
        scope.excludeAll(records);
        record.root().setName(record.name());
        record.root().children().forEach(child -> give(scope, child, ""));
    }

    private void give(NameScope scope, Slot slot, String around) {
        String wanted = free(scope, around, slot.wanted());
        slot.setName(slot.subject() == null ? scope.make(wanted, "") : scope.claim(slot.subject(), wanted, ""));
        for (Slot.Condition condition : slot.conditions()) {
            condition.setName(scope.make(free(scope, around, condition.wanted()), ""));
        }
        String inside = slot.kind() == Slot.Kind.ENTRY || slot.kind() == Slot.Kind.CHOICE ? around : slot.wanted();
        slot.children().forEach(child -> give(scope, child, inside));
    }

    private String free(NameScope scope, String around, String wanted) {
        String plain = rules.spelled(wanted);
        if (!scope.has(plain)) {
            return plain;
        }
        return around.isEmpty() ? rules.spelled(wanted, "fld") : rules.spelled(around, wanted);
    }
}
