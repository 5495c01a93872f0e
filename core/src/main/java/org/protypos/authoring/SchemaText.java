package org.protypos.authoring;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import javax.xml.namespace.QName;
import org.protypos.schema.facet.FacetKind;
import org.protypos.source.Xml;

/** Writes schemas (XML Schema Part 1 and 2), global elements first, then types. */
public final class SchemaText {
    private final Map<String, DraftSchema> all;
    private final DraftSchema schema;
    private final Map<String, String> prefixes = new TreeMap<>();
    private final String xs;
    private final String own;
    private final Markup out;

    private SchemaText(DraftSchema schema, Map<String, DraftSchema> all, String xs, String own, Markup out) {
        this.schema = schema;
        this.all = all;
        this.xs = xs;
        this.own = own;
        this.out = out;
    }

    /**
     * Writes a global element, to stand in a schema that is there.
     *
     * @param schema what is known of that schema
     * @param prefixes the prefixes that it has, by namespaces; that of XML Schema may be empty
     * @return lines, each level indented by two blanks
     */
    public static String element(DraftSchema schema, DraftParticle.Element element, Map<String, String> prefixes) {
        SchemaText text = part(schema, prefixes);
        text.element(element, true);
        return text.out.toString();
    }

    /** Writes a local element, likewise. */
    public static String local(DraftSchema schema, DraftParticle.Element element, Map<String, String> prefixes) {
        SchemaText text = part(schema, prefixes);
        text.element(element, false);
        return text.out.toString();
    }

    private static SchemaText part(DraftSchema schema, Map<String, String> prefixes) {
        SchemaText text = new SchemaText(
                schema, Map.of(), prefixes.get(Xml.XSD), prefixes.get(schema.namespace()), Markup.fragment());
        text.prefixes.putAll(prefixes);
        return text;
    }

    /** A name of XML Schema. */
    private String xs(String name) {
        return xs.isEmpty() ? name : xs + ":" + name;
    }

    /**
     * Writes schemas that know each other.
     *
     * @return the text of each by the name of its file
     */
    public static Map<String, String> of(List<DraftSchema> schemas) {
        Map<String, DraftSchema> all = new LinkedHashMap<>();
        schemas.forEach(schema -> all.put(schema.namespace(), schema));
        Map<String, String> texts = new LinkedHashMap<>();
        schemas.forEach(schema -> texts.put(
                schema.file(),
                new SchemaText(schema, all, "xs", schema.namespace().equals(Xml.XML) ? "xml" : "tns", Markup.document())
                        .text()));
        return texts;
    }

    private String text() {
        NamesOfSchema.of(schema, this::need);
        if (!schema.namespace().isEmpty()) {
            prefixes.remove(schema.namespace());
        }
        number();
        List<String> root = new ArrayList<>(List.of("xmlns:xs", Xml.XSD));
        if (!schema.namespace().isEmpty()) {
            if (!schema.namespace().equals(Xml.XML)) {
                root.addAll(List.of("xmlns:tns", schema.namespace()));
            }
        }
        prefixes.forEach((namespace, prefix) -> {
            if (!namespace.equals(Xml.XML) && !namespace.isEmpty()) {
                root.addAll(List.of("xmlns:" + prefix, namespace));
            }
        });
        if (!schema.namespace().isEmpty()) {
            root.addAll(List.of("targetNamespace", schema.namespace()));
        }
        if (schema.qualified()) {
            root.addAll(List.of("elementFormDefault", "qualified"));
        }
        out.open(xs("schema"), root.toArray(String[]::new));
        imports();
        if (!schema.elements().isEmpty()) {
            out.gap();
            for (DraftParticle.Element element : schema.elements()) {
                element(element, true);
            }
        }
        if (!schema.attributes().isEmpty()) {
            out.gap();
            schema.attributes().forEach(attribute -> attribute(attribute, true));
        }
        for (DraftType type : schema.types()) {
            out.gap();
            type(type);
        }
        return out.close(xs("schema")).toString();
    }

    private void need(QName name) {
        String namespace = name.getNamespaceURI();
        if (!namespace.equals(Xml.XSD) && !namespace.equals(schema.namespace())) {
            prefixes.put(namespace, "");
        }
    }

