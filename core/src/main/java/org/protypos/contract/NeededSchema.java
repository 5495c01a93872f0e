package org.protypos.contract;

import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Definitions;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/** Finds the types and elements that some operations need, with all that may stand for them in a message. */
final class NeededSchema {
    private final SchemaComponents schema;
    private final Set<QName> types = new HashSet<>();
    private final Set<QName> elements = new HashSet<>();
    private final Set<QName> groups = new HashSet<>();
    private final Set<QName> attributeGroups = new HashSet<>();
    private final Map<QName, Set<QName>> derived = new HashMap<>();

    NeededSchema(SchemaComponents schema) {
        this.schema = schema;
        for (SchemaType type : schema.types().values()) {
            TypeReference base = type.base();
            if (base != null && base.name() != null) {
                derived.computeIfAbsent(base.name(), any -> new HashSet<>()).add(type.name());
            }
        }
    }

    SchemaComponents of(Definitions wsdl) {
        for (PortType portType : wsdl.portTypes().values()) {
            for (Operation operation : portType.operations()) {
                use(wsdl, operation.input());
                use(wsdl, operation.output());
                operation.faults().forEach(fault -> use(wsdl, fault));
            }
        }
        for (Binding binding : wsdl.bindings().values()) {
            PortType portType = wsdl.portTypes().get(binding.portType());
            for (BoundOperation bound : binding.bound(portType)) {
                if (bound != null) {
                    headers(wsdl, bound.input());
                    headers(wsdl, bound.output());
                }
            }
        }
        return new SchemaComponents(
                only(schema.types(), types),
                only(schema.elements(), elements),
                schema.attributes(),
                schema.groups(),
                schema.attributeGroups(),
                schema.notations(),
                schema.substitutions(),
                schema.findings());
    }

    private static <T> Map<QName, T> only(Map<QName, T> all, Set<QName> names) {
        Map<QName, T> some = new LinkedHashMap<>(all);
        some.keySet().retainAll(names);
        return some;
    }

    private void use(Definitions wsdl, Operation.Use use) {
        if (use != null && wsdl.messages().containsKey(use.message())) {
            wsdl.messages().get(use.message()).parts().forEach(this::part);
        }
    }

    private void headers(Definitions wsdl, BoundOperation.Carrier carrier) {
        if (carrier != null) {
            for (BoundOperation.Header header : carrier.headers()) {
                part(wsdl.messages().get(header.message()).part(header.part()));
            }
        }
    }

    private void part(Message.Part part) {
        if (part.element() != null) {
            element(part.element());
        } else if (part.type() != null) {
            type(part.type());
        }
    }

    private void element(QName name) {
        ElementDeclaration element = schema.elements().get(name);
        if (element != null && elements.add(name)) {
            reference(element.type());
            if (element.substitutionHead() != null) {
                element(element.substitutionHead());
            }
            schema.substitutions().getOrDefault(name, List.of()).forEach(this::element);
        }
    }

    private void type(QName name) {
        SchemaType type = schema.types().get(name);
        if (type != null && types.add(name)) {
            type(type);
            derived.getOrDefault(name, Set.of()).forEach(this::type);
        }
    }

    private void reference(TypeReference reference) {
        if (reference != null && reference.name() != null) {
            type(reference.name());
        } else if (reference != null) {
            type(reference.anonymous());
        }
    }

    private void type(SchemaType type) {
        reference(type.base());
        if (type instanceof SimpleType simple) {
            simple.members().forEach(this::reference);
        } else if (type instanceof ComplexType complex) {
            complex(complex);
        }
    }

    private void complex(ComplexType complex) {
        if (complex.content() instanceof ComplexType.SimpleContent content) {
            reference(content.type());
        } else if (complex.particle() != null) {
            term(complex.particle().term());
        }
        attributes(complex.attributes());
    }

    private void term(Term term) {
        term.act(new Term.Acts(
                element -> reference(element.type()),
                reference -> element(reference.name()),
                group -> {
                    if (groups.add(group.name())) {
                        term(schema.groups().get(group.name()).group());
                    }
                },
                model -> model.particles().forEach(particle -> term(particle.term())),
                wildcard -> {}));
    }

    private void attributes(Attributes attributes) {
        for (AttributeUse use : attributes.uses()) {
            reference(schema.declaration(use).type());
            if (use.arrayItem() != null) {
                type(use.arrayItem());
            }
        }
        attributes.groups().stream()
                .filter(group -> attributeGroups.add(group.name()))
                .forEach(group ->
                        attributes(schema.attributeGroups().get(group.name()).attributes()));
    }
}
