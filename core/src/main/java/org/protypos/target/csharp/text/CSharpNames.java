package org.protypos.target.csharp.text;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import org.protypos.diagnostic.DeviceNames;
import org.protypos.naming.FileNames;
import org.protypos.naming.NameWords;
import org.protypos.naming.NamespaceSegments;
import org.protypos.target.classes.ClassRules;
import org.protypos.target.classes.Property;
import org.protypos.target.classes.ValueType;

/**
 * How C# spells names: words with a capital each (C# language specification, section 6.4.3 for what an identifier is). Keywords are
 * never written with an at sign.
 */
public final class CSharpNames implements ClassRules {
    /** What the language is called in settings and on the command line. */
    public static final String LANGUAGE = "csharp";

    private static final int LONGEST_CONSTANT = 60;
    private static final Pattern NEGATIVE = Pattern.compile("-[0-9].*");
    /** More named values than this pass what one class can hold on some platforms. */
    private static final int MOST_CONSTANTS = 2_000;
    /** Nobody reads longer parameter lists, and some platforms refuse them. */
    private static final int MOST_PARAMETERS = 64;

    private static final int MOST_SYMBOLS = 3;
    /** A word with more digits is the number of something, which stays as it is. */
    private static final int MOST_DIGITS = 2;

    private static final Set<String> KEYWORDS = Set.of(
            ("abstract as base bool break byte case catch char checked class const continue decimal default delegate do"
                            + " double else enum event explicit extern false finally fixed float for foreach goto if implicit in"
                            + " int interface internal is lock long namespace new null object operator out override params"
                            + " private protected public readonly ref return sbyte sealed short sizeof stackalloc static string"
                            + " struct switch this throw true try typeof uint ulong unchecked unsafe ushort using virtual void"
                            + " volatile while")
                    .split(" "));

    /** Words that mean something in some places, and types by short names: neither is good to call anything by. */
    private static final Set<String> CONTEXTUAL = Set.of(
            ("async await dynamic field from get global init join let nameof not notnull on orderby partial record"
                            + " remove required select set unmanaged value var when where with yield")
                    .split(" "));

    /** What every object has, and what every type with XML content has besides. */
    private static final List<String> RESERVED_MEMBERS = List.of(
            ("Equals GetHashCode GetType ToString MemberwiseClone Finalize ReferenceEquals XmlTypeName IsXmlNil Violations"
                            + " XmlExtensions ReadXmlAttributes ReadXmlBody ReadXmlElements WriteXmlAttributes WriteXmlBody"
                            + " WriteXmlElements DescribeXml CheckXml KeepXmlText KeptXmlText KeepXmlOrder KeptXmlOrder InnerXml"
                            + " DoReadXmlAttributes DoReadXmlBody DoReadXmlElements DoWriteXmlAttributes DoWriteXmlBody"
                            + " DoWriteXmlElements DoDescribeXml DoCheckXml"
                            + " Notes NotesIfAny IsTypeStated LocalPrefixes TypeName StandingText")
                    .split(" "));

    /** The root of the platform's namespaces, the namespace of the runtime beside generated code, and what no class may hold. */
    private static final List<String> RESERVED_TYPES =
            join(join(List.of("System", "Runtime", "Object", "String"), DeviceNames.ALL), RESERVED_MEMBERS);

    private static final List<String> OF_OBJECTS =
            List.of("Equals GetHashCode GetType ToString MemberwiseClone Finalize ReferenceEquals".split(" "));

    private static final List<String> RESERVED_METHODS = List.of(
            ("Equals GetHashCode GetType ToString MemberwiseClone Finalize ReferenceEquals Connect With Dispose HandleAsync")
                    .split(" "));

    private static final List<String> RESERVED_PARAMETERS = List.of("cancellationToken output input result".split(" "));

    private static List<String> join(List<String> some, List<String> others) {
        List<String> all = new ArrayList<>(some);
        all.addAll(others);
        return List.copyOf(all);
    }

