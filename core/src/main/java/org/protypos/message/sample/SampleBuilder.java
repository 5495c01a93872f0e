package org.protypos.message.sample;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.message.model.ContentModel;
import org.protypos.message.model.Leaf;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.Term;
import org.protypos.schema.Wildcard;
import org.protypos.source.Xml;

/** Builds one sample message: walks the content models and decides what to put in. */
final class SampleBuilder {
    /** A namespace that no contract has, for elements that a wildcard lets in. */
    private static final String FOREIGN = "http://lanternbay.example/other";

    /** Up to here every type is shown in full each time; beyond it only the first time. */
    private static final int GENEROUS = 150;

    private static final int MOST_ELEMENTS = 4_000;
    private static final int MOST_DEPTH = 60;

    /** Not even what must be there is put in beyond it. */
    private static final int MOST_NEEDED = 50_000;

    private static final int MOST_NEEDED_DEPTH = 500;

    private final Vocabulary vocabulary;
    private final MinimalDepth depths;
    private final Prefixes prefixes;
    private final SampleValues values;
    private final boolean full;
    private final Map<MessageElement, ElementDeclaration> declarations = new IdentityHashMap<>();
    private final Map<MessageElement, Map<QName, Slot>> slots = new IdentityHashMap<>();
    private final Set<TypeModel> around = Collections.newSetFromMap(new IdentityHashMap<>());
    private final Map<TypeModel, Integer> shown = new IdentityHashMap<>();
    private int elements;
    private int depth;
    private int ids;
    private boolean cut;

    /**
     * A value that was made up and may be made up anew.
     *
     * @param hint the name of what holds it
     */
    record Slot(ValueRule rule, String hint, boolean fixed) {}

    SampleBuilder(Vocabulary vocabulary, MinimalDepth depths, Prefixes prefixes, boolean full) {
        this.vocabulary = vocabulary;
        this.depths = depths;
        this.prefixes = prefixes;
        this.values = new SampleValues(vocabulary, prefixes);
        this.full = full;
    }

    /** The declaration that each element is an instance of. */
    Map<MessageElement, ElementDeclaration> declarations() {
        return declarations;
    }

    SampleValues values() {
        return values;
    }

    /** The value of an element, or of its attribute, that may be made up anew; null when there is none. */
    Slot slot(MessageElement element, QName attribute) {
        Map<QName, Slot> known = slots.get(element);
        return known == null ? null : known.get(attribute);
    }

    private void remember(MessageElement element, QName attribute, Slot slot) {
        slots.computeIfAbsent(element, any -> new HashMap<>()).put(attribute, slot);
    }

    /** Finishes a message: what it refers to is there, and all its prefixes are declared. */
    MessageElement finish(MessageElement root) {
        new SampleKeys(this, vocabulary).settle(root);
        declare(root);
        prefixes.declarations().forEach((prefix, namespace) -> root.prefixes().put(prefix, namespace));
        return root;
    }

    private void declare(MessageElement element) {
        prefixes.of(element.name().getNamespaceURI());
        element.attributes().keySet().forEach(name -> prefixes.of(name.getNamespaceURI()));
        element.children().forEach(this::declare);
    }

    /** An element that is an instance of a declaration, which is not abstract. */
    MessageElement element(ElementDeclaration declaration) {
        return element(declaration, Outline.FREE);
    }

    /** Likewise, with what is decided of it. */
    MessageElement element(ElementDeclaration declaration, Outline outline) {
        MessageElement element = new MessageElement(declaration.name(), null);
        declarations.put(element, declaration);
        TypeModel declared = vocabulary.typeOf(declaration);
        TypeModel type = chosen(element, declared, declaration.block(), outline);
        String given = outline.text() != null ? outline.text() : declaration.fixedValue();
        fill(element, type, given, mustBeNil(declaration, type, outline) ? Outline.nil() : outline);
        return element;
    }

    /** Whether only being nil ends an element: it would have to hold another of its type, and that one another. */
    private boolean mustBeNil(ElementDeclaration declaration, TypeModel type, Outline outline) {
        return outline == Outline.FREE
                && declaration.nillable()
                && declaration.fixedValue() == null
                && (around.contains(type) || depths.of(type) >= MinimalDepth.ENDLESS);
    }

