namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Collections.ObjectModel;
    using System.Xml.Linq;

    /// <summary>
    /// What a message said in another way than we would: values written out of the ordinary, such as <c>007</c> or <c>1</c> for
    /// true, and elements that may come in any order. It is kept so that nothing changes in a message that is read and written
    /// again, and it is no part of what a value means.
    /// </summary>
    internal sealed class XmlNotes
    {
        internal static readonly IDictionary<string, string> NoPrefixes =
            new ReadOnlyDictionary<string, string>(new Dictionary<string, string>());

        internal static readonly List<KeyValuePair<XName, string>> NoAttributes = new List<KeyValuePair<XName, string>>();

        private readonly List<KeyValuePair<string, string[]>> texts = new List<KeyValuePair<string, string[]>>();
        private List<Child> children;
        private int[] order;

        /// <summary>What an element stands for when it is empty, or null.</summary>
        internal string Standing;

        internal XmlNotes()
        {
            this.Own = NoAttributes;
            this.Prefixes = NoPrefixes;
        }

        /// <summary>Attributes that the message had and the type says nothing of.</summary>
        internal List<KeyValuePair<XName, string>> Own { get; private set; }

        /// <summary>Prefixes that values inside use, with their namespaces: they are declared on the element.</summary>
        internal IDictionary<string, string> Prefixes { get; private set; }

        internal void KeepOwn(List<KeyValuePair<XName, string>> attributes)
        {
            if (attributes.Count > 0)
            {
                List<KeyValuePair<XName, string>> all = new List<KeyValuePair<XName, string>>(this.Own);
                all.AddRange(attributes);
                this.Own = all;
            }
        }

        internal void KeepPrefixes(IDictionary<string, string> declared)
        {
            if (declared.Count > 0)
            {
                Dictionary<string, string> all = new Dictionary<string, string>(this.Prefixes);
                foreach (KeyValuePair<string, string> one in declared)
                {
                    all[one.Key] = one.Value;
                }
                this.Prefixes = all;
            }
        }

        internal void Keep(string member, int index, string ordinary, string original)
        {
            this.texts.Add(new KeyValuePair<string, string[]>(member + "/" + index, new[] { ordinary, original }));
        }

        /// <summary>The original way of writing, if the value is still the same; the ordinary one otherwise.</summary>
        internal string Text(string member, int index, string ordinary)
        {
            if (this.texts.Count > 0)
            {
                string key = member + "/" + index;
                foreach (KeyValuePair<string, string[]> text in this.texts)
                {
                    if (text.Key == key && text.Value[0] == ordinary)
                    {
                        return text.Value[1];
                    }
                }
            }
            return ordinary;
        }

        internal void KeepChild(Child child)
        {
            this.children = this.children ?? new List<Child>();
            this.children.Add(child);
        }

        /// <summary>What was said about a child, if the child in that place is still of that name; otherwise null.</summary>
        internal Child ChildAt(int ordinal, string name)
        {
            return this.children == null ? null : this.children.Find(child => child.Ordinal == ordinal && child.Name == name);
        }

        /// <summary>The values of complex types that stood for children of a name, or of all.</summary>
        internal List<XmlObject> Extensions(string name)
        {
            List<XmlObject> found = new List<XmlObject>();
            foreach (Child child in this.children ?? new List<Child>())
            {
                if (child.Extension != null && (name == null || child.Name == name))
                {
                    found.Add(child.Extension);
                }
            }
            return found;
        }

        internal void KeepOrder(int[] parts, int count)
        {
            this.order = new int[count];
            Array.Copy(parts, this.order, count);
        }

        /// <summary>The parts in the order in which they came, the ones that did not come behind them.</summary>
        internal int[] Order(int count)
        {
            List<int> all = new List<int>();
            foreach (int part in this.order ?? new int[0])
            {
                if (!all.Contains(part))
                {
                    all.Add(part);
                }
            }
            for (int part = 0; part < count; part++)
            {
                if (!all.Contains(part))
                {
                    all.Add(part);
                }
            }
            return all.ToArray();
        }

        /// <summary>What a message said about a child of a simple type beside its value.</summary>
        internal sealed class Child
        {
            /// <summary>Which child of the element it is, from 1.</summary>
            internal int Ordinal;

            internal string Name;

            /// <summary>The text it had, or null when it was nil.</summary>
            internal string Text;

            /// <summary>What it referred to instead of having text, or null.</summary>
            internal Attachment Content;

            /// <summary>The type that <c>xsi:type</c> named, or null.</summary>
            internal XName Type;

            /// <summary>Other attributes of the instance namespace.</summary>
            internal List<KeyValuePair<XName, string>> Instance = NoAttributes;

            /// <summary>Those that the text uses or may use, with their namespaces.</summary>
            internal IDictionary<string, string> Prefixes = NoPrefixes;

            /// <summary>The value of the type when it is a complex one, which has attributes, or null.</summary>
            internal XmlObject Extension;

            /// <summary>The prefixes to declare: those of a text that is still the same.</summary>
            internal IDictionary<string, string> PrefixesOf(string written)
            {
                return this.IsSame(written) ? this.Prefixes : NoPrefixes;
            }

            /// <summary>The value of a complex type that stood for a simple one, if the child still is that value; otherwise null.</summary>
            internal XmlObject ExtensionOf(string written)
            {
                return this.Extension != null && this.IsSame(written) ? this.Extension : null;
            }

            /// <summary>Does the same for binary content that is about to be referred to.</summary>
            internal XmlObject ExtensionOf(Attachment written)
            {
                if (this.Extension == null || this.Text == null)
                {
                    return null;
                }
                bool same = this.Content == null ? this.IsSame(written.ToBase64()) : this.Content.Equals(written);
                return same ? this.Extension : null;
            }

            /// <summary>Does the same for a qualified name, which is the same under another prefix.</summary>
            internal XmlObject ExtensionOf(XName written)
            {
                if (this.Extension == null || this.Text == null)
                {
                    return null;
                }
                string came = Lexical.Collapse(this.Text);
                int colon = came.IndexOf(':');
                string prefix = came.Substring(0, Math.Max(0, colon));
                string space = prefix == "xml" ? XmlNames.Xml : null;
                bool isKnown = space != null || this.Prefixes.TryGetValue(prefix, out space);
                bool same = came.Substring(colon + 1) == written.LocalName && (isKnown ? space : "") == written.NamespaceName;
                return same ? this.Extension : null;
            }

            private bool IsSame(string written)
            {
                if (this.Content != null && written != null)
                {
                    return written == this.Content.ToBase64();
                }
                return this.Text == null || written == null
                    ? this.Text == written
                    : Lexical.Collapse(this.Text) == Lexical.Collapse(written);
            }

            /// <summary>Says again what was said beside the value; a type that adds to it goes with what it added.</summary>
            internal void Write(XmlOutput output)
            {
                if (this.Type != null && this.Extension == null)
                {
                    output.Attribute(XmlNames.Instance, "type", output.Name(this.Type));
                }
                output.Attributes(this.Instance);
            }
        }
    }
}
