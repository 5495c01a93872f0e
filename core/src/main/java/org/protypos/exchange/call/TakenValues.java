package org.protypos.exchange.call;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.Term;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WirePart;

/** Lists the values that a message takes, by the names that {@link Arguments} have for them. */
public final class TakenValues {
    private static final int DEEPEST = 6;
    private static final int MOST = 60;

    /**
     * One value.
     *
     * @param name its path: {@code vessel.name}, {@code need[0]}, {@code vessel.@callSign}; empty for a message that is one value
     * @param required whether it must be there, as far as that does not depend on others
     * @param is what it may be
     */
    public record Taken(String name, boolean required, String is) {}

    private final Vocabulary vocabulary;
    private final List<Taken> taken = new ArrayList<>();
    private final Set<TypeModel> around = new HashSet<>();

    private TakenValues(Vocabulary vocabulary) {
        this.vocabulary = vocabulary;
    }

    /** The values of a message, those of its header blocks last; of a message with very many the first. */
    public static List<Taken> of(WireMessage message, Vocabulary vocabulary) {
        TakenValues values = new TakenValues(vocabulary);
        if (isOne(message)) {
            values.content("", vocabulary.type(message.parts().get(0).type()), true, 0);
        } else {
            for (WirePart part : message.parts()) {
                values.element(part.element().getLocalPart(), vocabulary.type(part.type()), 1, 1, true, 0);
            }
        }
        for (WirePart block : message.blocks()) {
            values.element("#header." + block.element().getLocalPart(), vocabulary.type(block.type()), 0, 1, false, 0);
        }
        Map<String, Taken> byName = new LinkedHashMap<>();
        values.taken.forEach(one -> byName.putIfAbsent(one.name(), one));
        if (values.taken.size() >= MOST) {
            byName.put("…", new Taken("…", false, "and more"));
        }
        return List.copyOf(byName.values());
    }

    /** Whether the values of a message are those in its one element. */
    static boolean isOne(WireMessage message) {
        return !message.isWrapped() && message.parts().size() == 1;
    }

    /** What must stand in an element and may not be left out: the names below it, as the contract has them in order. */
    static List<String> required(TypeModel type, Vocabulary vocabulary) {
        TakenValues values = new TakenValues(vocabulary);
        List<String> names = new ArrayList<>();
        for (Particle particle : type.particles()) {
            values.required(particle, type, names);
        }
        return names;
    }

    private void required(Particle particle, TypeModel type, List<String> names) {
        if (particle.least() == 0 || particle.most() == 0) {
            return;
        }
        if (particle.term() instanceof ElementDeclaration element) {
            names.add(vocabulary.key(type, element.name()));
        } else if (particle.term() instanceof ElementReference reference
                && vocabulary.substitutes(vocabulary.element(reference.name())).size() == 1) {
            names.add(vocabulary.key(type, reference.name()));
        } else if (group(particle.term()) != null
                && group(particle.term()).compositor() != ModelGroup.Compositor.CHOICE) {
            group(particle.term()).particles().forEach(inner -> required(inner, type, names));
        }
    }

    private ModelGroup group(Term term) {
        return term instanceof GroupReference reference
                ? vocabulary.schema().groups().get(reference.name()).group()
                : term instanceof ModelGroup group ? group : null;
    }

    private void element(String name, TypeModel type, int least, int most, boolean needed, int depth) {
        String path = most > 1 ? name + "[0]" : name;
        content(path, type, needed && least > 0, depth);
    }

    /** What stands in an element: its text, its attributes, its elements. */
    private void content(String path, TypeModel type, boolean needed, int depth) {
        if (taken.size() >= MOST) {
            return;
        }
        if (type.isAnything()) {
            taken.add(new Taken(path, needed, "anything"));
            return;
        }
        if (depth > DEEPEST || !around.add(type)) {
            taken.add(new Taken(path, needed, "and so on"));
            return;
        }
        if (type.isAbstract()) {
            taken.add(new Taken(
                    below(path, "@xsi:type"),
                    needed,
                    listed(vocabulary.standIns(type).keySet())));
        }
        boolean bare = type.attributes().isEmpty() && type.particles().isEmpty();
        if (type.text() != null) {
            taken.add(new Taken(path, needed, ValueField.words(vocabulary.schema(), type.definition())));
        } else if (bare && !path.isEmpty()) {
            taken.add(new Taken(path, needed, "nothing: {}"));
        }
        for (TypeModel.Attribute attribute : type.attributes().values()) {
            String key = attribute.name().getNamespaceURI().isEmpty()
                    ? attribute.name().getLocalPart()
                    : attribute.name().toString();
            taken.add(new Taken(
                    below(path, "@" + key),
                    needed && attribute.required(),
                    ValueField.words(vocabulary.schema(), attribute.type())));
        }
        for (Particle particle : type.particles()) {
            particle(path, type, particle, 1, needed, depth);
        }
        around.remove(type);
    }

    private void particle(String path, TypeModel type, Particle particle, int most, boolean needed, int depth) {
        int often = particle.most() > 1 || most > 1 ? Particle.UNBOUNDED : particle.most();
        if (often == 0) {
            return;
        }
        boolean must = needed && particle.least() > 0;
        if (particle.term() instanceof ElementDeclaration element) {
            element(
                    below(path, vocabulary.key(type, element.name())),
                    vocabulary.typeOf(element),
                    1,
                    often,
                    must,
                    depth + 1);
        } else if (particle.term() instanceof ElementReference reference) {
            Set<QName> names = vocabulary.substitutes(vocabulary.element(reference.name()));
            for (QName name : names) {
                element(
                        below(path, vocabulary.key(type, name)),
                        vocabulary.typeOf(vocabulary.element(name)),
                        1,
                        often,
                        must && names.size() == 1,
                        depth + 1);
            }
        } else if (group(particle.term()) != null) {
            ModelGroup group = group(particle.term());
            boolean choice = group.compositor() == ModelGroup.Compositor.CHOICE;
            group.particles().forEach(inner -> particle(path, type, inner, often, must && !choice, depth));
        } else {
            taken.add(new Taken(below(path, "…"), false, "what the contract leaves open"));
        }
    }

    static String below(String path, String name) {
        return path.isEmpty() ? name : path + "." + name;
    }

    /** Names as a person lists them. */
    static String listed(Iterable<String> names) {
        List<String> all = new ArrayList<>();
        names.forEach(all::add);
        return all.size() < 2
                ? String.join("", all)
                : String.join(", ", all.subList(0, all.size() - 1)) + " or " + all.get(all.size() - 1);
    }
}
