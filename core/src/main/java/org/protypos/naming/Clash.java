package org.protypos.naming;

/**
 * Two components that would get one name, and how that was settled.
 *
 * @param where the package, or the class in its package, that has the names
 * @param wanted the name that both would have
 * @param holder the one that has it, or null when nobody can have it
 * @param other the one that is called otherwise
 * @param given what that is called
 */
public record Clash(String where, String wanted, Subject holder, Subject other, String given) {
    /** Why the two met. */
    public enum Cause {
        RESERVED("names that the language or generated code needs"),
        CASE("names that differ in case alone"),
        KIND("components of several kinds"),
        CONVERSION("names that become one when they are converted");

        private final String text;

        Cause(String text) {
            this.text = text;
        }

        /** The cause in words. */
        public String text() {
            return text;
        }
    }

    /** Why the two met. */
    public Cause cause() {
        if (holder == null) {
            return Cause.RESERVED;
        }
        if (holder.kind() != other.kind()) {
            return Cause.KIND;
        }
        return !last(holder).equals(last(other)) && NameScope.key(last(holder)).equals(NameScope.key(last(other)))
                ? Cause.CASE
                : Cause.CONVERSION;
    }

    private static String last(Subject subject) {
        String text = subject.designator();
        return text.substring(
                Math.max(text.lastIndexOf('}'), Math.max(text.lastIndexOf('/'), text.lastIndexOf('='))) + 1);
    }
}
