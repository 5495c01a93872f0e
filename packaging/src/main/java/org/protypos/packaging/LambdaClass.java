package org.protypos.packaging;

import java.util.ArrayList;
import java.util.List;
import org.objectweb.asm.ClassWriter;
import org.objectweb.asm.Handle;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;
import org.objectweb.asm.Type;
import org.objectweb.asm.tree.AbstractInsnNode;
import org.objectweb.asm.tree.ClassNode;
import org.objectweb.asm.tree.InvokeDynamicInsnNode;
import org.objectweb.asm.tree.MethodInsnNode;
import org.objectweb.asm.tree.MethodNode;

/**
 * A class that does what a lambda does: it keeps what the lambda captured, and calls the method that holds its body (the
 * contract of {@code java.lang.invoke.LambdaMetafactory.metafactory}).
 */
final class LambdaClass {
    private static final String OBJECT = "java/lang/Object";
    private static final String CONSTRUCTOR = "<init>";
    private static final String FACTORY = "of";
    private static final String INSTANCE = "INSTANCE";

    private final String name;
    private final ClassNode owner;
    private final InvokeDynamicInsnNode site;
    private final Type[] captured;
    private final Handle body;
    private final ClassWriter writer = new ClassWriter(ClassWriter.COMPUTE_MAXS);
    private final byte[] code;

    private LambdaClass(String name, ClassNode owner, InvokeDynamicInsnNode site) {
        this.name = name;
        this.owner = owner;
        this.site = site;
        captured = Type.getArgumentTypes(site.desc);
        body = (Handle) site.bsmArgs[1];
        code = written();
    }

    /**
     * Replaces the lambdas in the methods of a class by calls of classes of their own. Those that can be serialized, or
     * have more than one interface, stay.
     *
     * @return the classes
     */
    static List<LambdaClass> replaceIn(ClassNode owner) {
        List<LambdaClass> made = new ArrayList<>();
        for (MethodNode method : owner.methods) {
            for (AbstractInsnNode instruction : method.instructions.toArray()) {
                if (instruction instanceof InvokeDynamicInsnNode site && isPlain(site)) {
                    LambdaClass lambda = new LambdaClass(owner.name + "$$" + (made.size() + 1), owner, site);
                    method.instructions.set(
                            site, new MethodInsnNode(Opcodes.INVOKESTATIC, lambda.name, FACTORY, site.desc, false));
                    made.add(lambda);
                }
            }
        }
        return made;
    }

    private static boolean isPlain(InvokeDynamicInsnNode site) {
        return site.bsm.getOwner().equals("java/lang/invoke/LambdaMetafactory")
                && site.bsm.getName().equals("metafactory");
    }

    /** Its internal name. */
    String name() {
        return name;
    }

    /** The class file. */
    byte[] code() {
        return code;
    }

    private byte[] written() {
        writer.visit(
                owner.version,
                Opcodes.ACC_FINAL | Opcodes.ACC_SUPER | Opcodes.ACC_SYNTHETIC,
                name,
                null,
                OBJECT,
                new String[] {Type.getReturnType(site.desc).getInternalName()});
        // The body is private to the owner as a rule, and open to the members of its nest.
        writer.visitNestHost(owner.nestHostClass == null ? owner.name : owner.nestHostClass);
        constructor();
        factory();
        call();
        writer.visitEnd();
        return writer.toByteArray();
    }

    private String constructorType() {
        return Type.getMethodDescriptor(Type.VOID_TYPE, captured);
    }

    private void constructor() {
        MethodVisitor method = writer.visitMethod(Opcodes.ACC_PRIVATE, CONSTRUCTOR, constructorType(), null, null);
        method.visitCode();
        method.visitVarInsn(Opcodes.ALOAD, 0);
        method.visitMethodInsn(Opcodes.INVOKESPECIAL, OBJECT, CONSTRUCTOR, "()V", false);
        int local = 1;
        for (int i = 0; i < captured.length; i++) {
            String type = captured[i].getDescriptor();
            writer.visitField(Opcodes.ACC_PRIVATE | Opcodes.ACC_FINAL, field(i), type, null, null);
            method.visitVarInsn(Opcodes.ALOAD, 0);
            method.visitVarInsn(captured[i].getOpcode(Opcodes.ILOAD), local);
            method.visitFieldInsn(Opcodes.PUTFIELD, name, field(i), type);
            local += captured[i].getSize();
        }
        end(method, Opcodes.RETURN);
    }

