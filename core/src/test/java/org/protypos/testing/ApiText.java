package org.protypos.testing;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import javax.xml.namespace.QName;
import org.protypos.api.Api;
import org.protypos.api.ApiFault;
import org.protypos.api.ApiInterface;
import org.protypos.api.ApiMessage;
import org.protypos.api.ApiOperation;
import org.protypos.api.ApiService;
import org.protypos.api.type.ApiElement;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.Content;
import org.protypos.api.type.EnumeratedType;
import org.protypos.api.type.Member;
import org.protypos.api.type.NamedType;
import org.protypos.api.type.StructuredType;
import org.protypos.api.type.ValueFacets;
import org.protypos.schema.facet.FacetStep;
import org.protypos.wire.WireInterface;

/** An API as text, to be compared with what is expected. */
public final class ApiText {
    private final StringBuilder text = new StringBuilder();
    private final List<String> prefixes = new ArrayList<>();
    private final Set<NamedType> shown = new HashSet<>();
    private final List<NamedType> local = new ArrayList<>();
    private String indent = "";

    private ApiText() {}

    /** All of it. */
    public static String of(Api api) {
        ApiText writer = new ApiText();
        api.globalTypes().forEach(writer::type);
        new TreeMap<>(named(api.types()))
                .forEach((name, value) -> writer.line("type " + name + " is " + writer.value(value)));
        Map<String, ApiElement> elements = new TreeMap<>();
        api.elements().forEach((name, element) -> elements.put(name.toString(), element));
        elements.forEach((name, element) -> writer.line("element " + name + (element.isAbstract() ? " abstract" : "")
                + (element.head() == null ? "" : " for " + element.head()) + " is " + writer.value(element.value())));
        api.callElements().forEach((name, value) -> writer.line("called " + name + " is " + writer.value(value)));
        api.interfaces().forEach(writer::type);
        api.services().forEach(writer::service);
        while (!writer.local.isEmpty()) {
            writer.type(writer.local.remove(0));
        }
        String short1 = writer.text.toString();
        StringBuilder head = new StringBuilder();
        for (int i = 0; i < writer.prefixes.size(); i++) {
            head.append(prefix(i)).append(" = ").append(writer.prefixes.get(i)).append('\n');
        }
        return head + short1;
    }

    private static <T> Map<String, T> named(Map<QName, T> all) {
        Map<String, T> named = new TreeMap<>();
        all.forEach((name, value) -> named.put(name.toString(), value));
        return named;
    }

    private static String prefix(int number) {
        return String.valueOf((char) ('a' + number));
    }

    /** A line in which namespaces in braces are prefixes. */
    private void line(String line) {
        StringBuilder out = new StringBuilder();
        int from = 0;
        for (int open = line.indexOf('{'); open >= 0; open = line.indexOf('{', from)) {
            int close = line.indexOf('}', open);
            String namespace = line.substring(open + 1, close);
            if (!prefixes.contains(namespace)) {
                prefixes.add(namespace);
            }
            out.append(line, from, open)
                    .append(prefix(prefixes.indexOf(namespace)))
                    .append(':');
            from = close + 1;
        }
        text.append(indent).append(out).append(line, from, line.length()).append('\n');
    }

    private void inside(Runnable what) {
        String before = indent;
        indent += "  ";
        what.run();
        indent = before;
    }

    private void type(NamedType type) {
        if (!shown.add(type)) {
            return;
        }
        if (type instanceof EnumeratedType enumerated) {
            line("values " + type.origin().name().toLowerCase(java.util.Locale.ROOT) + " "
                    + type.subject().designator() + " "
                    + enumerated.base().builtin().local());
            inside(() -> enumerated.values().forEach(value -> line("= " + value.text())));
            return;
        }
        StructuredType structured = (StructuredType) type;
        line("structure " + type.origin().name().toLowerCase(java.util.Locale.ROOT) + " "
                + type.subject().designator()
                + (structured.base() == null
                        ? ""
                        : " from " + structured.base().subject().designator())
                + (structured.isAbstract() ? " abstract" : "")
                + (structured.isMixed() ? " mixed" : "")
                + (structured.hasDerived() ? " derived" : "")
                + (structured.arrayItem() == null ? "" : " array of " + structured.arrayItem())
                + (structured.isEncodedCall() ? " encoded call" : ""));
        inside(() -> {
            structured.attributes().forEach(this::member);
            if (structured.attributeWildcard() != null) {
                member(structured.attributeWildcard());
            }
            if (structured.text() != null) {
                member(structured.text());
            }
            if (structured.narrowedText() != null) {
                line("text must be " + facets(structured.narrowedText()));
            }
            structured.inner().forEach((name, element) -> line("inside " + name + " is " + value(element.value())));
            if (structured.content() != null) {
                content(structured.content());
            }
        });
    }

    private void content(Content<Member> content) {
        if (content instanceof Content.Leaf<Member> leaf) {
            member(leaf.member(), " " + leaf.least() + ".." + (leaf.isBounded() ? leaf.most() : "*"));
            return;
        }
        boolean optional = content instanceof Content.InSequence<Member> sequence && sequence.optional()
                || content instanceof Content.OneOf<Member> choice && choice.optional()
                || content instanceof Content.InAnyOrder<Member> all && all.optional();
        line((content instanceof Content.InSequence ? "sequence" : content instanceof Content.OneOf ? "choice" : "all")
                + (optional ? " optional" : "")
                + (content.isEmptiable() ? " may be nothing" : " starts with " + content.expected()));
        inside(() -> content.parts().forEach(this::content));
    }

