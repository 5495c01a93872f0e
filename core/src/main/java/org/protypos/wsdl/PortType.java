package org.protypos.wsdl;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/** A port type: a set of operations (WSDL 1.1, section 2.4). */
public final class PortType {
    private final QName name;
    private final List<Operation> operations;
    private final String documentation;
    private final Place place;
    private final Map<Operation, Integer> numbers = new HashMap<>();

    /**
     * Makes a port type.
     *
     * @param operations in the order of the document
     * @param documentation what is said of it, or null
     */
    public PortType(QName name, List<Operation> operations, String documentation, Place place) {
        this.name = name;
        this.operations = List.copyOf(operations);
        this.documentation = documentation;
        this.place = place;
        Map<String, Integer> counts = new HashMap<>();
        this.operations.forEach(one -> numbers.putIfAbsent(one, counts.merge(one.name(), 1, Integer::sum)));
    }

    public QName name() {
        return name;
    }

    /** Its operations in their order; several may have one name. */
    public List<Operation> operations() {
        return operations;
    }

    /** Which of its operations of one name an operation is, from 1; 0 for one that is not in it. */
    public int number(Operation operation) {
        return numbers.getOrDefault(operation, 0);
    }

    /** What is said of it, or null. */
    public String documentation() {
        return documentation;
    }

    public Place place() {
        return place;
    }
}
