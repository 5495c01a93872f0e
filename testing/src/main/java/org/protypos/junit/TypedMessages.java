package org.protypos.junit;

import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.function.Consumer;
import javax.xml.namespace.QName;

/**
 * Generated classes, by the registry that knows them. The runtime that they need may lie beside them under a name of its own, so
 * that what is called here is called by name.
 */
final class TypedMessages {
    private final Object registry;

    TypedMessages(Object registry) {
        this.registry = registry;
        if (Arrays.stream(registry.getClass().getMethods())
                .noneMatch(method -> method.getName().equals("asText"))) {
            throw new IllegalArgumentException(
                    registry.getClass().getName() + " is no registry of generated classes: give Documents.INSTANCE");
        }
    }

    /** An element with a value, as XML. */
    String text(QName element, Object value) {
        Method method = Arrays.stream(registry.getClass().getMethods())
                .filter(one -> one.getName().equals("asText"))
                .findFirst()
                .orElseThrow();
        return (String) call(method, element.getNamespaceURI(), element.getLocalPart(), value);
    }

    /** The value of an element that is written in XML. */
    Object value(String xml) {
        try {
            Method read = registry.getClass().getMethod("read", InputStream.class);
            return content(call(read, new ByteArrayInputStream(xml.getBytes(StandardCharsets.UTF_8))));
        } catch (NoSuchMethodException e) {
            throw new IllegalStateException(e);
        }
    }

    /** The class that stands for an element. */
    Class<?> typeOf(QName element) {
        String empty = "<e:" + element.getLocalPart() + " xmlns:e=\"" + element.getNamespaceURI() + "\"/>";
        Consumer<Object> passedOver = any -> {};
        try {
            Method read = registry.getClass().getMethod("read", InputStream.class, Consumer.class);
            return content(call(read, new ByteArrayInputStream(empty.getBytes(StandardCharsets.UTF_8)), passedOver))
                    .getClass();
        } catch (NoSuchMethodException e) {
            throw new IllegalStateException(e);
        }
    }

    private static Object content(Object element) {
        try {
            return element.getClass().getMethod("value").invoke(element);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    private Object call(Method method, Object... arguments) {
        try {
            return method.invoke(registry, arguments);
        } catch (InvocationTargetException e) {
            if (e.getCause() instanceof RuntimeException own) {
                throw own;
            }
            throw new IllegalStateException(e.getCause());
        } catch (IllegalAccessException | IllegalArgumentException e) {
            throw new IllegalArgumentException("this is no value of a class that the registry knows", e);
        }
    }
}