    /** An element of some name with content of a type. */
    MessageElement element(QName name, TypeModel declared, Outline outline) {
        MessageElement element = new MessageElement(name, null);
        fill(element, chosen(element, declared, Set.of(), outline), outline.text(), outline);
        return element;
    }

    /** The type that an element is given; it says so when that is another than the declared one. */
    private TypeModel chosen(MessageElement element, TypeModel declared, Set<String> blocked, Outline outline) {
        TypeModel type = outline.type() != null ? vocabulary.type(outline.type()) : choose(declared, blocked);
        if (type != declared) {
            QName name = type.name();
            element.attributes()
                    .put(new QName(Xml.XSI, "type"), prefixes.name(name.getNamespaceURI(), name.getLocalPart()));
            prefixes.of(Xml.XSI);
        }
        return type;
    }

    private TypeModel choose(TypeModel declared, Set<String> blocked) {
        TypeModel best = declared;
        int least = Integer.MAX_VALUE;
        for (TypeModel type : depths.concrete(declared)) {
            int needed = depths.of(type) + (around.contains(type) ? MinimalDepth.ENDLESS / 2 : 0);
            if (needed < least && (type == declared || vocabulary.derives(type, declared, blocked))) {
                least = needed;
                best = type;
            }
        }
        return best;
    }

    private void fill(MessageElement element, TypeModel type, String given, Outline outline) {
        elements++;
        depth++;
        boolean outermost = around.add(type);
        boolean generous = full && isGenerous(type, outermost);
        attributes(element, type, generous);
        element.attributes().putAll(outline.attributes());
        String hint = element.name().getLocalPart();
        if (outline.isNil()) {
            element.attributes().put(new QName(Xml.XSI, "nil"), "true");
        } else if (outline.children() != null) {
            element.add(given == null ? "" : given);
            outlined(element, type.content(), outline);
        } else if (type.text() != null) {
            remember(element, null, new Slot(type.text(), hint, given != null));
            element.add(given != null ? given : id(type.text(), hint));
        } else if (given != null) {
            element.add(given);
        } else if (!array(element, type)) {
            for (Particle particle : type.particles()) {
                particle(element, particle, generous);
            }
            if (generous && type.mixed() && element.content().isEmpty()) {
                element.add("text");
            }
        }
        if (outermost) {
            around.remove(type);
        }
        depth--;
    }

    private void outlined(MessageElement element, ContentModel model, Outline outline) {
        ContentModel at = model;
        for (int i = 0; i < outline.children().size(); i++) {
            QName name = outline.children().get(i);
            Outline inside = i == outline.followed() ? outline.inside() : Outline.FREE;
            ContentModel.Step step = at.step(name);
            if (step != null) {
                element.add(child(name, step.leaf(), inside));
                at = step.rest();
            }
        }
    }

    private MessageElement child(QName name, Leaf leaf, Outline outline) {
        ElementDeclaration known = leaf.map(
                element -> element.declaration().name().equals(name) ? element.declaration() : vocabulary.element(name),
                any -> any.wildcard().processing() == Wildcard.Processing.SKIP ? null : vocabulary.element(name));
        if (known != null) {
            return element(known, outline);
        }
        MessageElement stranger = new MessageElement(name, null);
        stranger.add(outline.text() == null ? "text" : outline.text());
        return stranger;
    }

    private boolean isGenerous(TypeModel type, boolean outermost) {
        if (!outermost || elements > MOST_ELEMENTS || depth > MOST_DEPTH) {
            return false;
        }
        return type.particles().isEmpty() || shown.merge(type, 1, Integer::sum) <= 1 || elements < GENEROUS;
    }

    /** IDs are told apart by a running number. */
    private String id(ValueRule rule, String hint) {
        return "ID".equals(rule.builtin()) ? values.value(rule, hint, ids++) : values.value(rule, hint, 0);
    }

