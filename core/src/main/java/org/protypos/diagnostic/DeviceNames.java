package org.protypos.diagnostic;

import java.util.List;
import java.util.Locale;

/** Names that some file systems keep for devices, with any ending: no file is called so. */
public final class DeviceNames {
    /** The names, in lower case. */
    public static final List<String> ALL = List.of(("con prn aux nul com0 com1 com2 com3 com4 com5 com6 com7 com8 com9"
                    + " lpt0 lpt1 lpt2 lpt3 lpt4 lpt5 lpt6 lpt7 lpt8 lpt9")
            .split(" "));

    private DeviceNames() {}

    /** A name that no device has: a file name or its part before the ending, with a sign before it where it is needed. */
    public static String avoided(String name) {
        int dot = name.indexOf('.');
        String stem = (dot < 0 ? name : name.substring(0, dot)).toLowerCase(Locale.ROOT);
        return ALL.contains(stem) ? "_" + name : name;
    }
}
