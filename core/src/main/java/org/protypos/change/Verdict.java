package org.protypos.change;

import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.protypos.runtime.value.Lexical;

/**
 * Says for whom a difference breaks something on the wire. What narrows the messages that a contract allows breaks those
 * who write by the old one; what widens them breaks those who read by it.
 */
final class Verdict {
    private static final List<String> INTEGERS = List.of("byte", "short", "int", "long", "integer", "decimal");
    private static final Set<String> LEAST = Set.of("minLength", "minInclusive", "minExclusive");
    private static final Set<String> MOST =
            Set.of("maxLength", "maxInclusive", "maxExclusive", "totalDigits", "fractionDigits");
    private static final Set<String> SILENT = Set.of("documentation", "parameter order", "policy");

    private final Reach before;
    private final Reach after;

    Verdict(Reach before, Reach after) {
        this.before = before;
        this.after = after;
    }

    /** What a difference does to the messages that are valid. */
    private record Effect(boolean narrows, boolean widens) {
        static final Effect NONE = new Effect(false, false);
        static final Effect BOTH = new Effect(true, true);
        static final Effect NARROWS = new Effect(true, false);
        static final Effect WIDENS = new Effect(false, true);
    }

    /** Of a component that came or went. */
    Set<Reader> presence(Item item, boolean added) {
        return switch (item.kind()) {
            case MEMBER, ATTRIBUTE -> {
                boolean required = !item.facts().getOrDefault("occurs", "").startsWith("0");
                yield wire(item.designator(), required ? Effect.BOTH : added ? Effect.WIDENS : Effect.NARROWS);
            }
            case VALUE -> wire(item.designator(), added ? Effect.WIDENS : Effect.NARROWS);
            case OPERATION, PORT -> added ? EnumSet.noneOf(Reader.class) : EnumSet.of(Reader.OLD_CLIENTS);
            case HEADER ->
                added && item.designator().contains(" input ")
                        ? EnumSet.of(Reader.OLD_CLIENTS)
                        : !added && item.designator().contains(" input ")
                                ? EnumSet.of(Reader.OLD_SERVERS)
                                : EnumSet.noneOf(Reader.class);
            case MESSAGE -> EnumSet.of(Reader.OLD_CLIENTS, Reader.OLD_SERVERS);
            default -> EnumSet.noneOf(Reader.class);
        };
    }

    /** Of a component that is described otherwise. */
    Set<Reader> change(Item was, Item is, String fact) {
        String old = was.facts().get(fact);
        String now = is.facts().get(fact);
        if (SILENT.contains(fact) || fact.startsWith("policy")) {
            return EnumSet.noneOf(Reader.class);
        }
        return switch (was.kind()) {
            case SERVICE, PORT_TYPE -> EnumSet.noneOf(Reader.class);
            case PORT ->
                fact.equals("address")
                        ? EnumSet.of(Reader.OLD_CLIENTS)
                        : EnumSet.of(Reader.OLD_CLIENTS, Reader.OLD_SERVERS);
            case OPERATION, MESSAGE, HEADER, FAULT -> EnumSet.of(Reader.OLD_CLIENTS, Reader.OLD_SERVERS);
            default -> wire(is.designator(), effect(fact, old, now));
        };
    }

    private Set<Reader> wire(String designator, Effect effect) {
        boolean requests = before.isInRequests(designator) || after.isInRequests(designator);
        boolean answers = before.isInAnswers(designator) || after.isInAnswers(designator);
        Set<Reader> breaks = EnumSet.noneOf(Reader.class);
        if (effect.narrows() && requests || effect.widens() && answers) {
            breaks.add(Reader.OLD_CLIENTS);
        }
        if (effect.widens() && requests || effect.narrows() && answers) {
            breaks.add(Reader.OLD_SERVERS);
        }
        return breaks;
    }

    private static Effect effect(String fact, String old, String now) {
        return switch (fact) {
            case "occurs" -> occurs(old, now);
            case "nillable", "mixed", "any element", "any attribute" ->
                old == null ? Effect.WIDENS : now == null ? Effect.NARROWS : Effect.BOTH;
            case "abstract", "fixed", "block", "constraints", "pattern" ->
                old == null ? Effect.NARROWS : now == null ? Effect.WIDENS : Effect.BOTH;
            case "default" -> Effect.NONE;
            case "type", "base" -> type(old, now);
            default ->
                LEAST.contains(fact)
                        ? bound(old, now, true)
                        : MOST.contains(fact) ? bound(old, now, false) : Effect.BOTH;
        };
    }

    private static Effect occurs(String old, String now) {
        int[] was = bounds(old);
        int[] is = bounds(now);
        return new Effect(is[0] > was[0] || is[1] < was[1], is[0] < was[0] || is[1] > was[1]);
    }

    private static int[] bounds(String occurs) {
        String[] parts = (occurs == null ? "1..1" : occurs).split("\\.\\.");
        return new int[] {
            Integer.parseInt(parts[0]), parts[1].equals("*") ? Integer.MAX_VALUE : Integer.parseInt(parts[1])
        };
    }

    private static Effect type(String old, String now) {
        int was = INTEGERS.indexOf(local(old));
        int is = INTEGERS.indexOf(local(now));
        return was < 0 || is < 0 || was == is ? Effect.BOTH : is > was ? Effect.WIDENS : Effect.NARROWS;
    }

    private static String local(String name) {
        return name == null || !name.startsWith("{http://www.w3.org/2001/XMLSchema}")
                ? ""
                : name.substring(name.indexOf('}') + 1);
    }

    private static Effect bound(String old, String now, boolean least) {
        if (old == null || now == null) {
            return old == null ? Effect.NARROWS : Effect.WIDENS;
        }
        try {
            int order = Lexical.parseDecimal(now).compareTo(Lexical.parseDecimal(old));
            return order == 0 ? Effect.NONE : order > 0 == least ? Effect.NARROWS : Effect.WIDENS;
        } catch (IllegalArgumentException e) {
            return Effect.BOTH;
        }
    }

    /**
     * For whom a difference breaks code.
     *
     * @param was how the component looked to code, or null when code did not see it
     * @param is how it looks now, likewise
     */
    static Set<Reader> code(String designator, Map<String, String> was, Map<String, String> is) {
        String old = was.get(designator);
        String now = is.get(designator);
        if (old == null) {
            boolean operation = now != null && designator.startsWith("portType ");
            return operation ? EnumSet.of(Reader.SERVER_CODE) : EnumSet.noneOf(Reader.class);
        }
        return old.equals(now) ? EnumSet.noneOf(Reader.class) : EnumSet.of(Reader.CLIENT_CODE, Reader.SERVER_CODE);
    }
}