    /** Prefixes after the files, so that they say something. */
    private void number() {
        List<String> taken = new ArrayList<>(List.of("xs", "tns", "xml"));
        prefixes.replaceAll((namespace, none) -> {
            if (namespace.equals(Xml.XML)) {
                return "xml";
            }
            DraftSchema other = all.get(namespace);
            String wanted = other == null ? "n" : other.file().replaceFirst("\\.xsd$", "");
            String plain = wanted.matches("[A-Za-z][\\w-]*")
                            && !wanted.toLowerCase(Locale.ROOT).startsWith("xml")
                    ? wanted
                    : "n";
            String prefix = plain;
            for (int i = 2; taken.contains(prefix); i++) {
                prefix = plain + i;
            }
            taken.add(prefix);
            return prefix;
        });
    }

    private void imports() {
        if (prefixes.isEmpty()) {
            return;
        }
        out.gap();
        prefixes.keySet().forEach(namespace -> {
            DraftSchema other = all.get(namespace);
            out.empty(
                    xs("import"),
                    "namespace",
                    namespace.isEmpty() ? null : namespace,
                    "schemaLocation",
                    other == null ? null : other.file());
        });
    }

    private String named(QName name) {
        String namespace = name.getNamespaceURI();
        if (namespace.equals(Xml.XSD)) {
            return xs(name.getLocalPart());
        }
        String prefix = namespace.isEmpty() ? "" : namespace.equals(schema.namespace()) ? own : prefixes.get(namespace);
        return prefix.isEmpty() ? name.getLocalPart() : prefix + ":" + name.getLocalPart();
    }

    private void documentation(String documentation) {
        if (documentation != null) {
            out.open(xs("annotation")).text(xs("documentation"), documentation).close(xs("annotation"));
        }
    }

    private void element(DraftParticle.Element element, boolean global) {
        String namespace = element.name().getNamespaceURI();
        boolean own = namespace.equals(schema.namespace());
        boolean reference = !global && (element.isReference() || !own && !namespace.isEmpty());
        boolean named =
                !reference && element.inline() == null && element.value().isPlain();
        String form = global || reference || schema.namespace().isEmpty() || own == schema.qualified()
                ? null
                : own ? "qualified" : "unqualified";
        String[] attributes = {
            reference ? "ref" : "name",
            reference ? named(element.name()) : element.name().getLocalPart(),
            "type",
            named ? named(element.value().type()) : null,
            "form",
            form,
            "minOccurs",
            element.least() == 1 ? null : String.valueOf(element.least()),
            "maxOccurs",
            most(element.most()),
            "nillable",
            !reference && element.isNillable() ? "true" : null
        };
        attributes = with(attributes, reference ? null : element.preset());
        boolean anonymous = !reference && !named;
        if (element.documentation() == null && !anonymous) {
            out.empty(xs("element"), attributes);
            return;
        }
        out.open(xs("element"), attributes);
        documentation(element.documentation());
        if (element.inline() != null) {
            complex(element.inline());
        } else if (anonymous) {
            out.open(xs("simpleType"));
            value(element.value());
            out.close(xs("simpleType"));
        }
        out.close(xs("element"));
    }

    private static String[] with(String[] attributes, Preset preset) {
        if (preset == null) {
            return attributes;
        }
        String[] all = Arrays.copyOf(attributes, attributes.length + 2);
        all[attributes.length] = preset.isFixed() ? "fixed" : "default";
        all[attributes.length + 1] = preset.value();
        return all;
    }

    private static String most(int most) {
        return most == 1 ? null : most == DraftParticle.UNBOUNDED ? "unbounded" : String.valueOf(most);
    }

    private void attribute(DraftAttribute attribute, boolean global) {
        String namespace = attribute.name().getNamespaceURI();
        boolean own = namespace.equals(schema.namespace()) && !namespace.isEmpty();
        boolean reference = !global && !own && !namespace.isEmpty();
        boolean named = !reference && attribute.value().isPlain();
        String[] attributes = {
            reference ? "ref" : "name",
            reference ? named(attribute.name()) : attribute.name().getLocalPart(),
            "type",
            named ? named(attribute.value().type()) : null,
            "form",
            !global && own ? "qualified" : null,
            "use",
            !global && attribute.isRequired() ? "required" : null
        };
        attributes = with(attributes, attribute.preset());
        if (attribute.documentation() == null && (reference || named)) {
            out.empty(xs("attribute"), attributes);
            return;
        }
        out.open(xs("attribute"), attributes);
        documentation(attribute.documentation());
        if (!reference && !named) {
            out.open(xs("simpleType"));
            value(attribute.value());
            out.close(xs("simpleType"));
        }
        out.close(xs("attribute"));
    }

