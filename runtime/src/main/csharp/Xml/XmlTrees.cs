namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Linq;
    using System.Text;
    using System.Xml.Linq;

    /// <summary>Compares and shows trees by what they say: declarations of prefixes and the order of attributes say nothing.</summary>
    internal static class XmlTrees
    {
        internal static bool AreEqual(XNode a, XNode b)
        {
            XElement left = a as XElement;
            XElement right = b as XElement;
            if (left == null || right == null)
            {
                return left == null && right == null && XNode.DeepEquals(a, b);
            }
            if (left.Name != right.Name || !AttributesOf(left).SequenceEqual(AttributesOf(right)))
            {
                return false;
            }
            List<XNode> inLeft = left.Nodes().ToList();
            List<XNode> inRight = right.Nodes().ToList();
            bool same = inLeft.Count == inRight.Count;
            for (int i = 0; same && i < inLeft.Count; i++)
            {
                same = AreEqual(inLeft[i], inRight[i]);
            }
            return same;
        }

        private static IEnumerable<KeyValuePair<string, string>> AttributesOf(XElement element)
        {
            return element.Attributes()
                .Where(attribute => !attribute.IsNamespaceDeclaration)
                .Select(attribute => new KeyValuePair<string, string>(attribute.Name.ToString(), attribute.Value))
                .OrderBy(attribute => attribute.Key, StringComparer.Ordinal);
        }

        internal static int Hash(XNode node)
        {
            XElement element = node as XElement;
            return element != null ? element.Name.GetHashCode() : node.ToString().GetHashCode();
        }

        /// <summary>The tree as text, by local names.</summary>
        internal static void Show(XNode node, StringBuilder to)
        {
            XElement element = node as XElement;
            if (element == null)
            {
                XText text = node as XText;
                to.Append(text == null ? "" : text.Value);
                return;
            }
            to.Append('<').Append(element.Name.LocalName);
            foreach (KeyValuePair<string, string> attribute in AttributesOf(element))
            {
                to.Append(' ').Append(attribute.Key.Substring(attribute.Key.IndexOf('}') + 1));
                to.Append("=\"").Append(attribute.Value).Append('"');
            }
            to.Append('>');
            foreach (XNode inner in element.Nodes())
            {
                Show(inner, to);
            }
            to.Append("</").Append(element.Name.LocalName).Append('>');
        }
    }
}
