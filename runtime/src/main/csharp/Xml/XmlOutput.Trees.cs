namespace Protypos.Runtime
{
    using System.Collections.Generic;
    using System.Xml.Linq;

    /// <content>
    /// Writes trees and mixed content.
    /// </content>
    public sealed partial class XmlOutput
    {
        /// <summary>Writes an element of type <c>xs:anyType</c>, which gives all but its name, unless it is null.</summary>
        public void Any(string space, string name, XElement value)
        {
            if (value != null)
            {
                this.Open(space, name, DeclaredOn(value));
                this.TreeContent(value);
            }
        }

        /// <summary>Writes an element of which the contract leaves the name open, unless it is null.</summary>
        public void Element(XElement element)
        {
            if (element != null)
            {
                this.Any(element.Name.NamespaceName, element.Name.LocalName, element);
            }
        }

        private static IDictionary<string, string> DeclaredOn(XElement element)
        {
            Dictionary<string, string> prefixes = null;
            foreach (XAttribute attribute in element.Attributes())
            {
                bool declares = attribute.IsNamespaceDeclaration && attribute.Value != XmlNames.Xml;
                if (declares)
                {
                    prefixes = prefixes ?? new Dictionary<string, string>();
                    prefixes[attribute.Name.NamespaceName.Length == 0 ? "" : attribute.Name.LocalName] = attribute.Value;
                }
            }
            return prefixes ?? XmlNotes.NoPrefixes;
        }

        /// <summary>Writes attributes and content of a tree whose tag is open, and closes it; by a loop, for trees may be deep.</summary>
        private void TreeContent(XElement root)
        {
            XElement open = root;
            this.TreeAttributes(open);
            XNode next = open.FirstNode;
            while (true)
            {
                if (next == null)
                {
                    this.Close();
                    if (open == root)
                    {
                        return;
                    }
                    next = open.NextNode;
                    open = open.Parent;
                    continue;
                }
                XElement child = next as XElement;
                if (child != null)
                {
                    this.Open(child.Name.NamespaceName, child.Name.LocalName, DeclaredOn(child));
                    this.TreeAttributes(child);
                    open = child;
                    next = child.FirstNode;
                    continue;
                }
                XText text = next as XText;
                if (text != null)
                {
                    this.Text(text.Value);
                }
                next = next.NextNode;
            }
        }

        private void TreeAttributes(XElement element)
        {
            foreach (XAttribute attribute in element.Attributes())
            {
                if (!attribute.IsNamespaceDeclaration)
                {
                    this.Attribute(attribute.Name.NamespaceName, attribute.Name.LocalName, attribute.Value);
                }
            }
        }

        /// <summary>Writes texts and elements in their order.</summary>
        public void Mixed(IEnumerable<XNode> content)
        {
            foreach (XNode item in content)
            {
                XElement element = item as XElement;
                XText text = item as XText;
                if (element != null)
                {
                    this.Element(element);
                }
                else if (text != null)
                {
                    this.Text(text.Value);
                }
            }
        }
    }
}
