package org.protypos.target.java.text;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.protypos.diagnostic.DeviceNames;
import org.protypos.naming.FileNames;
import org.protypos.naming.NameWords;
import org.protypos.naming.NamespaceSegments;
import org.protypos.target.classes.ClassRules;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;

/**
 * How Java spells names. Words are split as Jakarta XML Binding describes (appendix on binding XML names to Java
 * identifiers), and packages come from namespaces in the way described there.
 */
public final class JavaNames implements ClassRules {
    /** What the language is called in settings and on the command line. */
    public static final String LANGUAGE = "java";

    private static final int LONGEST_CONSTANT = 60;
    private static final Pattern NEGATIVE = Pattern.compile("-[0-9].*");
    /** More named values than this pass what one class can hold on some platforms. */
    private static final int MOST_CONSTANTS = 2_000;
    /** Nobody reads longer parameter lists, and some platforms refuse them. */
    private static final int MOST_PARAMETERS = 64;

    private static final int MOST_SYMBOLS = 3;

    private static final Set<String> KEYWORDS = Set.of(("abstract assert boolean break byte case catch char class const"
                    + " continue default do double else enum extends final finally float for goto if implements import"
                    + " instanceof int interface long native new package private protected public return short static"
                    + " strictfp super switch synchronized this throw throws transient try void volatile while true"
                    + " false null _ var yield record sealed permits")
            .split(" "));

    /** What every source file sees without an import, as far as generated code speaks of it. */
    private static final List<String> JAVA_LANG = List.of(("Object String Override Class Exception RuntimeException"
                    + " Throwable Error Integer Long Short Byte Boolean Float Double Character Number Math System Void"
                    + " Enum Record Iterable Comparable Deprecated SuppressWarnings FunctionalInterface SafeVarargs"
                    + " IllegalStateException IllegalArgumentException AutoCloseable Runnable Thread Process Module"
                    + " Package Runtime StringBuilder CharSequence Cloneable ClassLoader Appendable Readable")
            .split(" "));

    private static final Set<String> OF_OBJECTS =
            Set.of("clone finalize getClass hashCode notify notifyAll toString wait".split(" "));

    private static final List<String> RESERVED_TYPES =
            Stream.concat(JAVA_LANG.stream(), DeviceNames.ALL.stream()).toList();
    private static final List<String> RESERVED_MEMBERS = List.of("Class", "Java", "Javax");
    /** What the packages of the platform begin with: no module of others may have them. */
    private static final List<String> PLATFORM =
            List.of("java.", "javax.", "jdk.", "sun.", "org.w3c.dom.", "org.xml.sax.", "org.ietf.jgss.");

    private static final List<String> RESERVED_METHODS = List.of(
            ("getClass with hashCode equals toString clone finalize notify notifyAll wait connect of types input perform"
                            + " documents portType")
                    .split(" "));
    private static final List<String> RESERVED_PARAMETERS =
            List.of("connection input output in out e with result java javax".split(" "));

    @Override
    public boolean supports(Property.Access access) {
        return true;
    }

    @Override
    public String language() {
        return LANGUAGE;
    }

    @Override
    public String packageName(String namespace) {
        List<String> segments = namespace.isBlank() ? List.of("generated") : new NamespaceSegments(namespace).list();
        List<String> legal = new ArrayList<>();
        for (String segment : segments) {
            legal.add(packageSegment(segment));
        }
        if (isOfPlatform(legal)) {
            legal.set(0, legal.get(0) + "_");
        }
        return String.join(".", legal);
    }

    /** Whether a package would lie among those of the platform, which takes no classes of others (java.lang.ClassLoader). */
    private static boolean isOfPlatform(List<String> segments) {
        String name = String.join(".", segments) + ".";
        return PLATFORM.stream().anyMatch(name::startsWith);
    }

    private static String packageSegment(String segment) {
        StringBuilder text = new StringBuilder();
        Normalizer.normalize(segment, Normalizer.Form.NFC)
                .toLowerCase(Locale.ROOT)
                .codePoints()
                .map(c -> isPart(c) ? c : '_')
                .forEach(text::appendCodePoint);
        if (KEYWORDS.contains(text.toString()) || DeviceNames.ALL.contains(text.toString())) {
            text.append('_');
        }
        return Character.isJavaIdentifierStart(text.codePointAt(0)) ? text.toString() : "_" + text;
    }

    private static boolean isPart(int c) {
        return Character.isJavaIdentifierPart(c) && !Character.isIdentifierIgnorable(c);
    }

    @Override
    public String typeName(String xmlName) {
        StringBuilder name = new StringBuilder();
        for (String word : words(xmlName)) {
            name.appendCodePoint(Character.toUpperCase(word.codePointAt(0)))
                    .append(word, Character.charCount(word.codePointAt(0)), word.length());
        }
        return legal(name.isEmpty() ? "Unnamed" : name.toString());
    }

