namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Globalization;
    using System.IO;
    using System.Linq;
    using System.Xml;
    using System.Xml.Linq;

    /// <summary>
    /// Brings a message in the SOAP encoding (SOAP 1.1, section 5) into the form of a literal one: what is said once and referred to
    /// is put where it is referred to, and attributes that only serve the encoding are taken off.
    /// </summary>
    internal sealed class EncodedMessage
    {
        /// <summary>References may multiply what they refer to: a message may grow to so many elements.</summary>
        private const int MostElements = 1000000;

        private readonly Dictionary<string, XElement> targets = new Dictionary<string, XElement>();
        private readonly HashSet<string> open = new HashSet<string>();
        private int elements;

        private EncodedMessage()
        {
        }

        /// <summary>Gives the same message with references resolved.</summary>
        /// <exception cref="XmlFormatException">It is not well-formed, or a reference leads nowhere or back to itself.</exception>
        internal static byte[] Literal(byte[] message, string encoding, XmlLimits limits)
        {
            XmlInput input = XmlInput.Open(new MemoryStream(message, false), encoding, NoTypes.Instance, limits);
            XElement envelope = input.Tree();
            input.Finish();
            EncodedMessage encoded = new EncodedMessage();
            foreach (XElement element in envelope.DescendantsAndSelf())
            {
                XAttribute id = element.Attribute("id");
                if (id != null && encoded.targets.ContainsKey(id.Value))
                {
                    throw new XmlFormatException("the id \"" + id.Value + "\" is there twice");
                }
                if (id != null)
                {
                    encoded.targets[id.Value] = element;
                }
            }
            DropIndependent(envelope);
            return NoTypes.Instance.WriteTree(encoded.Copy(envelope, envelope.Name));
        }

        private void Count()
        {
            if (++this.elements > MostElements)
            {
                throw new XmlFormatException("references make the message grow beyond " + MostElements + " elements");
            }
        }

        private XElement Copy(XElement tree, XName name)
        {
            this.Count();
            XAttribute href = tree.Attribute("href");
            if (href != null && href.Value.StartsWith("#", StringComparison.Ordinal))
            {
                XElement target;
                if (!this.targets.TryGetValue(href.Value.Substring(1), out target))
                {
                    throw new XmlFormatException("the reference \"" + href.Value + "\" leads nowhere");
                }
                if (!this.open.Add(href.Value))
                {
                    throw new XmlFormatException("the reference \"" + href.Value + "\" leads back to itself");
                }
                XElement found = this.Copy(target, name);
                this.open.Remove(href.Value);
                found.SetAttributeValue(XName.Get("id", XmlNames.Shared), href.Value);
                return found;
            }
            XElement copy = new XElement(name);
            foreach (XAttribute attribute in tree.Attributes())
            {
                if (!ServesEncoding(attribute, tree))
                {
                    copy.SetAttributeValue(attribute.Name, attribute.Value);
                }
            }
            KeepPrefixes(tree, copy);
            foreach (XNode node in tree.Nodes())
            {
                XElement element = node as XElement;
                XText text = node as XText;
                if (element != null)
                {
                    copy.Add(this.Copy(element, element.Name));
                }
                else if (text != null)
                {
                    copy.Add(new XText(text.Value));
                }
            }
            this.Spread(tree, copy);
            return copy;
        }

        /// <summary>
        /// Puts the members of an array where they say that they are, with what is nil before and between them (SOAP 1.1, sections
        /// 5.4.2.1 and 5.4.2.2).
        /// </summary>
        private void Spread(XElement array, XElement copy)
        {
            XAttribute offset = array.Attribute(XName.Get("offset", XmlNames.SoapEncoding));
            List<XAttribute> positions =
                array.Elements().Select(one => one.Attribute(XName.Get("position", XmlNames.SoapEncoding))).ToList();
            if (offset == null && positions.All(one => one == null))
            {
                return;
            }
            List<XElement> members = copy.Elements().ToList();
            SortedDictionary<int, XElement> placed = new SortedDictionary<int, XElement>();
            int next = offset == null ? 0 : Place(offset.Value);
            for (int i = 0; i < members.Count; i++)
            {
                int at = positions[i] == null ? next : Place(positions[i].Value);
                if (placed.ContainsKey(at))
                {
                    throw new XmlFormatException("two members of an array are at place [" + Lexical.Print(at) + "]");
                }
                placed.Add(at, members[i]);
                next = at + 1;
            }
            copy.RemoveNodes();
            int from = 0;
            foreach (KeyValuePair<int, XElement> one in placed)
            {
                for (; from < one.Key; from++)
                {
                    this.Count();
                    copy.Add(new XElement(members[0].Name, new XAttribute(XName.Get("nil", XmlNames.Instance), "true")));
                }
                copy.Add(one.Value);
                from++;
            }
        }

        /// <summary>The place that an array of one dimension is said to have for a member.</summary>
        private static int Place(string said)
        {
            string place = said.Trim(' ', '\t', '\r', '\n');
            int at = 0;
            if (place.Length < 3 || place.Length > 8 || place[0] != '[' || place[place.Length - 1] != ']'
                || !int.TryParse(place.Substring(1, place.Length - 2), NumberStyles.None, CultureInfo.InvariantCulture, out at))
            {
                throw new XmlFormatException("\"" + said + "\" is no place in an array of one dimension");
            }
            return at;
        }

        /// <summary>What is moved to another place takes the prefixes with it that its values use.</summary>
        private static void KeepPrefixes(XElement from, XElement to)
        {
            XAttribute type = from.Attribute(XName.Get("type", XmlNames.Instance));
            string text = (type == null ? "" : type.Value + " ") + (from.HasElements ? "" : from.Value);
            foreach (string word in text.Split(' ', '\t', '\r', '\n'))
            {
                int colon = word.IndexOf(':');
                XNamespace space = null;
                try
                {
                    space = colon > 0 ? from.GetNamespaceOfPrefix(word.Substring(0, colon)) : null;
                }
                catch (Exception e) when (e is XmlException || e is ArgumentException)
                {
                    // What stands before the colon can be no prefix.
                    space = null;
                }
                if (space != null && space != XNamespace.Xml && space != XNamespace.Xmlns)
                {
                    to.SetAttributeValue(XNamespace.Xmlns + word.Substring(0, colon), space.NamespaceName);
                }
            }
        }

        private static bool ServesEncoding(XAttribute attribute, XElement tree)
        {
            if (attribute.Name == "id")
            {
                return true;
            }
            if (attribute.Name == XName.Get("type", XmlNames.Instance))
            {
                int colon = attribute.Value.IndexOf(':');
                XNamespace space = colon > 0 ? tree.GetNamespaceOfPrefix(attribute.Value.Substring(0, colon).Trim()) : null;
                return space != null && space.NamespaceName == XmlNames.SoapEncoding;
            }
            return attribute.Name.NamespaceName == XmlNames.SoapEncoding;
        }

        /// <summary>
        /// One element in the body is the call or the answer, or with others that have no identifier a part of it; those with one are
        /// there to be referred to, wherever they stand (SOAP 1.1, sections 5.4.1 and 5.6).
        /// </summary>
        private static void DropIndependent(XElement envelope)
        {
            foreach (XElement body in envelope.Elements().Where(one => one.Name.LocalName == "Body"))
            {
                List<XElement> all = body.Elements().ToList();
                int root = Root(all);
                for (int i = 0; i < all.Count; i++)
                {
                    if (i != root && all[i].Attribute("id") != null)
                    {
                        // Its declarations of prefixes go with it, so that it can be referred to from elsewhere.
                        XElement independent = all[i];
                        foreach (XElement around in independent.Ancestors().ToList())
                        {
                            foreach (XAttribute declared in around.Attributes().Where(one => one.IsNamespaceDeclaration))
                            {
                                if (independent.Attribute(declared.Name) == null && declared.Name.NamespaceName.Length > 0)
                                {
                                    independent.SetAttributeValue(declared.Name, declared.Value);
                                }
                            }
                        }
                        independent.Remove();
                    }
                }
            }
        }

        /// <summary>Which element is the call: the one that says so, or the first that neither is referred to nor says that it is none.</summary>
        private static int Root(List<XElement> body)
        {
            int first = -1;
            for (int i = 0; i < body.Count; i++)
            {
                XAttribute root = body[i].Attribute(XName.Get("root", XmlNames.SoapEncoding));
                if (root != null && (root.Value == "1" || root.Value == "true"))
                {
                    return i;
                }
                bool mayBe = root == null && body[i].Attribute("id") == null;
                first = first < 0 && mayBe ? i : first;
            }
            return Math.Max(first, 0);
        }
    }
}