    private void attributes(MessageElement element, TypeModel type, boolean generous) {
        boolean hasId = false;
        for (TypeModel.Attribute attribute : type.attributes().values()) {
            boolean reference = !attribute.required() && isReference(attribute.rule());
            if (!attribute.required() && (!generous || reference || servesEncoding(attribute))) {
                continue;
            }
            String local = attribute.name().getLocalPart();
            String value = attribute.fixed() != null ? attribute.fixed() : id(attribute.rule(), local);
            if ("ID".equals(attribute.rule().builtin())) {
                if (hasId) {
                    continue;
                }
                hasId = true;
            }
            element.attributes().put(attribute.name(), value);
            remember(element, attribute.name(), new Slot(attribute.rule(), local, attribute.fixed() != null));
        }
    }

    /** What the SOAP encoding lets every element have says nothing by itself. */
    private static boolean servesEncoding(TypeModel.Attribute attribute) {
        return attribute.place() != null && attribute.place().document().equals(Xml.SOAP_ENCODING);
    }

    /** An array of the SOAP encoding says of what type its items are, and has one. */
    private boolean array(MessageElement element, TypeModel type) {
        if (!(type.definition() instanceof ComplexType complex) || !complex.isEncodedArray()) {
            return false;
        }
        for (AttributeUse use : complex.attributes().uses()) {
            TypeModel item = use.arrayItem() == null ? null : vocabulary.type(use.arrayItem());
            if (item != null && !around.contains(item)) {
                QName name = use.arrayItem();
                element.attributes()
                        .put(
                                new QName(Xml.SOAP_ENCODING, "arrayType"),
                                prefixes.name(name.getNamespaceURI(), name.getLocalPart()) + "[1]");
                element.add(element(new QName("item"), item, Outline.FREE));
            }
        }
        return true;
    }

    static boolean isReference(ValueRule rule) {
        ValueRule item = rule.item() != null ? rule.item() : rule;
        return "IDREF".equals(item.builtin()) || "ENTITY".equals(item.builtin());
    }

    private void particle(MessageElement parent, Particle particle, boolean generous) {
        int times = particle.least();
        if (generous && times == 0 && elements <= MOST_ELEMENTS && mayShow(particle.term())) {
            times = 1;
        }
        if (particle.term() instanceof ModelGroup group && group.compositor() == ModelGroup.Compositor.CHOICE) {
            choices(parent, group, times, particle.most(), generous);
            return;
        }
        if (particle.term() instanceof GroupReference reference) {
            ModelGroup group = group(reference);
            particle(parent, new Particle(group, times, Math.max(times, particle.most())), generous);
            return;
        }
        int before = -1;
        // What adds nothing once adds nothing ever.
        for (int i = 0; i < times && isRoom() && parent.content().size() > before; i++) {
            before = parent.content().size();
            term(parent, particle.term(), generous);
        }
    }

    private boolean isRoom() {
        cut |= elements > MOST_NEEDED || depth > MOST_NEEDED_DEPTH;
        return !cut;
    }

    /** Whether something that must be there is not, because there would be too much. */
    boolean isCut() {
        return cut || values.isCut();
    }

    private ModelGroup group(GroupReference reference) {
        return vocabulary.schema().groups().get(reference.name()).group();
    }

    /** Whether something optional can be shown: it ends, and does not lead back into what it stands in. */
    private boolean mayShow(Term term) {
        return term.map(new Term.Cases<>(
                element -> isOpen(vocabulary.typeOf(element)),
                reference -> substitute(vocabulary.element(reference.name())) != null,
                group -> mayShow(group(group)),
                model -> model.compositor() == ModelGroup.Compositor.CHOICE
                        ? model.particles().stream().anyMatch(particle -> mayShow(particle.term()))
                        : model.particles().stream()
                                .allMatch(particle -> particle.least() == 0 || mayShow(particle.term())),
                wildcard -> stranger(wildcard) != null || known(wildcard) != null));
    }

    /** Whether some instance of a type ends. */
    private boolean isOpen(TypeModel type) {
        if (depths.of(type) >= MinimalDepth.ENDLESS) {
            return false;
        }
        return type.particles().isEmpty() || depths.concrete(type).stream().anyMatch(one -> !around.contains(one));
    }

