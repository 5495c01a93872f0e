package org.protypos.runtime.xml;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.function.Consumer;
import javax.xml.namespace.QName;

/**
 * What a contract declares by name, for the places where a message chooses: {@code xsi:type} and wildcards. One
 * generated subclass knows the types and elements of its contract; the built-in simple types are known here.
 */
public abstract class XmlTypes {
    /** A contract that declares nothing. */
    public static final XmlTypes NONE = new XmlTypes() {};

    /** For the generated subclass. */
    protected XmlTypes() {}

    /**
     * Gives an empty value of a named type.
     *
     * @return a value to be filled, or null when the contract has no such type or it is abstract
     */
    protected XmlObject type(String namespace, String name) {
        return null;
    }

    /**
     * Gives an empty value for the content of a global element.
     *
     * @return a value to be filled, or null when the contract has no such element or its type is abstract
     */
    protected XmlObject element(String namespace, String name) {
        return null;
    }

    /**
     * Gives the head of the substitution group that a global element names.
     *
     * @return the head's name, or null when the element names none
     */
    protected QName head(String namespace, String name) {
        return null;
    }

    /** Gives back a value that is to be read, for an element that stands for a text of its own when it is empty. */
    public static XmlObject standing(XmlObject value, String text) {
        value.notes().stand(text);
        return value;
    }

    /**
     * Reads a document.
     *
     * @param stream its bytes; the caller closes it
     * @return the root element, its content typed if the contract declares the element
     * @throws XmlFormatException when the document is not well-formed or breaks the contract
     */
    public final XmlElement<?> read(InputStream stream) {
        XmlInput in = XmlInput.open(stream, null, this, XmlLimits.DEFAULT);
        XmlElement<?> root = in.element();
        in.finish();
        return root;
    }

    /**
     * Reads a document of which the root element has content of one type.
     *
     * @param content the class of the content
     * @throws XmlFormatException when the document is not well-formed, breaks the contract or has other content
     */
    public final <T extends XmlObject> T read(InputStream stream, Class<T> content) {
        XmlInput in = XmlInput.open(stream, null, this, XmlLimits.DEFAULT);
        T value = in.member(content).value();
        in.finish();
        return value;
    }

    /**
     * Reads a document and passes over what breaks the contract in it, as {@link Reading} says.
     *
     * @param passedOver told of each deviation
     * @throws IOException when the stream cannot be read
     * @throws XmlFormatException when the document is not well-formed
     */
    public final XmlElement<?> read(InputStream stream, Consumer<XmlFormatException> passedOver) throws IOException {
        Reading reading = Reading.strict(XmlLimits.DEFAULT).leniently(passedOver);
        byte[] document = new BoundedStream(stream, reading.limits().bytes()).readAllBytes();
        return reading.read(document, null, this, null, in -> {
            XmlElement<?> root = in.element();
            in.finish();
            return root;
        });
    }

    /**
     * Writes a document.
     *
     * @return its bytes in UTF-8
     */
    public final byte[] write(XmlElement<?> root) {
        XmlOutput out = new XmlOutput(this);
        out.element(root);
        return out.finish();
    }

    /**
     * Reads a document that stands in the text of another.
     *
     * @param namespace the namespace of its root element
     * @param name the name of its root element
     * @param content the class of its content
     * @throws XmlFormatException when it is not well-formed, breaks the contract or has another root
     */
    public final <T extends XmlObject> T inText(String text, String namespace, String name, Class<T> content) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        XmlInput in = XmlInput.open(new ByteArrayInputStream(bytes), "UTF-8", this, XmlLimits.DEFAULT);
        in.demand(namespace, name);
        T value = in.member(content).value();
        in.finish();
        return value;
    }

    /** Writes a document for the text of another: without an XML declaration. */
    public final String asText(String namespace, String name, XmlObject content) {
        String document = new String(write(XmlElement.of(namespace, name, content)), StandardCharsets.UTF_8);
        return document.substring(document.indexOf("?>") + 2).strip();
    }

    /** An empty value of a complex type, or null when there is none of that name or it is simple. */
    final XmlObject complexType(QName name) {
        XmlObject value =
                name.getNamespaceURI().equals(Names.XSD) ? null : type(name.getNamespaceURI(), name.getLocalPart());
        return value instanceof XmlSimple ? null : value;
    }

    /** Whether values of a simple type are qualified names, or may hold some. */
    final boolean holdsNames(QName name) {
        return typeOrBuiltin(name.getNamespaceURI(), name.getLocalPart()) instanceof XmlSimple simple
                && simple.holdsNames();
    }

    final XmlObject typeOrBuiltin(String namespace, String name) {
        if (!namespace.equals(Names.XSD)) {
            return type(namespace, name);
        }
        return name.equals("anyType") ? new XmlTree() : XmlSimple.empty(namespace, name, name);
    }
}