    private void member(Member member) {
        member(member, "");
    }

    private void member(Member member, String times) {
        line(member.kind().name().toLowerCase(java.util.Locale.ROOT).replace('_', ' ')
                + (member.xmlName() == null ? "" : " " + member.xmlName())
                + (member.xmlName() != null && member.xmlName().getLocalPart().equals(member.name())
                        ? ""
                        : " called " + member.name())
                + times + " "
                + member.cardinality().name().toLowerCase(java.util.Locale.ROOT)
                + (member.nillable() ? " nillable" : "")
                + " " + value(member.value())
                + (member.typeName() == null ? "" : " said as " + member.typeName())
                + (member.defaultValue() == null ? "" : " default '" + member.defaultValue() + "'")
                + (member.facets() == null ? "" : " must be " + facets(member.facets())));
    }

    private String value(ApiValue value) {
        if (value instanceof ApiValue.Scalar scalar) {
            return scalar.kind().name().toLowerCase(java.util.Locale.ROOT);
        } else if (value instanceof ApiValue.Enumerated enumerated) {
            return local(enumerated.type());
        } else if (value instanceof ApiValue.Structured structured) {
            return local(structured.type());
        } else if (value instanceof ApiValue.Items items) {
            return "list of " + value(items.item());
        } else if (value instanceof ApiValue.OfType named) {
            return value(named.value());
        } else if (value instanceof ApiValue.Respaced) {
            return value(value.plain());
        } else if (value instanceof ApiValue.NamedElement element) {
            return "any element" + (element.content() == null ? "" : " of " + local(element.content()));
        } else if (value instanceof ApiValue.NamedSimple) {
            return "any element of text";
        }
        return "anything";
    }

    private String local(NamedType type) {
        if (!shown.contains(type) && !local.contains(type)) {
            local.add(type);
        }
        return type.subject().designator();
    }

    private static String facets(ValueFacets facets) {
        if (facets instanceof ValueFacets.OfBuiltIn builtin) {
            return builtin.type().local();
        } else if (facets instanceof ValueFacets.ListOf list) {
            return "(" + facets(list.item()) + ")*";
        } else if (facets instanceof ValueFacets.UnionOf union) {
            return union.members().stream().map(ApiText::facets).toList().toString();
        }
        if (facets instanceof ValueFacets.Fixed fixed) {
            return facets(fixed.base()) + " fixed " + fixed.value();
        }
        ValueFacets.Narrowed narrowed = (ValueFacets.Narrowed) facets;
        return facets(narrowed.base()) + step(narrowed.step());
    }

    private static String step(FacetStep step) {
        if (step instanceof FacetStep.WhiteSpace space) {
            return ", " + space.treatment();
        } else if (step instanceof FacetStep.Matching matching) {
            return ", like " + matching.pattern().replace('{', '<').replace('}', '>');
        } else if (step instanceof FacetStep.OneOf one) {
            return ", of " + one.values();
        } else if (step instanceof FacetStep.Least least) {
            return (least.exclusive() ? ", > " : ", >= ") + least.bound();
        } else if (step instanceof FacetStep.Most most) {
            return (most.exclusive() ? ", < " : ", <= ") + most.bound();
        } else if (step instanceof FacetStep.Length length) {
            return ", length " + length.least() + ".." + length.most();
        }
        FacetStep.Digits digits = (FacetStep.Digits) step;
        return ", digits " + digits.total() + "." + digits.fraction();
    }

    private void type(ApiInterface type) {
        line("interface " + type.name() + (type.standing() == WireInterface.Standing.FIRST ? "" : " " + type.standing())
                + (type.isBound() ? "" : " unbound") + (type.verbs().isEmpty() ? "" : " by " + type.verbs()));
        inside(() -> type.operations().forEach(this::operation));
    }

    private void operation(ApiOperation operation) {
        line("operation " + operation.name() + " action '" + operation.soapAction() + "'"
                + (operation.locations().isEmpty()
                        ? ""
                        : " at '" + String.join("' and '", operation.locations()) + "'"));
        inside(() -> {
            message("in", operation.input());
            if (operation.output() != null) {
                message("out", operation.output());
            }
            for (ApiFault fault : operation.faults()) {
                line("fault " + fault.message());
                inside(() -> member(fault.detail()));
            }
        });
    }

    private void message(String way, ApiMessage message) {
        line(way + " " + message.form().name().toLowerCase(java.util.Locale.ROOT)
                + (message.encoded() ? " encoded" : "")
                + (message.anyWrapper() ? " under any name" : "")
                + (message.wrapper() == null ? "" : " apart")
                + (message.action() == null ? "" : " addressed by '" + message.action() + "'"));
        inside(() -> {
            if (message.body() != null) {
                line("body");
                inside(() -> member(message.body()));
            }
            message.headers().forEach(header -> {
                line("header");
                inside(() -> member(header));
            });
            for (int i = 0; i < message.attachments().size(); i++) {
                line("attachment " + message.mediaTypes().get(i));
                Member attachment = message.attachments().get(i);
                inside(() -> member(attachment));
            }
        });
    }

    private void service(ApiService service) {
        line("service " + service.name());
        inside(() -> service.ports()
                .forEach(port -> line("port " + port.name() + " of "
                        + port.type().name() + " " + port.speaks()
                        + (port.isDefault() ? " default" : "")
                        + (port.isOptimized() ? " optimized" : "")
                        + (port.isAddressNeeded() ? " addressed" : port.isAddressed() ? " sent with addresses" : "")
                        + " at " + port.address())));
    }
}
