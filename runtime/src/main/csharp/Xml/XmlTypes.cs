namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.IO;
    using System.Text;
    using System.Xml;
    using System.Xml.Linq;

    /// <summary>
    /// What a contract declares by name, for the places where a message chooses: <c>xsi:type</c> and wildcards. One generated
    /// class knows the types and elements of its contract; the built-in simple types are known here.
    /// </summary>
    public abstract class XmlTypes
    {
        /// <summary>Gives an empty value of a named type, or null when the contract has none of that name or it is abstract.</summary>
        protected virtual XmlObject NewOfType(string space, string name)
        {
            return null;
        }

        /// <summary>
        /// Gives an empty value for the content of a global element, or null when the contract has no such element or its type is
        /// abstract.
        /// </summary>
        protected virtual XmlObject NewOfElement(string space, string name)
        {
            return null;
        }

        /// <summary>Gives the head of the substitution group that a global element names, or null.</summary>
        protected virtual XName SubstitutionHead(string space, string name)
        {
            return null;
        }

        /// <summary>Reads a document; the content of its root element is typed if the contract declares the element.</summary>
        /// <exception cref="XmlFormatException">The document is not well-formed or breaks the contract.</exception>
        public XmlElement<XmlObject> Read(Stream stream)
        {
            return this.Read<XmlObject>(stream);
        }

        /// <summary>Reads a document of which the root element has content of one type.</summary>
        /// <exception cref="XmlFormatException">The document is not well-formed, breaks the contract or has other content.</exception>
        public XmlElement<T> Read<T>(Stream stream)
            where T : XmlObject
        {
            XmlInput input = XmlInput.Open(stream, null, this, XmlLimits.Default);
            XmlElement<T> root = input.Member<T>();
            input.Finish();
            return root;
        }

        /// <summary>Reads a document and passes over what breaks the contract in it.</summary>
        /// <param name="stream">its bytes</param>
        /// <param name="passedOver">told of each deviation</param>
        /// <exception cref="XmlFormatException">The document is not well-formed.</exception>
        public XmlElement<XmlObject> Read(Stream stream, Action<XmlFormatException> passedOver)
        {
            using (MemoryStream bytes = new MemoryStream())
            {
                new BoundedStream(stream, XmlLimits.Default.Bytes).CopyTo(bytes);
                return new XmlReading(XmlLimits.Default, passedOver).Read(bytes.ToArray(), null, this, null, input =>
                {
                    XmlElement<XmlObject> root = input.TypedElement();
                    input.Finish();
                    return root;
                });
            }
        }

        /// <summary>Makes a typed value of an element.</summary>
        /// <exception cref="XmlFormatException">The element breaks the contract or has other content.</exception>
        public T FromElement<T>(XElement element)
            where T : XmlObject
        {
            using (XmlReader reader = element.CreateReader())
            {
                XmlInput input = new XmlInput(new XmlCursor(new ParserReader(reader), XmlLimits.Default, null), this);
                return input.Member<T>().Value;
            }
        }

        /// <summary>Gives back a value that is to be read, for an element that stands for a text of its own when it is empty.</summary>
        public static XmlObject Standing(XmlObject value, string text)
        {
            value.Notes.Standing = text;
            return value;
        }

        /// <summary>Makes an element of a typed value.</summary>
        public XElement ToElement(XName name, XmlObject value)
        {
            using (MemoryStream bytes = new MemoryStream(this.Write(new XmlElement<XmlObject>(name, value))))
            {
                return XElement.Load(bytes, LoadOptions.PreserveWhitespace);
            }
        }

        /// <summary>Writes a document; gives its bytes in UTF-8.</summary>
        public byte[] Write<T>(XmlElement<T> root)
            where T : XmlObject
        {
            XmlOutput output = new XmlOutput(this);
            output.Element(root);
            return output.Finish();
        }

        /// <summary>Reads a document that stands in the text of another.</summary>
        /// <param name="text">the document</param>
        /// <param name="name">the name of its root element</param>
        public T InText<T>(string text, XName name)
            where T : XmlObject
        {
            using (MemoryStream bytes = new MemoryStream(Encoding.UTF8.GetBytes(text)))
            {
                XmlInput input = XmlInput.Open(bytes, "utf-8", this, XmlLimits.Default);
                input.Demand(name.NamespaceName, name.LocalName);
                T value = input.Member<T>().Value;
                input.Finish();
                return value;
            }
        }

        /// <summary>Writes a document for the text of another: without an XML declaration.</summary>
        public string AsText(XName name, XmlObject content)
        {
            string document = Encoding.UTF8.GetString(this.Write(new XmlElement<XmlObject>(name, content)));
            return document.Substring(document.IndexOf("?>", StringComparison.Ordinal) + 2).Trim();
        }

        internal XmlObject ElementContent(XName name)
        {
            return this.NewOfElement(name.NamespaceName, name.LocalName);
        }

        internal XName HeadOf(XName name)
        {
            return this.SubstitutionHead(name.NamespaceName, name.LocalName);
        }

        /// <summary>An empty value of a complex type, or null when there is none of that name or it is simple.</summary>
        internal XmlObject ComplexType(XName name)
        {
            XmlObject value = name.NamespaceName == XmlNames.Schema ? null : this.NewOfType(name.NamespaceName, name.LocalName);
            return value is XmlSimple ? null : value;
        }

        /// <summary>Whether values of a simple type are qualified names, or may hold some.</summary>
        internal bool HoldsNames(XName name)
        {
            XmlSimple simple = this.TypeOrBuiltin(name) as XmlSimple;
            return simple != null && simple.HoldsNames;
        }

        internal XmlObject TypeOrBuiltin(XName name)
        {
            if (name.NamespaceName != XmlNames.Schema)
            {
                return this.NewOfType(name.NamespaceName, name.LocalName);
            }
            return name.LocalName == "anyType" ? (XmlObject)new XmlTree() : XmlSimple.Empty(name, name.LocalName);
        }
    }
}
