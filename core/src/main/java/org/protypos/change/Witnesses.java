package org.protypos.change;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.message.check.Deviation;
import org.protypos.message.inclusion.Gap;
import org.protypos.message.inclusion.Root;
import org.protypos.message.sample.Outline;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.wire.WireMessage;

/** Makes messages that one contract allows and another refuses, and makes sure that this is so. */
final class Witnesses {
    private final WireSide one;
    private final WireSide other;
    private final Namespaces namespaces;
    private final boolean forth;

    /**
     * Makes messages of one contract that another refuses.
     *
     * @param forth whether the one is the old contract
     */
    Witnesses(WireSide one, WireSide other, Namespaces namespaces, boolean forth) {
        this.one = one;
        this.other = other;
        this.namespaces = namespaces;
        this.forth = forth;
    }

    WireSide one() {
        return one;
    }

    WireSide other() {
        return other;
    }

    boolean isForth() {
        return forth;
    }

    /** The evidence for a gap, or null when it turns out that there is none. */
    Evidence of(Gap gap, Reader reader) {
        WireChange.Place place = (WireChange.Place) gap.root().of();
        WireMessage carried = place.carried();
        if (gap.outline() == null) {
            String why = gap.kind() == Gap.Kind.UNDECIDED
                    ? "whether such a message is refused cannot be decided"
                    : gap.clues().get(0).facts().contains("occurs")
                            ? "it would be too long"
                            : "what binds values to each other is compared as it is written";
            return unshown(gap, reader, why);
        }
        String unjudged = carried == null ? null : unjudged(carried);
        if (unjudged != null) {
            return unshown(gap, reader, unjudged);
        }
        boolean alone = carried == null && one.element(gap.root().name()) == null;
        if (alone) {
            return unshown(gap, reader, "no element has the type as it is");
        }
        Made made = made(samples -> carried == null
                ? samples.element(gap.root().name(), gap.outline().get())
                : samples.message(carried, place.part(), gap.outline().get()));
        return judged(made, gap, reader, place.message());
    }

    /**
     * A message with what the contract that it is of says against it.
     *
     * @param own empty when it is valid
     */
    private record Made(MessageElement message, List<Deviation> own) {
        String noneFound() {
            return "no message was found that is valid otherwise: " + own.get(0).came();
        }
    }

    /** As little as may be, or all that may be, where only that is valid: what is referred to may be optional. */
    private Made made(Function<Samples, MessageElement> build) {
        Made little = checked(build.apply(one.samples()));
        return little.own().isEmpty() ? little : checked(build.apply(one.fullSamples()));
    }

    private Made checked(MessageElement message) {
        return new Made(message, one.deviations(message));
    }

    private Evidence unshown(Gap gap, Reader reader, String why) {
        String message = ((WireChange.Place) gap.root().of()).message();
        return new Evidence(reader, forth, null, message, gap.words(), null, why, null);
    }

    private Evidence judged(Made made, Gap gap, Reader reader, String message) {
        if (!made.own().isEmpty()) {
            return unshown(gap, reader, made.noneFound());
        }
        String text = MessageText.of(made.message());
        List<Deviation> theirs = theirs(made.message(), text);
        if (gap.kind() == Gap.Kind.MEANS_ELSE) {
            return new Evidence(reader, forth, text, message, gap.words(), null, gap.words(), null);
        }
        if (theirs.isEmpty()) {
            return null;
        }
        Deviation first = theirs.get(0);
        return new Evidence(reader, forth, text, message, gap.words(), first.path(), first.came(), first.contract());
    }

    /** A message of an element that the other contract does not have. */
    Evidence gone(QName name, Reader reader) {
        Made made = made(samples -> samples.element(name, Outline.FREE));
        return refused(made, name, name.toString(), reader);
    }

    /** A message that the other contract has under another name. */
    Evidence begunOtherwise(Root root, Reader reader) {
        WireChange.Place place = (WireChange.Place) root.of();
        WireMessage carried = place.carried();
        String why = unjudged(carried);
        if (why != null) {
            String words = "<" + root.name().getLocalPart() + ">";
            return new Evidence(reader, forth, null, place.message(), words, null, why, null);
        }
        Made made = made(samples -> samples.message(carried, place.part(), Outline.FREE));
        return refused(made, root.name(), place.message(), reader);
    }

    /** Why a message that is carried so is not held against the other contract, or null. */
    private static String unjudged(WireMessage carried) {
        return carried.isEncoded()
                ? "an encoded message is not judged by a schema"
                : carried.isSoap() ? null : "the message is not in XML";
    }

    private Evidence refused(Made made, QName name, String of, Reader reader) {
        String words = "<" + name.getLocalPart() + ">";
        if (!made.own().isEmpty()) {
            return new Evidence(reader, forth, null, of, words, null, made.noneFound(), null);
        }
        String text = MessageText.of(made.message());
        List<Deviation> theirs = theirs(made.message(), text);
        Deviation first = theirs.isEmpty() ? null : theirs.get(0);
        return new Evidence(
                reader,
                forth,
                text,
                of,
                words,
                first == null ? null : first.path(),
                first == null ? "it is not declared" : first.came(),
                null);
    }

    /** What the other contract says of a message, in the words that it has for namespaces. */
    private List<Deviation> theirs(MessageElement made, String text) {
        return other.deviations(
                namespaces.renamed().isEmpty() ? made : MessageReader.read("witness", translated(text)));
    }

    /** A message with the names of namespaces that the other contract has. */
    private String translated(String text) {
        String changed = text;
        for (Map.Entry<String, String> renamed : namespaces.renamed().entrySet()) {
            String from = forth ? renamed.getValue() : renamed.getKey();
            String to = forth ? renamed.getKey() : renamed.getValue();
            changed = changed.replace("=\"" + from + "\"", "=\"" + to + "\"");
        }
        return changed;
    }
}
