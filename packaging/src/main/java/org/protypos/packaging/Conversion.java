package org.protypos.packaging;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;
import org.objectweb.asm.Type;

/**
 * Converts what lies on the stack between the types of an interface's method and those of the method that is called: casts,
 * boxing, unboxing and widening, as {@code java.lang.invoke.MethodHandle.asType} says.
 */
record Conversion(MethodVisitor method) {
    private static final String OBJECT = "java/lang/Object";
    private static final Map<Type, String> WRAPPERS = Map.of(
            Type.BOOLEAN_TYPE, "java/lang/Boolean",
            Type.CHAR_TYPE, "java/lang/Character",
            Type.BYTE_TYPE, "java/lang/Byte",
            Type.SHORT_TYPE, "java/lang/Short",
            Type.INT_TYPE, "java/lang/Integer",
            Type.LONG_TYPE, "java/lang/Long",
            Type.FLOAT_TYPE, "java/lang/Float",
            Type.DOUBLE_TYPE, "java/lang/Double");
    /** The types that widen to others by an instruction, and those they widen to; smaller ones are ints on the stack. */
    private static final List<Type> WIDENING =
            List.of(Type.INT_TYPE, Type.LONG_TYPE, Type.FLOAT_TYPE, Type.DOUBLE_TYPE);

    private static final int[][] INSTRUCTIONS = {
        {Opcodes.NOP, Opcodes.I2L, Opcodes.I2F, Opcodes.I2D},
        {Opcodes.NOP, Opcodes.NOP, Opcodes.L2F, Opcodes.L2D},
        {Opcodes.NOP, Opcodes.NOP, Opcodes.NOP, Opcodes.F2D}
    };

    /** Converts an argument: of a declared type, which is known to be of another one in this place. */
    void convert(Type declared, Type known, Type wanted) {
        if (isPrimitive(declared)) {
            if (isPrimitive(wanted)) {
                widen(declared, wanted);
            } else {
                box(declared);
            }
        } else if (isPrimitive(wanted)) {
            unbox(known, wanted);
        } else if (!wanted.equals(declared)) {
            cast(wanted);
        }
    }

    /** Converts what a method gave into what is to be given. */
    void answer(Type got, Type wanted) {
        if (wanted.equals(Type.VOID_TYPE)) {
            if (got.getSize() > 0) {
                method.visitInsn(got.getSize() == 1 ? Opcodes.POP : Opcodes.POP2);
            }
            return;
        }
        convert(got, got, wanted);
    }

    private static boolean isPrimitive(Type type) {
        return WRAPPERS.containsKey(type);
    }

    private void cast(Type wanted) {
        if (!wanted.getInternalName().equals(OBJECT)) {
            method.visitTypeInsn(Opcodes.CHECKCAST, wanted.getInternalName());
        }
    }

    private void box(Type primitive) {
        Type wrapper = Type.getObjectType(WRAPPERS.get(primitive));
        method.visitMethodInsn(
                Opcodes.INVOKESTATIC,
                wrapper.getInternalName(),
                "valueOf",
                Type.getMethodDescriptor(wrapper, primitive),
                false);
    }

    /** What is known to be of a wrapper's type is unboxed and widened; anything else, since generic, is what is wanted. */
    private void unbox(Type known, Type wanted) {
        Optional<Type> boxed = WRAPPERS.entrySet().stream()
                .filter(entry -> entry.getValue().equals(known.getInternalName()))
                .map(Map.Entry::getKey)
                .findFirst();
        String holder = boxed.isPresent() || wanted.equals(Type.BOOLEAN_TYPE) || wanted.equals(Type.CHAR_TYPE)
                ? WRAPPERS.get(boxed.orElse(wanted))
                : "java/lang/Number";
        Type primitive = boxed.orElse(wanted);
        cast(Type.getObjectType(holder));
        method.visitMethodInsn(
                Opcodes.INVOKEVIRTUAL,
                holder,
                primitive.getClassName() + "Value",
                Type.getMethodDescriptor(primitive),
                false);
        widen(primitive, wanted);
    }

    private void widen(Type from, Type to) {
        int target = WIDENING.indexOf(to);
        int source = Math.max(0, WIDENING.indexOf(from));
        if (target > source) {
            method.visitInsn(INSTRUCTIONS[source][target]);
        }
    }
}
