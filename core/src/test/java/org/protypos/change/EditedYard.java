package org.protypos.change;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.protypos.testing.RandomEdit;

/** Random edits of a contract, of which what is told is compared with what becomes of source that was written against the old code. */
final class EditedYard {
    static final Path YARD = Path.of("src/test/resources/change");

    private EditedYard() {}

    /** Judges one edit. */
    interface Judge {
        /**
         * What is told of an edited contract, and what the compiler says.
         *
         * @param folder where the contract is, in which there is room for its code
         * @param edit what was edited
         * @return null when the contract is not sound
         */
        Verdict of(Path folder, String edit) throws Exception;
    }

    /**
     * What came out.
     *
     * @param told the differences
     * @param calling the errors in source that calls, empty for none
     * @param implementing the errors in source that implements
     */
    record Verdict(List<Difference> told, String calling, String implementing) {}

    /**
     * What came out of all.
     *
     * @param faults where it is not told what the compiler says
     * @param breaking how many edits break source
     */
    record Outcome(List<String> faults, int breaking) {}

    static Outcome judged(int edits, long seed, Path folder, Judge judge) throws Exception {
        String original = Files.readString(YARD.resolve("yard.xsd"));
        Random chance = new Random(seed);
        List<String> faults = new ArrayList<>();
        int breaking = 0;
        for (int judged = 0; judged < edits; ) {
            RandomEdit.Edited edit = RandomEdit.of(original, chance);
            Path edited = Files.createDirectories(folder.resolve("e" + judged));
            Files.copy(YARD.resolve("yard.wsdl"), edited.resolve("yard.wsdl"), StandardCopyOption.REPLACE_EXISTING);
            Files.writeString(edited.resolve("yard.xsd"), edit.document());
            Verdict verdict = judge.of(edited, edit.told());
            if (verdict == null) {
                continue;
            }
            judged++;
            Set<Reader> told = EnumSet.noneOf(Reader.class);
            verdict.told().forEach(difference -> told.addAll(difference.breaks()));
            told.retainAll(EnumSet.of(Reader.CLIENT_CODE, Reader.SERVER_CODE));
            Set<Reader> seen = EnumSet.noneOf(Reader.class);
            if (!verdict.calling().isEmpty()) {
                seen.add(Reader.CLIENT_CODE);
            }
            if (!verdict.implementing().isEmpty()) {
                seen.add(Reader.SERVER_CODE);
            }
            breaking += seen.isEmpty() ? 0 : 1;
            if (!told.equals(seen)) {
                faults.add((told.containsAll(seen) ? "FALSE " : "MISSED ") + edit.told() + ": told " + told + ", seen "
                        + seen + "\n"
                        + (verdict.calling() + verdict.implementing())
                                .lines()
                                .limit(4)
                                .reduce("", (a, b) -> a + b + "\n"));
            }
        }
        return new Outcome(faults, breaking);
    }
}
