namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Globalization;
    using System.IO;
    using System.Linq;
    using System.Xml.Linq;

    /// <summary>
    /// Brings a message in the SOAP encoding (SOAP 1.1, section 5) into the form of a literal one: what is said once and referred to
    /// is put where it is referred to, and attributes that only serve the encoding are taken off.
    /// </summary>
    internal sealed class EncodedMessage
    {
        /// <summary>References may multiply what they refer to: a message may grow tenfold, and by so many elements.</summary>
        private const int MostMore = 100000;

        /// <summary>The largest array whose members say their places.</summary>
        private const int MostMembers = 1000000;

        private const int MostDimensions = 32;

        private static readonly char[] Blanks = { ' ', '\t', '\r', '\n' };

        private readonly XmlLimits limits;
        private readonly Dictionary<string, XElement> targets = new Dictionary<string, XElement>();
        private readonly HashSet<XElement> independent = new HashSet<XElement>();
        private readonly HashSet<string> open = new HashSet<string>();
        private int elements;
        private long mostElements = MostMore;
        private long characters;

        private EncodedMessage(XmlLimits limits)
        {
            this.limits = limits;
        }

        /// <summary>Gives the same message with references resolved.</summary>
        /// <exception cref="XmlFormatException">
        /// It is not well-formed, a reference leads nowhere or back to itself, or references make it larger or deeper than the limits allow.
        /// </exception>
        internal static byte[] Literal(byte[] message, string encoding, XmlLimits limits)
        {
            XmlInput input = XmlInput.Open(new MemoryStream(message, false), encoding, NoTypes.Instance, limits);
            XElement envelope = input.Tree();
            input.Finish();
            EncodedMessage encoded = new EncodedMessage(limits);
            foreach (XElement element in envelope.DescendantsAndSelf())
            {
                encoded.mostElements += 10;
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
            encoded.LeaveOut(envelope);
            return NoTypes.Instance.WriteTree(encoded.Copy(envelope, 1));
        }

        private void Count()
        {
            if (++this.elements > this.mostElements)
            {
                throw new XmlFormatException("references make the message grow beyond " + this.mostElements + " elements");
            }
        }

        /// <summary>Takes text of the copy, which must not be longer than a message may be that says everything where it stands.</summary>
        private void Count(string text)
        {
            this.characters += text.Length;
            if (this.characters > this.limits.Bytes)
            {
                throw new XmlFormatException("references make the message grow beyond " + this.limits.Bytes + " bytes");
            }
        }

        private static string Reference(XElement tree)
        {
            XAttribute href = tree.Attribute("href");
            return href != null && href.Value.StartsWith("#", StringComparison.Ordinal) ? href.Value : null;
        }

        private XElement Copy(XElement tree, int depth)
        {
            this.Count();
            this.Count(tree.Name.LocalName);
            List<string> way = new List<string>();
            XElement target = tree;
            for (string href = Reference(tree); href != null; href = Reference(target))
            {
                if (!this.targets.TryGetValue(href.Substring(1), out target))
                {
                    throw new XmlFormatException("the reference \"" + href + "\" leads nowhere");
                }
                if (!this.open.Add(href))
                {
                    throw new XmlFormatException("the reference \"" + href + "\" leads back to itself");
                }
                this.Count();
                way.Add(href);
            }
            XElement copy = this.Content(target, tree.Name, depth);
            foreach (string href in way)
            {
                this.open.Remove(href);
                copy.SetAttributeValue(XName.Get("id", XmlNames.Shared), href);
            }
            return copy;
        }

        private XElement Content(XElement tree, XName name, int depth)
        {
            if (depth > this.limits.Depth)
            {
                throw new XmlFormatException("elements are nested deeper than " + this.limits.Depth + " levels");
            }
            XElement copy = new XElement(name);
            foreach (XAttribute attribute in tree.Attributes())
            {
                if (!ServesEncoding(attribute, tree))
                {
                    this.Count(attribute.Name.LocalName);
                    this.Count(attribute.Value);
                    copy.SetAttributeValue(attribute.Name, attribute.Value);
                }
            }
            foreach (XNode node in tree.Nodes())
            {
                XElement element = node as XElement;
                XText text = node as XText;
                if (element != null && !this.independent.Contains(element))
                {
                    copy.Add(this.Copy(element, depth + 1));
                }
                else if (text != null)
                {
                    this.Count(text.Value);
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
            XAttribute type = array.Attribute(XName.Get("arrayType", XmlNames.SoapEncoding));
            XAttribute offset = array.Attribute(XName.Get("offset", XmlNames.SoapEncoding));
            List<XAttribute> positions =
                array.Elements().Select(one => one.Attribute(XName.Get("position", XmlNames.SoapEncoding))).ToList();
            if (offset == null && positions.All(one => one == null))
            {
                return;
            }
            List<XElement> members = copy.Elements().ToList();
            SortedDictionary<int, XElement> placed = new SortedDictionary<int, XElement>();
            int next = offset == null ? 0 : Place(offset.Value, type);
            for (int i = 0; i < members.Count; i++)
            {
                int at = positions[i] == null ? next : Place(positions[i].Value, type);
                if (placed.ContainsKey(at))
                {
                    throw new XmlFormatException("two members of an array are at place "
                        + (positions[i] == null ? "[" + Lexical.Print(at) + "]" : positions[i].Value));
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

        /// <summary>How many members of an array stand before a place in it: those of a row follow each other (SOAP 1.1, section 5.4.2).</summary>
        private static int Place(string said, XAttribute arrayType)
        {
            string type = arrayType == null ? "" : arrayType.Value.Trim(Blanks);
            string[] sizes = Coordinates(type.Length == 0 ? "[]" : type.Substring(Math.Max(0, type.LastIndexOf('['))));
            string[] place = Coordinates(said.Trim(Blanks));
            bool known = place.Length == sizes.Length;
            long before = 0;
            for (int i = 0; i < place.Length && known; i++)
            {
                // How many rows there are need not be known, how long they are must.
                int size = i == 0 ? MostMembers : Number(sizes[i]);
                int at = Number(place[i]);
                before = (before * size) + at;
                known = at >= 0 && at < size && before < MostMembers;
            }
            if (!known)
            {
                throw new XmlFormatException("\"" + said + "\" is no place in an array of "
                    + (sizes.Length == 1 ? "one dimension" : Lexical.Print(sizes.Length) + " dimensions"));
            }
            return (int)before;
        }

        private static string[] Coordinates(string place)
        {
            bool sound = place.Length > 1 && place[0] == '[' && place[place.Length - 1] == ']';
            string[] all = sound ? place.Substring(1, place.Length - 2).Split(new[] { ',' }, MostDimensions) : new[] { "?" };
            return all.Select(one => one.Trim(Blanks)).ToArray();
        }

        /// <summary>A size or a coordinate; -1 for what is none.</summary>
        private static int Number(string text)
        {
            int number = -1;
            return text.Length <= 6 && int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out number) ? number : -1;
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
                string prefix = colon > 0 ? attribute.Value.Substring(0, colon).Trim(Blanks) : null;
                return tree.Attributes().Any(one => one.IsNamespaceDeclaration && one.Name.LocalName == prefix
                    && one.Value == XmlNames.SoapEncoding);
            }
            // That it is an array is all that tells of what no type says.
            return attribute.Name.NamespaceName == XmlNames.SoapEncoding && attribute.Name.LocalName != "arrayType";
        }

        /// <summary>
        /// One element in the body is the call or the answer, or with others that have no identifier a part of it; those with one are
        /// there to be referred to, wherever they stand (SOAP 1.1, sections 5.4.1 and 5.6).
        /// </summary>
        private void LeaveOut(XElement envelope)
        {
            foreach (XElement body in envelope.Elements().Where(one => one.Name.LocalName == "Body"))
            {
                List<XElement> all = body.Elements().ToList();
                int root = Root(all);
                this.independent.UnionWith(all.Where((one, i) => i != root && one.Attribute("id") != null));
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