    private static String legal(String name) {
        return FileNames.fitting(Character.isJavaIdentifierStart(name.codePointAt(0)) ? name : "_" + name, name);
    }

    @Override
    public String memberName(String xmlName) {
        return typeName(xmlName);
    }

    @Override
    public String nestedTypeName(String xmlName) {
        return typeName(xmlName);
    }

    @Override
    public String interfaceName(String xmlName) {
        return typeName(xmlName);
    }

    @Override
    public String companionName(String interfaceName, String role) {
        return interfaceName + role;
    }

    @Override
    public String exceptionName(String xmlName) {
        return typeName(xmlName.matches("(?i).*(fault|exception|error)") ? xmlName : xmlName + "Fault");
    }

    @Override
    public boolean membersShareNamesWithTypes() {
        return false;
    }

    @Override
    public boolean nestsInInterfaces() {
        return true;
    }

    @Override
    public String methodName(String xmlName) {
        return small(typeName(xmlName));
    }

    @Override
    public String parameterName(String xmlName) {
        return small(typeName(xmlName));
    }

    /**
     * The field for a member. Where its name has no letter to make small, it differs from the name of a class all the same:
     * a field hides a class of its name.
     */
    public static String variable(String memberName) {
        String name = small(memberName);
        return name.equals(memberName) ? name + "_" : name;
    }

    /** The component of a record for a name: none may be called like a method that every object has. */
    public static String component(String name) {
        return OF_OBJECTS.contains(name) ? name + "_" : name;
    }

    /** A name with a small letter first, or a leading acronym in small letters. */
    private static String small(String memberName) {
        int capitals = 0;
        while (capitals < memberName.length() && Character.isUpperCase(memberName.charAt(capitals))) {
            capitals++;
        }
        boolean wordFollows =
                capitals > 1 && capitals < memberName.length() && Character.isLowerCase(memberName.charAt(capitals));
        int small = Math.max(1, wordFollows ? capitals - 1 : capitals);
        if (Character.isSurrogate(memberName.charAt(0))) {
            small = 0;
        }
        String name = memberName.substring(0, small).toLowerCase(Locale.ROOT) + memberName.substring(small);
        return KEYWORDS.contains(name) ? name + "_" : name;
    }

    @Override
    public String constantName(String text) {
        if (text.isBlank()) {
            return text.isEmpty() ? "EMPTY" : "BLANK";
        }
        String minus = NEGATIVE.matcher(text).matches() ? "MINUS_" : "";
        List<String> words = words(text);
        String name = words.isEmpty() ? symbols(text) : String.join("_", words).toUpperCase(Locale.ROOT);
        if (name.length() > LONGEST_CONSTANT) {
            name = name.substring(0, LONGEST_CONSTANT - 9) + String.format(Locale.ROOT, "_%08X", text.hashCode());
        }
        if (!Character.isJavaIdentifierStart(name.codePointAt(0)) && minus.isEmpty()) {
            name = "_" + name;
        }
        return KEYWORDS.contains(name) ? name + "_" : minus + name;
    }

    /** A value of signs alone is called by the names of the signs. */
    private static String symbols(String text) {
        List<String> names = new ArrayList<>();
        text.codePoints().limit(MOST_SYMBOLS).forEach(c -> {
            String name = Character.getName(c);
            names.add(name == null ? String.format(Locale.ROOT, "U%04X", c) : name.replaceAll("[^A-Z0-9]+", "_"));
        });
        return String.join("_", names);
    }

    private static List<String> words(String xmlName) {
        return NameWords.of(xmlName, JavaNames::isPart);
    }

    @Override
    public boolean isName(String text) {
        return !text.isEmpty()
                && Character.isJavaIdentifierStart(text.codePointAt(0))
                && text.codePoints().allMatch(c -> isPart(c) && c != '$')
                && !KEYWORDS.contains(text)
                && FileNames.isPossible(text);
    }

    @Override
    public ValueType converted(ValueType.Scalar written, String type) {
        return JavaConversions.converted(written, type);
    }

    @Override
    public boolean isQualifiedName(String text) {
        return List.of(text.split("\\.", -1)).stream().allMatch(this::isName);
    }

    @Override
    public boolean isPackage(String text) {
        return isQualifiedName(text) && !isOfPlatform(List.of(text.split("\\.", -1)));
    }

    @Override
    public Collection<String> reservedTypes() {
        return RESERVED_TYPES;
    }

    @Override
    public Collection<String> reservedMembers() {
        return RESERVED_MEMBERS;
    }

    @Override
    public Collection<String> reservedMethods() {
        return RESERVED_METHODS;
    }

    @Override
    public Collection<String> reservedConstants() {
        return List.of();
    }

    @Override
    public Collection<String> reservedParameters() {
        return RESERVED_PARAMETERS;
    }

    @Override
    public int mostConstants() {
        return MOST_CONSTANTS;
    }

    @Override
    public int mostParameters() {
        return MOST_PARAMETERS;
    }
}