    private void type(DraftType type) {
        type.act(this::simple, this::complex);
    }

    private void simple(DraftType.Simple type) {
        out.open(xs("simpleType"), "name", type.name().getLocalPart());
        documentation(type.documentation());
        value(type.value());
        out.close(xs("simpleType"));
    }

    private void value(DraftValue value) {
        if (!value.others().isEmpty()) {
            List<String> members = new ArrayList<>(List.of(named(value.type())));
            value.others().forEach(other -> members.add(named(other)));
            out.empty(xs("union"), "memberTypes", String.join(" ", members));
            return;
        }
        if (value.isList() && value.facets().isEmpty()) {
            out.empty(xs("list"), "itemType", named(value.type()));
            return;
        }
        if (value.isList()) {
            out.open(xs("restriction")).open(xs("simpleType"));
            out.empty(xs("list"), "itemType", named(value.type()));
            out.close(xs("simpleType"));
            value.facets().forEach((facet, text) -> out.empty(xs(facet.local()), "value", text));
            out.close(xs("restriction"));
            return;
        }
        if (value.isPlain()) {
            out.empty(xs("restriction"), "base", named(value.type()));
            return;
        }
        out.open(xs("restriction"), "base", named(value.type()));
        value.facets().forEach((facet, text) -> out.empty(xs(facet.local()), "value", text));
        value.values().forEach(text -> out.empty(xs(FacetKind.ENUMERATION.local()), "value", text));
        out.close(xs("restriction"));
    }

    private void complex(DraftType.Complex type) {
        if (isEmpty(type)) {
            out.empty(
                    xs("complexType"),
                    "name",
                    type.name() == null ? null : type.name().getLocalPart());
            return;
        }
        out.open(
                xs("complexType"),
                "name",
                type.name() == null ? null : type.name().getLocalPart(),
                "abstract",
                type.isAbstract() ? "true" : null,
                "mixed",
                type.isMixed() ? "true" : null);
        documentation(type.documentation());
        if (type.text() != null || type.base() != null) {
            boolean simple = type.text() != null;
            String around = simple ? xs("simpleContent") : xs("complexContent");
            QName base = type.base() != null ? type.base() : type.text().type();
            out.open(around).open(xs("extension"), "base", named(base));
            inside(type);
            out.close(xs("extension")).close(around);
        } else {
            inside(type);
        }
        out.close(xs("complexType"));
    }

    private static boolean isEmpty(DraftType.Complex type) {
        return type.base() == null
                && type.text() == null
                && type.content() == null
                && type.attributes().isEmpty()
                && type.documentation() == null
                && !type.takesAnyAttributes()
                && !type.isAbstract()
                && !type.isMixed();
    }

    private void inside(DraftType.Complex type) {
        if (type.content() != null) {
            group(type.content());
        }
        type.attributes().forEach(attribute -> attribute(attribute, false));
        if (type.takesAnyAttributes()) {
            out.empty(xs("anyAttribute"), "processContents", "skip");
        }
    }

    private void group(DraftParticle.Group group) {
        String tag = xs(group.kind().tag());
        out.open(
                tag,
                "minOccurs",
                group.least() == 1 ? null : String.valueOf(group.least()),
                "maxOccurs",
                most(group.most()));
        for (DraftParticle particle : group.particles()) {
            particle.act(element -> element(element, false), this::anything, this::group);
        }
        out.close(tag);
    }

    private void anything(DraftParticle.Anything particle) {
        out.empty(
                xs("any"),
                "namespace",
                particle.isForeign() ? "##other" : null,
                "minOccurs",
                particle.least() == 1 ? null : String.valueOf(particle.least()),
                "maxOccurs",
                most(particle.most()),
                "processContents",
                particle.isForeign() ? "lax" : "skip");
    }
}
