package org.protypos.target.cobol;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.Slot;
import org.protypos.target.Surface;

/** What programs see of records: each field with its place and form. */
final class CobolSurface {
    private CobolSurface() {}

    static Surface of(List<RecordLayout> records) {
        Surface surface = new Surface();
        Set<Surface.Audience> all = EnumSet.allOf(Surface.Audience.class);
        for (RecordLayout record : records) {
            surface.add(
                    "record " + record.name() + " " + record.length(),
                    new Surface.Symbol(
                            record.name(),
                            "record " + record.name(),
                            record.name() + ", " + record.length() + " bytes",
                            all,
                            all));
            for (RecordLayout.Placed placed : record.placed()) {
                Slot slot = placed.slot();
                String form = slot.picture() == null ? "group" : CopybookEmitter.picture(slot.picture());
                String shown = slot.name() + " " + form + (slot.times() > 1 ? " OCCURS " + slot.times() : "")
                        + (slot.isVarying() ? " VARYING" : "");
                String designator =
                        slot.subject() == null ? record.name() : slot.subject().designator();
                surface.add(
                        "field " + record.name() + " " + placed.offset() + " " + shown,
                        new Surface.Symbol(
                                designator, "field " + record.name() + " " + slot.name(), shown, all, Set.of()));
                if (slot.subject() != null) {
                    surface.name(designator, slot.name());
                }
            }
        }
        return surface;
    }
}