    /** Null says in C# what an Optional says elsewhere, and a list stays in its element. */
    @Override
    public boolean supports(Property.Access access) {
        // What may be absent is null without more words, so an optional getter has no form of its own.
        return access != Property.Access.OPTIONAL;
    }

    @Override
    public String language() {
        return LANGUAGE;
    }

    @Override
    public String packageName(String namespace) {
        List<String> segments = namespace.isBlank() ? List.of("Generated") : new NamespaceSegments(namespace).list();
        List<String> legal = new ArrayList<>();
        for (String segment : segments) {
            String name = typeName(segment);
            legal.add(name.equals("System") ? "System_" : name);
        }
        if (legal.get(0).equals("Microsoft")) {
            legal.add(0, "Contract");
        }
        return String.join(".", legal);
    }

    /** Characters beyond the first plane are letters for many, but none for C#. */
    private static boolean isPart(int c) {
        if (c > Character.MAX_VALUE) {
            return false;
        }
        return switch (Character.getType(c)) {
            case Character.UPPERCASE_LETTER,
                    Character.LOWERCASE_LETTER,
                    Character.TITLECASE_LETTER,
                    Character.MODIFIER_LETTER,
                    Character.OTHER_LETTER,
                    Character.LETTER_NUMBER,
                    Character.NON_SPACING_MARK,
                    Character.COMBINING_SPACING_MARK,
                    Character.DECIMAL_DIGIT_NUMBER,
                    Character.CONNECTOR_PUNCTUATION -> true;
            default -> false;
        };
    }

    private static boolean isStart(int c) {
        return c == '_' || isPart(c) && Character.isLetter(c) || Character.getType(c) == Character.LETTER_NUMBER;
    }

    @Override
    public String typeName(String xmlName) {
        List<String> words = words(xmlName);
        String name = joined(isShouted(xmlName, words) ? calmed(words) : words);
        return legal(name.isEmpty() ? "Unnamed" : name);
    }

    /** Whether a name has several words with signs between them, and nothing but capitals: what stands alone may be an acronym. */
    private static boolean isShouted(String xmlName, List<String> words) {
        return words.size() > 1
                && xmlName.chars().noneMatch(Character::isLowerCase)
                && words.stream().mapToInt(String::length).sum() < xmlName.length();
    }

    /** Words in one, each with a capital. */
    private static String joined(List<String> words) {
        StringBuilder name = new StringBuilder();
        for (String word : words) {
            // A digit at either side of where two words meet keeps them apart: v1.2 is not v12.
            boolean digits = !name.isEmpty()
                    && Character.isDigit(name.charAt(name.length() - 1))
                    && Character.isDigit(word.charAt(0));
            name.append(digits ? "_" : "")
                    .append(Character.toUpperCase(word.charAt(0)))
                    .append(word, 1, word.length());
        }
        return name.toString();
    }

    private static String legal(String name) {
        return FileNames.fitting(isStart(name.charAt(0)) ? name : "_" + name, name);
    }

    private static List<String> words(String xmlName) {
        return NameWords.of(xmlName, CSharpNames::isPart);
    }

    /** A type may not be called as a member beside it: elements of a type of their own are where the two meet. */
    @Override
    public String nestedTypeName(String xmlName) {
        return typeName(xmlName) + "Type";
    }

    @Override
    public String interfaceName(String xmlName) {
        return "I" + typeName(xmlName);
    }

    @Override
    public String companionName(String interfaceName, String role) {
        boolean marked = interfaceName.matches("I\\p{Lu}.*");
        return (marked ? interfaceName.substring(1) : interfaceName) + role;
    }

    @Override
    public String exceptionName(String xmlName) {
        String plain = xmlName.replaceFirst("(?i)(?<=.)(fault|exception)$", "");
        return typeName(plain)
                + (plain.equals(xmlName) || !xmlName.matches("(?i).*exception") ? "FaultException" : "Exception");
    }

