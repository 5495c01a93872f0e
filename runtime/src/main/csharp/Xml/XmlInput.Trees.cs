namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Xml;
    using System.Xml.Linq;

    /// <content>
    /// Reads what the contract leaves open: as trees, and as what they are declared with or say that they are.
    /// </content>
    public sealed partial class XmlInput
    {
        /// <summary>Reads an element of type <c>xs:anyType</c>; a type that it names is held to the contract.</summary>
        public XElement Any()
        {
            if (this.TakeLacking())
            {
                return null;
            }
            XElement tree = this.Tree();
            this.CheckTree(tree, null);
            return tree;
        }

        /// <summary>Reads whatever element comes next; one that the contract declares is held to the contract.</summary>
        public XElement Element()
        {
            if (this.TakeLacking())
            {
                return null;
            }
            XElement tree = this.Tree();
            this.CheckTree(tree, this.types.ElementContent(tree.Name));
            return tree;
        }

        /// <summary>Reads whatever element comes next, typed when the contract declares it, as a tree otherwise.</summary>
        internal XmlElement<XmlObject> TypedElement()
        {
            if (this.TakeLacking())
            {
                return null;
            }
            XName name = this.NextName;
            this.attributes.Load();
            XmlObject declared = this.types.ElementContent(name);
            XmlObject value = this.StatedOr(declared) ?? declared;
            return new XmlElement<XmlObject>(name, value == null ? new XmlTree(this.Tree()) : this.Fill(value));
        }

        /// <summary>
        /// Reads a header block, which may carry attributes of other namespaces than its own, whatever its type says of them: an
        /// identifier to sign it by, a language (SOAP 1.1, section 4.2). They stay with it.
        /// </summary>
        internal XmlElement<XmlObject> Block()
        {
            this.keepForeign = true;
            XmlElement<XmlObject> block = this.TypedElement();
            this.keepForeign = false;
            return block;
        }

        /// <summary>Reads whatever element comes next as a tree, with all that is in it.</summary>
        public XElement Tree()
        {
            if (this.TakeLacking())
            {
                return null;
            }
            return this.WholeTree();
        }

        private XElement WholeTree()
        {
            XElement tree = new XElement(this.NextName);
            this.cursor.BeginTree(tree);
            this.cursor.CopyAttributes(tree);
            this.cursor.Tree(tree, null);
            return tree;
        }

        /// <summary>Holds a tree to the contract, by the type that it names or that its element is declared with.</summary>
        private void CheckTree(XElement tree, XmlObject declared)
        {
            XAttribute stated = tree.Attribute(XName.Get("type", XmlNames.Instance));
            if (declared == null && stated == null)
            {
                return;
            }
            using (XmlReader reader = tree.CreateReader())
            {
                XmlCursor over = new XmlCursor(new ParserReader(reader), this.cursor.Limits, null)
                {
                    Sharing = this.cursor.Sharing,
                };
                XmlInput inside = new XmlInput(over, this.types);
                try
                {
                    inside.TypedContent(declared);
                }
                catch (XmlFormatException e)
                {
                    this.cursor.Tolerate(this.Error(e.Reason));
                }
            }
        }

        /// <summary>
        /// An empty value of the type that the element being read names, null when nobody knows that one; what it is declared
        /// with when it names none.
        /// </summary>
        private XmlObject StatedOr(XmlObject declared)
        {
            string stated = this.attributes.StatedType;
            XName type = stated == null ? null : this.ToName(stated);
            XmlObject value = type == null ? declared : this.types.TypeOrBuiltin(type);
            if (value == null || type == null)
            {
                return value;
            }
            value.IsTypeStated = true;
            return declared == null || declared.StandingText == null ? value : XmlTypes.Standing(value, declared.StandingText);
        }

        private void TypedContent(XmlObject declared)
        {
            this.attributes.Load();
            XmlObject value = this.StatedOr(declared);
            if (value != null && !(value is XmlTree))
            {
                this.Fill(value);
            }
        }

        /// <summary>Reads mixed content into a list of texts and elements.</summary>
        /// <param name="content">where it goes</param>
        /// <param name="inner">gives an empty value for an element that the type itself declares, or null</param>
        public void Mixed(List<XNode> content, Func<XName, XmlObject> inner)
        {
            XElement holder = new XElement("content");
            this.cursor.Tree(holder, child => this.CheckTree(child, inner(child.Name) ?? this.types.ElementContent(child.Name)));
            Dictionary<string, string> prefixes = new Dictionary<string, string>();
            foreach (XAttribute declared in holder.Attributes())
            {
                prefixes[declared.Name.LocalName] = declared.Value;
            }
            this.KeepPrefixes(prefixes);
            List<XNode> nodes = new List<XNode>(holder.Nodes());
            holder.RemoveNodes();
            content.AddRange(nodes);
        }
    }
}
