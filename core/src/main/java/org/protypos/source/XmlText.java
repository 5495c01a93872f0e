package org.protypos.source;

/** Text as it stands in a document of XML (XML 1.0, sections 2.4 and 3.3.3). */
public final class XmlText {
    /** What a name without a colon is (Namespaces in XML, section 4), in the letters of all scripts. */
    public static final String NAME = "[\\p{L}_][\\p{L}\\p{N}._-]*";

    private XmlText() {}

    /**
     * Writes what would be taken for something else otherwise.
     *
     * @param attribute whether it stands between the quotes of an attribute
     */
    public static String escaped(String value, boolean attribute) {
        StringBuilder escaped = new StringBuilder(value.length());
        for (int i = 0; i < value.length(); i++) {
            char c = value.charAt(i);
            switch (c) {
                case '&' -> escaped.append("&amp;");
                case '<' -> escaped.append("&lt;");
                case '>' -> escaped.append("&gt;");
                case '\r' -> escaped.append("&#13;");
                case '"' -> escaped.append(attribute ? "&quot;" : "\"");
                case '\t', '\n' -> escaped.append(attribute ? "&#" + (int) c + ";" : String.valueOf(c));
                default -> escaped.append(c);
            }
        }
        return escaped.toString();
    }
}
