package org.protypos.testing;

import java.lang.reflect.Constructor;
import java.lang.reflect.Method;
import java.lang.reflect.Modifier;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;

/**
 * Source that uses everything that can be used of generated classes, written from the compiled classes alone: one file for who calls, one
 * for who implements.
 */
public final class Usage {
    private final StringBuilder body = new StringBuilder();
    private int names;

    private Usage() {}

    /** Source that calls: it makes values, reads and sets their members, switches over constants, calls operations. */
    public static String calling(List<Class<?>> classes) {
        Usage usage = new Usage();
        classes.forEach(type -> usage.use(type, true));
        return usage.file("Calling");
    }

    /** Source that implements: it does the same with values, and has a class for each interface. */
    public static String implementing(List<Class<?>> classes) {
        Usage usage = new Usage();
        classes.forEach(type -> usage.use(type, false));
        return usage.file("Implementing");
    }

    private String file(String name) {
        return "@SuppressWarnings(\"all\")\nclass " + name + " {\n" + body + "}\n";
    }

    private void use(Class<?> type, boolean calls) {
        if (!Modifier.isPublic(type.getModifiers())
                || type.getSimpleName().matches(".*(Types|Documents|Messages|Contract)")) {
            return;
        }
        boolean served = type.getSimpleName().endsWith("Endpoint");
        boolean called = type.getSimpleName().endsWith("Client");
        if (type.isEnum()) {
            constants(type);
        } else if (type.isInterface()) {
            if (calls) {
                call(type);
            } else {
                implement(type);
            }
        } else if (type.isRecord()) {
            record(type, calls);
        } else if (served || called) {
            if (called == calls) {
                body.append("  ")
                        .append(type.getCanonicalName())
                        .append(" f")
                        .append(names++)
                        .append(";\n");
            }
        } else {
            value(type);
        }
        for (Class<?> nested : sorted(type.getDeclaredClasses())) {
            use(nested, calls);
        }
    }

    private static Class<?>[] sorted(Class<?>[] classes) {
        Arrays.sort(classes, Comparator.comparing(Class::getName));
        return classes;
    }

    private void constants(Class<?> type) {
        body.append("  int c")
                .append(names++)
                .append("(")
                .append(type.getCanonicalName())
                .append(" it) {\n    return switch (it) {\n");
        for (Object constant : type.getEnumConstants()) {
            body.append("      case ").append(((Enum<?>) constant).name()).append(" -> 1;\n");
        }
        body.append("    };\n  }\n");
    }

    private static String name(Type type) {
        return type.getTypeName().replace('$', '.');
    }

    private static List<Method> methods(Class<?> type) {
        return Arrays.stream(type.getMethods())
                .filter(method -> !method.isBridge() && !Modifier.isStatic(method.getModifiers()))
                .filter(method -> !method.getDeclaringClass().getName().matches("(java|org\\.protypos\\.runtime)\\..*"))
                .filter(method -> !method.getName().matches("equals|hashCode|toString"))
                .sorted(Comparator.comparing(Method::toGenericString))
                .toList();
    }

    private static String parameters(Method method) {
        List<String> all = new ArrayList<>();
        for (Type parameter : method.getGenericParameterTypes()) {
            all.add(name(parameter) + " a" + all.size());
        }
        return String.join(", ", all);
    }

    private static String arguments(Method method) {
        List<String> all = new ArrayList<>();
        for (int i = 0; i < method.getParameterCount(); i++) {
            all.add("a" + i);
        }
        return String.join(", ", all);
    }

