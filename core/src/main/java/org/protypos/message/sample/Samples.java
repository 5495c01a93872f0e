package org.protypos.message.sample;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.message.check.EncodedForm;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.MessageChecker;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageText;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.ElementDeclaration;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WirePart;

/** Makes up messages that are valid against a contract. The door of this package. */
public final class Samples {
    private final Contract contract;
    private final Vocabulary vocabulary;
    private final MinimalDepth depths;
    private final MessageChecker checker;
    private final boolean full;
    private boolean cut;

    /**
     * Makes samples for a contract.
     *
     * @param contract a sound contract
     * @param full whether optional parts are shown, each at least once, rather than left out
     */
    public Samples(Contract contract, Vocabulary vocabulary, boolean full) {
        this.contract = contract;
        this.vocabulary = vocabulary;
        this.depths = new MinimalDepth(vocabulary);
        this.checker = new MessageChecker(vocabulary);
        this.full = full;
    }

    private SampleBuilder builder(boolean generous) {
        return new SampleBuilder(vocabulary, depths, new Prefixes(contract.documents()), generous);
    }

    private MessageElement finished(SampleBuilder builder, MessageElement root) {
        cut |= builder.isCut();
        return builder.finish(root);
    }

    /**
     * Whether a message that was made lacks something that must be there: more than 50,000 elements, or more than 100,000
     * characters of a value.
     */
    public boolean isCut() {
        return cut;
    }

    /**
     * The global elements that can stand in a message: all but the abstract ones and those for which the contract lets
     * no content be complete.
     */
    public List<QName> elements() {
        List<QName> names = new ArrayList<>();
        for (ElementDeclaration element : vocabulary.schema().elements().values()) {
            if (!element.isAbstract() && depths.of(element) < MinimalDepth.ENDLESS) {
                names.add(element.name());
            }
        }
        return names;
    }

    /** A document with a global element as its root. */
    public String element(QName name) {
        ElementDeclaration declaration = vocabulary.element(name);
        return valid(
                generous -> {
                    SampleBuilder builder = builder(generous);
                    return finished(builder, builder.element(declaration));
                },
                List::of);
    }

    /** An element of some name with content of a type. */
    public MessageElement element(QName name, TypeModel type) {
        SampleBuilder builder = builder(full);
        return finished(builder, builder.element(name, type, Outline.FREE));
    }

    /** A document with a global element as its root, as outlined; the rest is as little as may be. */
    public MessageElement element(QName name, Outline outline) {
        SampleBuilder builder = builder(full);
        return finished(builder, builder.element(vocabulary.element(name), outline));
    }

    /** An element of some name with content of a type, as outlined. */
    public MessageElement element(QName name, TypeModel type, Outline outline) {
        SampleBuilder builder = builder(full);
        return finished(builder, builder.element(name, type, outline));
    }

    /** Whether some element of a type can be complete. */
    public boolean isPossible(TypeModel type) {
        return depths.of(type) < MinimalDepth.ENDLESS;
    }

    /**
     * The parts of a message, header blocks among them, that nothing can be whole: what is abstract and has nothing that may stand in its
     * place, or has to hold another of its kind without end.
     */
    public List<WirePart> impossible(WireMessage carried) {
        return Stream.concat(carried.blocks().stream(), carried.parts().stream())
                .filter(part -> part.isGlobal()
                        ? vocabulary.substitutes(vocabulary.element(part.element())).stream()
                                .allMatch(name -> depths.of(vocabulary.element(name)) >= MinimalDepth.ENDLESS)
                        : part.type() != null && !isPossible(vocabulary.type(part.type())))
                .toList();
    }

    /** How deep the shallowest content of a type is. */
    public int depth(TypeModel type) {
        return depths.of(type);
    }

    /** Some values that a rule probably allows. */
    public List<String> values(ValueRule rule, int count) {
        SampleValues values = builder(full).values();
        return IntStream.range(0, count)
                .mapToObj(variant -> values.value(rule, "value", variant))
                .distinct()
                .toList();
    }

    /**
     * Some messages can only be complete with optional parts, because references must lead to something; others only
     * without them. What is wanted is given unless only the other is valid.
     */
    private String valid(
            Function<Boolean, MessageElement> build, Function<MessageElement, List<MessageElement>> checked) {
        MessageElement wanted = build.apply(full);
        if (!areValid(checked.apply(wanted))) {
            MessageElement other = build.apply(!full);
            wanted = areValid(checked.apply(other)) ? other : wanted;
        }
        return MessageText.of(wanted);
    }

    /** Whether all of some elements are valid of which the contract says what they are. */
    private boolean areValid(List<MessageElement> elements) {
        return elements.stream()
                .allMatch(element -> vocabulary.element(element.name()) == null
                        || checker.check(element).deviations().isEmpty());
    }

    /** A message of an operation, in an envelope if it travels in one. */
    public String message(WireMessage carried) {
        return valid(generous -> message(builder(generous), carried, null, Outline.FREE), message -> Stream.concat(
                        EnvelopeParts.header(message, carried).stream(), EnvelopeParts.body(message, carried).stream())
                .toList());
    }

    /**
     * Likewise, one part of it as outlined.
     *
     * @param outlined the part in the body or the header block that is outlined, or null
     */
    public MessageElement message(WireMessage carried, WirePart outlined, Outline outline) {
        return message(builder(full), carried, outlined, outline);
    }

    private MessageElement message(SampleBuilder builder, WireMessage carried, WirePart outlined, Outline outline) {
        if (!carried.isSoap()) {
            return finished(builder, plain(builder, carried, outlined, outline));
        }
        String soap = EnvelopeParts.namespace(carried.protocol());
        MessageElement envelope = new MessageElement(new QName(soap, "Envelope"), null);
        MessageElement header = new MessageElement(new QName(soap, "Header"), null);
        carried.blocks().forEach(block -> header.add(part(builder, block, block == outlined ? outline : Outline.FREE)));
        if (!header.content().isEmpty()) {
            envelope.add(header);
        }
        MessageElement body = new MessageElement(new QName(soap, "Body"), null);
        envelope.add(body);
        MessageElement around = body;
        if (carried.isWrapped()) {
            around = new MessageElement(carried.wrapper(), null);
            body.add(around);
        }
        boolean bare = carried.isOfType();
        for (WirePart part : carried.parts()) {
            MessageElement element = part(builder, part, part == outlined ? outline : Outline.FREE);
            if (bare) {
                // The body itself is of the type of its only part (WSDL 1.1, section 3.5).
                element.children().forEach(body::add);
            } else {
                around.add(element);
            }
        }
        MessageElement made = finished(builder, envelope);
        EncodedForm.mark(made, carried, vocabulary);
        return made;
    }

    private MessageElement plain(SampleBuilder builder, WireMessage carried, WirePart outlined, Outline outline) {
        if (!carried.isWrapped()) {
            WirePart only = carried.parts().get(0);
            return part(builder, only, only == outlined ? outline : Outline.FREE);
        }
        MessageElement around = new MessageElement(carried.wrapper(), null);
        for (WirePart part : carried.parts()) {
            around.add(builder.element(
                    new QName(part.name()), vocabulary.type(part.type()), part == outlined ? outline : Outline.FREE));
        }
        return around;
    }

    private MessageElement part(SampleBuilder builder, WirePart part, Outline outline) {
        return part.isGlobal()
                ? builder.element(vocabulary.element(part.element()), outline)
                : builder.element(part.element(), vocabulary.type(part.type()), outline);
    }
}