    @Override
    public boolean membersShareNamesWithTypes() {
        return true;
    }

    @Override
    public boolean nestsInInterfaces() {
        return false;
    }

    @Override
    public String memberName(String xmlName) {
        return typeName(xmlName);
    }

    @Override
    public String methodName(String xmlName) {
        return typeName(xmlName);
    }

    @Override
    public String parameterName(String xmlName) {
        String name = small(typeName(xmlName));
        return KEYWORDS.contains(name) || CONTEXTUAL.contains(name) ? name + "Value" : name;
    }

    /** The field behind a property, which differs from it even where that has no letter to make small. */
    public static String field(String memberName) {
        String name = small(memberName);
        return name.equals(memberName)
                ? "_" + name
                : KEYWORDS.contains(name) || CONTEXTUAL.contains(name) ? name + "Value" : name;
    }

    /** A name with a small letter first, or a leading acronym in small letters. */
    private static String small(String name) {
        int capitals = 0;
        while (capitals < name.length() && Character.isUpperCase(name.charAt(capitals))) {
            capitals++;
        }
        boolean wordFollows = capitals > 1 && capitals < name.length() && Character.isLowerCase(name.charAt(capitals));
        int small = Math.max(1, wordFollows ? capitals - 1 : capitals);
        return name.substring(0, small).toLowerCase(Locale.ROOT) + name.substring(small);
    }

    @Override
    public String constantName(String text) {
        if (text.isBlank()) {
            return text.isEmpty() ? "Empty" : "Blank";
        }
        String minus = NEGATIVE.matcher(text).matches() ? "Minus" : "";
        List<String> words = words(text);
        String name = words.isEmpty() ? symbols(text) : joined(calmed(words));
        if (name.length() > LONGEST_CONSTANT) {
            name = name.substring(0, LONGEST_CONSTANT - 9) + String.format(Locale.ROOT, "_%08x", text.hashCode());
        }
        return minus.isEmpty() && !isStart(name.charAt(0)) ? "_" + name : minus + name;
    }

    private static List<String> calmed(List<String> words) {
        return words.stream().map(CSharpNames::calmed).toList();
    }

    /** A word without its capitals behind the first, when it has nothing but capitals and is no number of something. */
    private static String calmed(String word) {
        boolean numbered = word.chars().filter(Character::isDigit).count() > MOST_DIGITS;
        boolean shouts = word.length() > 2 && !numbered && word.equals(word.toUpperCase(Locale.ROOT));
        return shouts ? word.charAt(0) + word.substring(1).toLowerCase(Locale.ROOT) : word;
    }

    /** A value of signs alone is called by the names of the signs. */
    private static String symbols(String text) {
        StringBuilder names = new StringBuilder();
        text.codePoints().limit(MOST_SYMBOLS).forEach(c -> {
            String name = Character.getName(c);
            for (String word : (name == null ? String.format(Locale.ROOT, "U%04X", c) : name).split("[^A-Z0-9]+")) {
                names.append(
                        word.isEmpty() ? "" : word.charAt(0) + word.substring(1).toLowerCase(Locale.ROOT));
            }
        });
        return names.toString();
    }

    @Override
    public boolean isName(String text) {
        return !text.isEmpty()
                && isStart(text.charAt(0))
                && text.chars().allMatch(CSharpNames::isPart)
                && !KEYWORDS.contains(text)
                && FileNames.isPossible(text);
    }

    @Override
    public boolean isQualifiedName(String text) {
        return List.of(text.split("\\.", -1)).stream().allMatch(this::isName);
    }

    @Override
    public boolean isPackage(String text) {
        List<String> segments = List.of(text.split("\\."));
        return isQualifiedName(text)
                && !segments.contains("System")
                && !segments.get(0).equals("Microsoft");
    }

    @Override
    public ValueType converted(ValueType.Scalar written, String type) {
        return CSharpConversions.converted(written, type);
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
        return OF_OBJECTS;
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