    private void value(Class<?> type) {
        String name = type.getCanonicalName();
        boolean made = !Modifier.isAbstract(type.getModifiers())
                && Arrays.stream(type.getConstructors()).anyMatch(one -> one.getParameterCount() == 0);
        if (made) {
            body.append("  ")
                    .append(name)
                    .append(" m")
                    .append(names++)
                    .append(" = new ")
                    .append(name)
                    .append("();\n");
        }
        if (Throwable.class.isAssignableFrom(type)) {
            for (Constructor<?> constructor : type.getConstructors()) {
                if (constructor.getParameterTypes()[0] == String.class) {
                    body.append("  void t")
                            .append(names++)
                            .append("(")
                            .append(name(constructor.getGenericParameterTypes()[1]))
                            .append(" a) throws ")
                            .append(name)
                            .append(" { throw new ")
                            .append(name)
                            .append("(\"x\", a); }\n");
                }
            }
        }
        for (Method method : methods(type)) {
            String result = name(method.getGenericReturnType());
            String parameters = parameters(method);
            body.append("  void u")
                    .append(names++)
                    .append("(")
                    .append(name)
                    .append(" it")
                    .append(parameters.isEmpty() ? "" : ", " + parameters)
                    .append(") { ")
                    .append(result.equals("void") ? "" : result + " r = ")
                    .append("it.")
                    .append(method.getName())
                    .append("(")
                    .append(arguments(method))
                    .append("); }\n");
        }
        if (type.getSuperclass() != null && !type.getSuperclass().getName().startsWith("java.")) {
            body.append("  ")
                    .append(type.getSuperclass().getCanonicalName())
                    .append(" s")
                    .append(names++)
                    .append("(")
                    .append(name)
                    .append(" it) { return it; }\n");
        }
    }

    private void call(Class<?> type) {
        for (Method method : methods(type)) {
            String result = name(method.getGenericReturnType());
            String parameters = parameters(method);
            StringBuilder caught = new StringBuilder();
            for (Class<?> fault : method.getExceptionTypes()) {
                caught.append(" catch (").append(fault.getCanonicalName()).append(" e) { }");
            }
            String call = (result.equals("void") ? "" : result + " r = ") + "it." + method.getName() + "("
                    + arguments(method) + ");";
            body.append("  void o")
                    .append(names++)
                    .append("(")
                    .append(type.getCanonicalName())
                    .append(" it")
                    .append(parameters.isEmpty() ? "" : ", " + parameters)
                    .append(") { ")
                    .append(caught.isEmpty() ? call : "try { " + call + " }" + caught)
                    .append(" }\n");
        }
    }

    private void implement(Class<?> type) {
        body.append("  static class I")
                .append(names++)
                .append(" implements ")
                .append(type.getCanonicalName())
                .append(" {\n");
        for (Method method : methods(type)) {
            String faults = Arrays.stream(method.getExceptionTypes())
                    .map(Class::getCanonicalName)
                    .collect(Collectors.joining(", "));
            body.append("    @Override public ")
                    .append(name(method.getGenericReturnType()))
                    .append(' ')
                    .append(method.getName())
                    .append("(")
                    .append(parameters(method))
                    .append(")")
                    .append(faults.isEmpty() ? "" : " throws " + faults)
                    .append(" { throw new UnsupportedOperationException(); }\n");
        }
        body.append("  }\n");
    }

    private void record(Class<?> type, boolean calls) {
        String name = type.getCanonicalName();
        if (calls) {
            for (RecordComponent component : type.getRecordComponents()) {
                body.append("  ")
                        .append(name(component.getGenericType()))
                        .append(" r")
                        .append(names++)
                        .append("(")
                        .append(name)
                        .append(" it) { return it.")
                        .append(component.getName())
                        .append("(); }\n");
            }
            return;
        }
        List<String> parameters = new ArrayList<>();
        List<String> arguments = new ArrayList<>();
        for (RecordComponent component : type.getRecordComponents()) {
            parameters.add(name(component.getGenericType()) + " a" + parameters.size());
            arguments.add("a" + arguments.size());
        }
        body.append("  ")
                .append(name)
                .append(" n")
                .append(names++)
                .append("(")
                .append(String.join(", ", parameters))
                .append(") { return new ")
                .append(name)
                .append("(")
                .append(String.join(", ", arguments))
                .append("); }\n");
    }
}
