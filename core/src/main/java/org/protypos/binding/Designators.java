package org.protypos.binding;

import java.util.Collection;
import java.util.Map;
import org.protypos.diagnostic.NearestName;
import org.protypos.naming.Designator;
import org.protypos.naming.Subject;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/** Designators of components as people write and read them. */
public final class Designators {
    private Designators() {}

    /** An operation; the second of one name and those behind it have numbers. */
    public static Subject operation(PortType portType, Operation operation) {
        int number = portType.number(operation);
        return Subject.wsdl(Subject.Kind.PORT_TYPE, portType.name(), portType.place())
                .inside(
                        Subject.Kind.OPERATION,
                        operation.name() + (number > 1 ? "[" + number + "]" : ""),
                        operation.place());
    }

    /** A designator with prefixes where there are some for its namespaces; a value at its end stays as it is. */
    public static String shown(String designator, Map<String, String> prefixes) {
        String component = Designator.of(designator).component();
        return named(component, prefixes) + designator.substring(component.length());
    }

    /** A text with prefixes in place of the namespaces in braces for which there are some. */
    public static String named(String text, Map<String, String> prefixes) {
        String shown = text;
        for (Map.Entry<String, String> prefix : prefixes.entrySet()) {
            shown = shown.replace("{" + prefix.getValue() + "}", prefix.getKey() + ":");
        }
        return shown;
    }

    /** Of all designators the one of which the last step is most like that of another, or null when there is none. */
    static String nearest(String wanted, Collection<String> all) {
        String nearest = null;
        int least = Integer.MAX_VALUE;
        for (String candidate : all) {
            boolean namespaces = candidate.startsWith(Rule.NAMESPACE) == wanted.startsWith(Rule.NAMESPACE);
            int step = namespaces ? NearestName.distance(last(wanted), last(candidate)) * 1000 : Integer.MAX_VALUE;
            if (step <= least) {
                int whole = step
                        + Math.min(999, Math.abs(candidate.length() - wanted.length()) * 4 + common(wanted, candidate));
                if (whole < least || whole == least && candidate.compareTo(nearest) < 0) {
                    least = whole;
                    nearest = candidate;
                }
            }
        }
        return nearest;
    }

    /** How many characters are left behind the common beginning, so that longer ones count as nearer. */
    private static int common(String a, String b) {
        int at = 0;
        while (at < a.length() && at < b.length() && a.charAt(at) == b.charAt(at)) {
            at++;
        }
        return Math.min(500, a.length() - at);
    }

    private static String last(String designator) {
        int end = Math.max(designator.lastIndexOf('}'), designator.lastIndexOf('/'));
        return designator.substring(end + 1);
    }
}