    private static String field(int index) {
        return "captured" + index;
    }

    /** What the lambda's place calls now. One that captures nothing is always the same object, as before. */
    private void factory() {
        String self = Type.getObjectType(name).getDescriptor();
        if (captured.length == 0) {
            int access = Opcodes.ACC_PRIVATE | Opcodes.ACC_STATIC | Opcodes.ACC_FINAL;
            writer.visitField(access, INSTANCE, self, null, null);
            MethodVisitor first = writer.visitMethod(Opcodes.ACC_STATIC, "<clinit>", "()V", null, null);
            first.visitCode();
            create(first);
            first.visitFieldInsn(Opcodes.PUTSTATIC, name, INSTANCE, self);
            end(first, Opcodes.RETURN);
        }
        MethodVisitor method = writer.visitMethod(Opcodes.ACC_STATIC, FACTORY, site.desc, null, null);
        method.visitCode();
        if (captured.length == 0) {
            method.visitFieldInsn(Opcodes.GETSTATIC, name, INSTANCE, self);
        } else {
            create(method);
        }
        end(method, Opcodes.ARETURN);
    }

    private void create(MethodVisitor method) {
        method.visitTypeInsn(Opcodes.NEW, name);
        method.visitInsn(Opcodes.DUP);
        int local = 0;
        for (Type type : captured) {
            method.visitVarInsn(type.getOpcode(Opcodes.ILOAD), local);
            local += type.getSize();
        }
        method.visitMethodInsn(Opcodes.INVOKESPECIAL, name, CONSTRUCTOR, constructorType(), false);
    }

    private void call() {
        Type erased = (Type) site.bsmArgs[0];
        Type actual = (Type) site.bsmArgs[2];
        MethodVisitor method = writer.visitMethod(Opcodes.ACC_PUBLIC, site.name, erased.getDescriptor(), null, null);
        method.visitCode();
        Conversion conversion = new Conversion(method);
        boolean creates = body.getTag() == Opcodes.H_NEWINVOKESPECIAL;
        if (creates) {
            method.visitTypeInsn(Opcodes.NEW, body.getOwner());
            method.visitInsn(Opcodes.DUP);
        }
        List<Type> taken = new ArrayList<>(List.of(Type.getArgumentTypes(body.getDesc())));
        if (!creates && body.getTag() != Opcodes.H_INVOKESTATIC) {
            taken.add(0, Type.getObjectType(body.getOwner()));
        }
        for (int i = 0; i < captured.length; i++) {
            method.visitVarInsn(Opcodes.ALOAD, 0);
            method.visitFieldInsn(Opcodes.GETFIELD, name, field(i), captured[i].getDescriptor());
            conversion.convert(captured[i], captured[i], taken.get(i));
        }
        Type[] given = erased.getArgumentTypes();
        int local = 1;
        for (int i = 0; i < given.length; i++) {
            method.visitVarInsn(given[i].getOpcode(Opcodes.ILOAD), local);
            conversion.convert(given[i], actual.getArgumentTypes()[i], taken.get(captured.length + i));
            local += given[i].getSize();
        }
        method.visitMethodInsn(opcode(), body.getOwner(), body.getName(), body.getDesc(), body.isInterface());
        Type got = creates ? Type.getObjectType(body.getOwner()) : Type.getReturnType(body.getDesc());
        conversion.answer(got, erased.getReturnType());
        end(method, erased.getReturnType().getOpcode(Opcodes.IRETURN));
    }

    private int opcode() {
        return switch (body.getTag()) {
            case Opcodes.H_INVOKESTATIC -> Opcodes.INVOKESTATIC;
            case Opcodes.H_NEWINVOKESPECIAL -> Opcodes.INVOKESPECIAL;
            default -> body.isInterface() ? Opcodes.INVOKEINTERFACE : Opcodes.INVOKEVIRTUAL;
        };
    }

    private static void end(MethodVisitor method, int instruction) {
        method.visitInsn(instruction);
        method.visitMaxs(0, 0);
        method.visitEnd();
    }
}
