package org.protypos.target.classes;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** Names for what no component of a contract is called by, and no ledger keeps. */
public final class FreeName {
    private FreeName() {}

    /** A name that none of others has, in capitals or small letters: the one wanted, or that with a number. */
    public static String beside(Collection<String> others, String wanted) {
        return first(List.of(wanted), others);
    }

    /**
     * The first name that nothing generated into a package has, in capitals or small letters.
     *
     * @param wanted the names that would do, the best first; the last gets a number when none is free
     */
    public static String of(Plan plan, String packageName, List<String> wanted) {
        Map<String, String> taken = plan.names().byScope().getOrDefault(packageName, Map.of());
        return first(wanted, taken.values());
    }

    private static String first(List<String> wanted, Collection<String> taken) {
        String last = wanted.get(wanted.size() - 1);
        return Stream.concat(wanted.stream(), IntStream.iterate(2, i -> i + 1).mapToObj(i -> last + i))
                .filter(name -> taken.stream().noneMatch(name::equalsIgnoreCase))
                .findFirst()
                .orElseThrow();
    }
}
