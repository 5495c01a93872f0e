package org.protypos.draft;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.diagnostic.Place;
import org.protypos.source.Xml;
import org.protypos.wsdl.Protocol;

/**
 * A short text that a contract is drafted from.
 *
 * @param name what the contract is called: its files, and what is not called otherwise
 * @param portType the name of its port type
 * @param service the name of its service
 * @param documentation what is said of it, or null
 * @param style how its SOAP messages are made
 * @param sections its namespaces, the one of the contract itself first
 * @param ports where it is offered; none when nothing is said of that
 */
public record Sketch(
        String name,
        String portType,
        String service,
        String documentation,
        Style style,
        List<Section> sections,
        List<SketchOperation> operations,
        List<SketchPort> ports) {
    public Sketch {
        sections = List.copyOf(sections);
        operations = List.copyOf(operations);
        ports = List.copyOf(ports);
    }

    /** The namespace of the contract. */
    public String namespace() {
        return sections.get(0).namespace();
    }

    /** How SOAP messages are made (WSDL 1.1, section 3.5). */
    public enum Style {
        /** A message holds one element. */
        DOCUMENT,
        /** A message holds an element of the operation with one for each part. */
        RPC
    }

    /**
     * What belongs to one namespace.
     *
     * @param prefix how the sketch speaks of it from others; empty for that of the contract itself
     * @param isQualified whether elements inside of types are in its namespace
     * @param types named types
     * @param elements global elements that are there for themselves
     */
    public record Section(
            String prefix,
            String namespace,
            boolean isQualified,
            Map<String, SketchType> types,
            Map<String, SketchMember> elements) {
        public Section {
            types = new LinkedHashMap<>(types);
            elements = new LinkedHashMap<>(elements);
        }
    }

    /**
     * An operation.
     *
     * @param in what goes in
     * @param out what comes out, or null when nothing does: it is one-way
     * @param faults elements by the names of the faults
     * @param headers elements in the headers of requests
     * @param answerHeaders elements in the headers of answers
     * @param action its SOAP action, or null for the usual one
     */
    public record SketchOperation(
            String name,
            Content in,
            Content out,
            Map<String, String> faults,
            List<String> headers,
            List<String> answerHeaders,
            String action,
            String documentation,
            Place place) {
        public SketchOperation {
            faults = new LinkedHashMap<>(faults);
            headers = List.copyOf(headers);
            answerHeaders = List.copyOf(answerHeaders);
        }
    }

    /**
     * What a message holds.
     *
     * @param element the global element that it is, or null when it is made for the operation
     * @param members what the element of the operation holds
     */
    public record Content(String element, List<SketchMember> members) {
        public Content {
            members = List.copyOf(members);
        }
    }

    /** Where the contract is offered. */
    public record SketchPort(String name, SketchProtocol protocol, String address, Place place) {}

    /** How a port is spoken to. */
    public enum SketchProtocol {
        SOAP11("Soap11", "soap", Xml.WSDL_SOAP11),
        SOAP12("Soap12", "soap12", Xml.WSDL_SOAP12),
        GET("Get", "http", Xml.WSDL_HTTP),
        POST("Post", "http", Xml.WSDL_HTTP);

        private final String suffix;
        private final String prefix;
        private final String namespace;

        SketchProtocol(String suffix, String prefix, String namespace) {
            this.suffix = suffix;
            this.prefix = prefix;
            this.namespace = namespace;
        }

        /** That of a binding of SOAP. */
        static SketchProtocol of(Protocol soap) {
            return soap == Protocol.SOAP_1_1 ? SOAP11 : SOAP12;
        }

        /** Whether messages are in envelopes. */
        public boolean isSoap() {
            return this == SOAP11 || this == SOAP12;
        }

        /** What the name of a binding ends with. */
        String suffix() {
            return suffix;
        }

        /** The usual prefix of the binding's own elements. */
        String prefix() {
            return prefix;
        }

        /** The namespace of the binding's own elements. */
        String namespace() {
            return namespace;
        }
    }
}
