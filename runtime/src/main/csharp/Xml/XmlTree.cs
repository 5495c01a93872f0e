namespace Protypos.Runtime
{
    using System;
    using System.Xml.Linq;

    /// <summary>Content that no type of the contract describes, as an element of which the name says nothing.</summary>
    public sealed class XmlTree : XmlObject
    {
        /// <summary>An empty one.</summary>
        public XmlTree()
            : this(new XElement("content"))
        {
        }

        /// <summary>The content of an element.</summary>
        public XmlTree(XElement element)
        {
            this.Element = element ?? throw new ArgumentNullException("element");
        }

        /// <summary>The element that holds the content.</summary>
        public XElement Element { get; private set; }

        internal void Fill(XElement element)
        {
            this.Element = element;
        }

        /// <inheritdoc/>
        protected override void DescribeXml(XmlDescription to)
        {
            to.Add("Element", this.Element);
        }

        /// <inheritdoc/>
        public override bool Equals(object other)
        {
            XmlTree that = other as XmlTree;
            return that != null && base.Equals(other) && XmlTrees.AreEqual(that.Element, this.Element);
        }

        /// <inheritdoc/>
        public override int GetHashCode()
        {
            return XmlTrees.Hash(this.Element);
        }
    }
}
