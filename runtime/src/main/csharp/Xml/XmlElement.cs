namespace Protypos.Runtime
{
    using System;
    using System.Xml.Linq;

    /// <summary>An element whatever its content.</summary>
    internal interface IXmlElement
    {
        XName Name { get; }

        XmlObject Content { get; }
    }

    /// <summary>An element with its name and its typed content, for places where the contract leaves the name open.</summary>
    /// <typeparam name="T">the type of the content</typeparam>
    public sealed class XmlElement<T> : IXmlElement, IEquatable<XmlElement<T>>
        where T : XmlObject
    {
        /// <summary>An element.</summary>
        public XmlElement(XName name, T value)
        {
            if (name == null || value == null)
            {
                throw new ArgumentNullException(name == null ? "name" : "value");
            }
            this.Name = name;
            this.Value = value;
        }

        /// <summary>The name.</summary>
        public XName Name { get; private set; }

        /// <summary>The content.</summary>
        public T Value { get; private set; }

        XmlObject IXmlElement.Content
        {
            get { return this.Value; }
        }

        /// <inheritdoc/>
        public bool Equals(XmlElement<T> other)
        {
            return other != null && other.Name == this.Name && other.Value.Equals(this.Value);
        }

        /// <inheritdoc/>
        public override bool Equals(object other)
        {
            return this.Equals(other as XmlElement<T>);
        }

        /// <inheritdoc/>
        public override int GetHashCode()
        {
            return this.Name.GetHashCode() * 31 + this.Value.GetHashCode();
        }

        /// <inheritdoc/>
        public override string ToString()
        {
            return this.Name.LocalName + ": " + this.Value;
        }
    }
}
