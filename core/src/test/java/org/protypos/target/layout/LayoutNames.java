package org.protypos.target.layout;

import java.util.Locale;
import org.protypos.target.TargetNames;

/** Names of fields: capitals, digits and hyphens, thirty at most. */
final class LayoutNames implements TargetNames {
    static final int LONGEST = 30;

    @Override
    public String language() {
        return LayoutTarget.NAME;
    }

    @Override
    public String packageName(String namespace) {
        return fieldName(namespace.replaceFirst("/$", "").replaceFirst(".*[/:]", ""));
    }

    String fieldName(String name) {
        String words = name.replaceAll("(?<=[a-z0-9])(?=[A-Z])", "-")
                .replaceAll("[^A-Za-z0-9]+", "-")
                .replaceAll("^-|-$", "")
                .toUpperCase(Locale.ROOT);
        String started = words.matches("[A-Z].*") ? words : "F-" + words;
        return started.length() <= LONGEST
                ? started
                : started.substring(0, LONGEST - 4).replaceAll("-$", "");
    }

    @Override
    public boolean isName(String text) {
        return text.matches("[A-Z][A-Z0-9-]{0,29}");
    }

    @Override
    public boolean canStandAround(String prefix, String suffix) {
        return isName(prefix + "X" + suffix);
    }

    @Override
    public boolean isQualifiedName(String text) {
        return isName(text);
    }

    @Override
    public boolean isPackage(String text) {
        return isName(text);
    }
}
