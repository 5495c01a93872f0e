package org.protypos.target;

import java.util.Set;
import java.util.TreeSet;
import org.protypos.naming.NameRules;

/** What is a name in the language of a target; the languages that rules speak of are those of all targets. */
public interface TargetNames extends NameRules {
    @Override
    default Set<String> languages() {
        Set<String> languages = new TreeSet<>(Set.of(language()));
        Targets.all().forEach(target -> languages.add(target.name()));
        return languages;
    }
}