    private void choices(MessageElement parent, ModelGroup group, int least, int most, boolean generous) {
        List<Particle> branches = new ArrayList<>(group.particles());
        int times = least;
        if (generous && times > 0 && most > 1) {
            branches.removeIf(branch -> !mayShow(branch.term()));
            times = Math.max(times, Math.min(most, branches.size()));
        }
        int before = parent.content().size();
        int idle = 0;
        for (int i = 0; i < times && isRoom() && idle <= branches.size(); i++) {
            Particle branch = generous && !branches.isEmpty() && times > 1
                    ? branches.get(i % branches.size())
                    : shallowest(group.particles(), generous);
            if (branch != null) {
                // A branch that may be empty is better shown than left out where everything is shown.
                particle(parent, branch, generous);
            }
            idle = parent.content().size() > before ? 0 : idle + 1;
            before = parent.content().size();
        }
    }

    private Particle shallowest(List<Particle> branches, boolean generous) {
        Particle best = null;
        int least = Integer.MAX_VALUE;
        for (Particle branch : branches) {
            if (generous && mayShow(branch.term())) {
                return branch;
            }
            int needed = depths.of(branch);
            if (needed < least) {
                least = needed;
                best = branch;
            }
        }
        return best;
    }

    private void term(MessageElement parent, Term term, boolean generous) {
        if (term instanceof ModelGroup group) {
            group.particles().forEach(particle -> particle(parent, particle, generous));
        } else if (term instanceof ElementReference reference) {
            ElementDeclaration head = vocabulary.element(reference.name());
            ElementDeclaration chosen = substitute(head);
            ElementDeclaration shallow = chosen == null ? shallowest(head) : chosen;
            if (shallow != null) {
                parent.add(element(shallow));
            }
        } else if (term instanceof ElementDeclaration element) {
            parent.add(element(element));
        } else if (term instanceof Wildcard wildcard) {
            MessageElement element = foreign(wildcard);
            if (element != null) {
                parent.add(element);
            }
        }
    }

    /** The element to show for a head: itself if it can be, else the first that can; null when none ends. */
    private ElementDeclaration substitute(ElementDeclaration head) {
        if (!full) {
            return shallowest(head);
        }
        for (QName name : vocabulary.substitutes(head)) {
            ElementDeclaration element = vocabulary.element(name);
            if (isOpen(vocabulary.typeOf(element))) {
                return element;
            }
        }
        return null;
    }

    private ElementDeclaration shallowest(ElementDeclaration head) {
        ElementDeclaration best = null;
        int least = Integer.MAX_VALUE;
        for (QName name : vocabulary.substitutes(head)) {
            ElementDeclaration element = vocabulary.element(name);
            int needed = depths.of(element);
            if (needed < least) {
                least = needed;
                best = element;
            }
        }
        return best;
    }

    /** An element that a wildcard lets in, or null when there is none. */
    private MessageElement foreign(Wildcard wildcard) {
        QName stranger = stranger(wildcard);
        if (stranger == null) {
            ElementDeclaration known = known(wildcard);
            return known == null ? null : element(known);
        }
        MessageElement element = new MessageElement(stranger, null);
        element.add("text");
        return element;
    }

    /** The name of an element that no contract declares and that a wildcard lets in, or null when it wants declared ones. */
    private QName stranger(Wildcard wildcard) {
        if (wildcard.processing() == Wildcard.Processing.STRICT) {
            return null;
        }
        for (String namespace : List.of(FOREIGN, "", wildcard.namespaces().get(0))) {
            QName name = new QName(namespace, "other");
            if (!namespace.startsWith("##") && wildcard.allows(namespace) && vocabulary.element(name) == null) {
                return name;
            }
        }
        return null;
    }

    /** The shallowest of the declared elements that a wildcard lets in, or null when none ends. */
    private ElementDeclaration known(Wildcard wildcard) {
        ElementDeclaration best = null;
        int least = MinimalDepth.ENDLESS / 2;
        for (ElementDeclaration element : vocabulary.schema().elements().values()) {
            if (!element.isAbstract() && wildcard.allows(element.name().getNamespaceURI())) {
                TypeModel type = vocabulary.typeOf(element);
                int needed = depths.of(type) + (around.contains(type) ? MinimalDepth.ENDLESS / 2 : 0);
                if (needed < least) {
                    least = needed;
                    best = element;
                }
            }
        }
        return best;
    }
}
