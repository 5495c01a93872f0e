package org.protypos.testing;

import java.lang.reflect.Constructor;
import java.lang.reflect.Field;
import java.lang.reflect.Modifier;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Puts the members of one generated value over those of another, as code does that changes what it has read. */
public final class Overlay {
    private final Generated generated;
    private final Map<String, String> others = new HashMap<>();
    private final Class<?> content;
    private final Class<?> element;

    /** An overlay for the values of a contract. */
    public Overlay(Generated generated) throws ReflectiveOperationException {
        this.generated = generated;
        String runtime = generated.plan().rootPackage() + ".runtime.xml.";
        content = generated.load(runtime + "XmlObject");
        element = generated.load(runtime + "XmlElement");
    }

    /**
     * Reads the last message of the same kind that this was given, and makes it another, member by member.
     *
     * @return what is written then; for the first of its kind the message itself
     */
    public String changedInto(String message) throws ReflectiveOperationException {
        Object read = generated.read(message);
        String kind = element.getMethod("name").invoke(read) + " " + value(read).getClass();
        String other = others.put(kind, message);
        return other == null ? message : generated.write(of(generated.read(other), read));
    }

    private Object of(Object under, Object over) throws ReflectiveOperationException {
        if (over instanceof List<?> list) {
            return ofList(under instanceof List<?> other ? other : List.of(), list);
        }
        if (element.isInstance(over)) {
            Object below = element.isInstance(under) ? value(under) : null;
            Constructor<?> constructor = element.getConstructors()[0];
            return constructor.newInstance(element.getMethod("name").invoke(over), of(below, value(over)));
        }
        if (!content.isInstance(over) || over.getClass().getPackage() == content.getPackage()) {
            return over;
        }
        Object changed = under != null && under.getClass() == over.getClass() ? under : anew(over.getClass());
        for (Class<?> type = over.getClass(); type != content; type = type.getSuperclass()) {
            for (Field field : type.getDeclaredFields()) {
                if (!Modifier.isStatic(field.getModifiers())) {
                    field.setAccessible(true);
                    field.set(changed, of(field.get(changed), field.get(over)));
                }
            }
        }
        Object nil = content.getMethod("nil").invoke(over);
        content.getMethod("markNil", boolean.class).invoke(changed, nil);
        return changed;
    }

    private List<Object> ofList(List<?> under, List<?> over) throws ReflectiveOperationException {
        List<Object> list = new ArrayList<>();
        for (Object item : over) {
            list.add(of(list.size() < under.size() ? under.get(list.size()) : null, item));
        }
        return list;
    }

    private Object value(Object document) throws ReflectiveOperationException {
        return element.getMethod("value").invoke(document);
    }

    private static Object anew(Class<?> type) throws ReflectiveOperationException {
        Constructor<?> constructor = type.getDeclaredConstructor();
        constructor.setAccessible(true);
        return constructor.newInstance();
    }
}
