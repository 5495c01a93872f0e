package org.protypos.message.check;

import java.util.ArrayList;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.message.model.ContentModel;
import org.protypos.message.model.Leaf;
import org.protypos.message.model.TypeModel;
import org.protypos.message.tree.MessageElement;

/**
 * What may come next in an element, and what is to be said of something else that comes.
 *
 * @param around the element
 * @param type its type
 * @param model what is to come of its content
 */
record Expectation(MessageElement around, TypeModel type, ContentModel model) {
    private static final int SHOWN = 8;

    /** What may come, in words. */
    String text() {
        List<String> words = new ArrayList<>();
        for (Leaf leaf : ContentModel.next(model)) {
            if (!words.contains(leaf.expected())) {
                words.add(leaf.expected());
            }
        }
        if (words.size() > SHOWN) {
            int more = words.size() - SHOWN;
            words = new ArrayList<>(words.subList(0, SHOWN));
            words.add(more + " others");
        }
        if (model.isComplete()) {
            words.add("the end of the element");
        }
        return words.size() < 2
                ? String.join("", words)
                : String.join(", ", words.subList(0, words.size() - 1)) + " or " + words.get(words.size() - 1);
    }

    /** Where the contract says so; null where nothing may come. */
    Place place() {
        List<Leaf> next = ContentModel.next(model);
        return next.isEmpty() ? null : next.get(0).place();
    }

    /** That what would have to come next may be absent. */
    Deviation.Cause missing() {
        return model.demanded() instanceof Leaf.Element element
                ? new Deviation.Cause(
                        Deviation.Lack.MISSING, around, element.declaration().name(), null, null)
                : null;
    }

    /** Why an element is not what may come. */
    String why(MessageElement child) {
        String name = "<" + child.name().getLocalPart() + ">";
        String place = "<" + around.name().getLocalPart() + ">";
        if (namesake(child) != null) {
            return name + " is of " + space(child.name()) + ", not of the one that the contract gives it";
        }
        if (model.skipTo(child.name()) != null) {
            return name + " comes too early in " + place;
        }
        if (ContentModel.anywhere(type.content(), child.name()) != null) {
            return name + " comes too late in " + place + ", or once too often";
        }
        return place + " may not hold " + name
                + NearestName.of(child.name().getLocalPart(), ContentModel.names(type.content()))
                        .map(nearest -> "; perhaps <" + nearest + "> is meant")
                        .orElse(child.name().getNamespaceURI().isEmpty() ? "" : " of " + space(child.name()));
    }

    /** What the contract would have to say otherwise for an element to be what may come; null where that cannot be told. */
    Deviation.Cause cause(MessageElement child) {
        Leaf.Element namesake = namesake(child);
        if (namesake != null) {
            return new Deviation.Cause(
                    Deviation.Lack.NAMESPACE, around, namesake.declaration().name(), child, null);
        }
        if (model.skipTo(child.name()) != null) {
            return missing();
        }
        if (!(ContentModel.anywhere(type.content(), child.name()) instanceof Leaf.Element known)) {
            return new Deviation.Cause(Deviation.Lack.UNKNOWN, around, child.name(), child, null);
        }
        List<MessageElement> siblings = around.children();
        int at = siblings.indexOf(child);
        return at > 0 && siblings.get(at - 1).name().equals(child.name())
                ? new Deviation.Cause(
                        Deviation.Lack.REPEATED, around, known.declaration().name(), child, null)
                : null;
    }

    /** The element that may come and differs from one that came by its namespace alone, or null. */
    private Leaf.Element namesake(MessageElement child) {
        for (Leaf leaf : ContentModel.next(model)) {
            if (leaf instanceof Leaf.Element wanted
                    && wanted.declaration()
                            .name()
                            .getLocalPart()
                            .equals(child.name().getLocalPart())
                    && !wanted.accepts(child.name())) {
                return wanted;
            }
        }
        return null;
    }

    /** A namespace, in words. */
    static String space(QName name) {
        return name.getNamespaceURI().isEmpty() ? "no namespace" : "namespace " + name.getNamespaceURI();
    }
}
