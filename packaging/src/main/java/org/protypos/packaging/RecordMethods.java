package org.protypos.packaging;

import java.util.ArrayList;
import java.util.List;
import org.objectweb.asm.Handle;
import org.objectweb.asm.Opcodes;
import org.objectweb.asm.Type;
import org.objectweb.asm.tree.AbstractInsnNode;
import org.objectweb.asm.tree.ClassNode;
import org.objectweb.asm.tree.FieldInsnNode;
import org.objectweb.asm.tree.FrameNode;
import org.objectweb.asm.tree.InsnList;
import org.objectweb.asm.tree.InsnNode;
import org.objectweb.asm.tree.IntInsnNode;
import org.objectweb.asm.tree.InvokeDynamicInsnNode;
import org.objectweb.asm.tree.JumpInsnNode;
import org.objectweb.asm.tree.LabelNode;
import org.objectweb.asm.tree.MethodInsnNode;
import org.objectweb.asm.tree.MethodNode;
import org.objectweb.asm.tree.TypeInsnNode;
import org.objectweb.asm.tree.VarInsnNode;

/**
 * Writes out how records compare and hash (the contract of {@code java.lang.runtime.ObjectMethods.bootstrap}): linked at run
 * time, the first of each record costs as much as twenty classes. What a record looks like as text stays as it is.
 */
final class RecordMethods {
    private static final String OBJECTS = "java/util/Objects";

    /** Two values of the largest kind, and what they are compared or joined with. */
    private static final int STACK = 6;

    private final String owner;
    private final List<Handle> components;
    private final InsnList code = new InsnList();

    private RecordMethods(String owner, List<Handle> components) {
        this.owner = owner;
        this.components = components;
    }

    /**
     * Writes out the methods of a class, if it is a record that leaves them to the platform.
     *
     * @return how many
     */
    static int writeIn(ClassNode owner) {
        int written = 0;
        for (MethodNode method : owner.methods) {
            InvokeDynamicInsnNode site = site(method);
            if (site == null || site.name.equals("toString")) {
                continue;
            }
            List<Handle> components = new ArrayList<>();
            for (int i = 2; i < site.bsmArgs.length; i++) {
                components.add((Handle) site.bsmArgs[i]);
            }
            RecordMethods methods = new RecordMethods(owner.name, components);
            if (site.name.equals("equals")) {
                methods.equality();
            } else {
                methods.hash();
            }
            method.instructions = methods.code;
            method.localVariables = null;
            method.maxStack = STACK;
            written++;
        }
        return written;
    }

    private static InvokeDynamicInsnNode site(MethodNode method) {
        for (AbstractInsnNode instruction : method.instructions) {
            if (instruction instanceof InvokeDynamicInsnNode site
                    && site.bsm.getOwner().equals("java/lang/runtime/ObjectMethods")) {
                return site;
            }
        }
        return null;
    }

    private void hash() {
        code.add(new InsnNode(Opcodes.ICONST_0));
        for (Handle component : components) {
            code.add(new IntInsnNode(Opcodes.BIPUSH, 31));
            code.add(new InsnNode(Opcodes.IMUL));
            Type type = load(component, 0);
            boolean reference = type.getSort() >= Type.ARRAY;
            call(
                    reference ? OBJECTS : wrapper(type),
                    "hashCode",
                    Type.getMethodDescriptor(Type.INT_TYPE, reference ? Type.getType(Object.class) : type));
            code.add(new InsnNode(Opcodes.IADD));
        }
        code.add(new InsnNode(Opcodes.IRETURN));
    }

    private void equality() {
        LabelNode other = new LabelNode();
        LabelNode unequal = new LabelNode();
        code.add(new VarInsnNode(Opcodes.ALOAD, 0));
        code.add(new VarInsnNode(Opcodes.ALOAD, 1));
        code.add(new JumpInsnNode(Opcodes.IF_ACMPNE, other));
        answer(true);
        code.add(other);
        code.add(new FrameNode(Opcodes.F_SAME, 0, null, 0, null));
        code.add(new VarInsnNode(Opcodes.ALOAD, 1));
        code.add(new TypeInsnNode(Opcodes.INSTANCEOF, owner));
        code.add(new JumpInsnNode(Opcodes.IFEQ, unequal));
        for (Handle component : components) {
            load(component, 0);
            Type type = load(component, 1);
            compare(type, unequal);
        }
        answer(true);
        code.add(unequal);
        code.add(new FrameNode(Opcodes.F_SAME, 0, null, 0, null));
        answer(false);
    }

    private void compare(Type type, LabelNode unequal) {
        switch (type.getSort()) {
            case Type.FLOAT, Type.DOUBLE -> {
                call(wrapper(type), "compare", Type.getMethodDescriptor(Type.INT_TYPE, type, type));
                code.add(new JumpInsnNode(Opcodes.IFNE, unequal));
            }
            case Type.LONG -> {
                code.add(new InsnNode(Opcodes.LCMP));
                code.add(new JumpInsnNode(Opcodes.IFNE, unequal));
            }
            case Type.ARRAY, Type.OBJECT -> {
                call(OBJECTS, "equals", "(Ljava/lang/Object;Ljava/lang/Object;)Z");
                code.add(new JumpInsnNode(Opcodes.IFEQ, unequal));
            }
            default -> code.add(new JumpInsnNode(Opcodes.IF_ICMPNE, unequal));
        }
    }

    /** Puts a component of this record or of the other one on the stack; gives its type. */
    private Type load(Handle component, int record) {
        code.add(new VarInsnNode(Opcodes.ALOAD, record));
        if (record > 0) {
            code.add(new TypeInsnNode(Opcodes.CHECKCAST, owner));
        }
        code.add(new FieldInsnNode(Opcodes.GETFIELD, component.getOwner(), component.getName(), component.getDesc()));
        return Type.getType(component.getDesc());
    }

    private void answer(boolean value) {
        code.add(new InsnNode(value ? Opcodes.ICONST_1 : Opcodes.ICONST_0));
        code.add(new InsnNode(Opcodes.IRETURN));
    }

    private void call(String type, String name, String descriptor) {
        code.add(new MethodInsnNode(Opcodes.INVOKESTATIC, type, name, descriptor, false));
    }

    private static String wrapper(Type primitive) {
        return switch (primitive.getSort()) {
            case Type.BOOLEAN -> "java/lang/Boolean";
            case Type.CHAR -> "java/lang/Character";
            case Type.BYTE -> "java/lang/Byte";
            case Type.SHORT -> "java/lang/Short";
            case Type.LONG -> "java/lang/Long";
            case Type.FLOAT -> "java/lang/Float";
            case Type.DOUBLE -> "java/lang/Double";
            default -> "java/lang/Integer";
        };
    }
}
