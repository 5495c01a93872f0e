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

        private List<Spelling> texts;
        private Dictionary<string, List<Spelling>> further;
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

        /// <summary>Keeps the original way of writing; those of a member come in the order of their places.</summary>
        internal void Keep(string member, int index, string ordinary, string original)
        {
            List<Spelling> kept;
            if (index == 0)
            {
                this.texts = this.texts ?? new List<Spelling>(2);
                kept = this.texts;
            }
            else
            {
                this.further = this.further ?? new Dictionary<string, List<Spelling>>();
                if (!this.further.TryGetValue(member, out kept))
                {
                    this.further[member] = kept = new List<Spelling>();
                }
            }
            kept.Add(new Spelling { Member = member, Index = index, Ordinary = ordinary, Original = original });
        }

        /// <summary>The original way of writing, if the value is still the same; otherwise null.</summary>
        internal string Text(string member, int index, string ordinary)
        {
            // Of first values there are as many as members, of further ones as many as somebody sends.
            List<Spelling> kept = index == 0 ? this.texts : null;
            if (index > 0 && this.further != null)
            {
                this.further.TryGetValue(member, out kept);
            }
            if (kept == null)
            {
                return null;
            }
            for (int i = First(kept, index, one => one.Index); i < kept.Count && kept[i].Index == index; i++)
            {
                if (kept[i].Member == member && kept[i].Ordinary == ordinary)
                {
                    return kept[i].Original;
                }
            }
            return null;
        }

        /// <summary>Where the first of some is that has a place or one behind it, for they are in order and may be many.</summary>
        private static int First<T>(List<T> of, int place, Func<T, int> places)
        {
            int low = 0;
            int high = of.Count;
            while (low < high)
            {
                int middle = low + (high - low) / 2;
                if (places(of[middle]) < place)
                {
                    low = middle + 1;
                }
                else
                {
                    high = middle;
                }
            }
            return low;
        }

        internal void KeepChild(Child child)
        {
            this.children = this.children ?? new List<Child>();
            this.children.Add(child);
        }

        /// <summary>What was said about a child, if the child in that place is still of that name; otherwise null.</summary>
        internal Child ChildAt(int ordinal, string name)
        {
            int at = this.children == null ? 0 : First(this.children, ordinal, one => one.Ordinal);
            Child child = this.children != null && at < this.children.Count ? this.children[at] : null;
            return child != null && child.Ordinal == ordinal && child.Name == name ? child : null;
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

        /// <summary>A value in the ordinary and in the original way of writing, with its place among those of its member.</summary>
        private struct Spelling
        {
            internal string Member;
            internal int Index;
            internal string Ordinary;
            internal string Original;
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

            /// <summary>What is still true when a text is written in its place; null is nil.</summary>
            internal Child Before(string written)
            {
                return this.IsSame(written) ? this : this.Anew(written != null && this.IsOfBuiltin(written));
            }

            /// <summary>What is still true when a qualified name is written in its place, which is the same under another prefix.</summary>
            internal Child Before(XName written)
            {
                Child kept = this.Anew(true);
                bool same = this.IsSame(written);
                kept.Type = same ? this.Type : null;
                kept.Extension = same ? this.Extension : null;
                return kept;
            }

            /// <summary>What is still true when binary content is referred to in its place.</summary>
            internal Child Before(Attachment written)
            {
                bool same = this.Content == null ? this.IsSame(written.ToBase64()) : this.Content.Equals(written);
                return same ? this : this.Anew(false);
            }

            /// <summary>What is true of any value in its place.</summary>
            internal Child Anew(bool typed)
            {
                return new Child
                {
                    Ordinal = this.Ordinal,
                    Name = this.Name,
                    Type = typed && this.Extension == null ? this.Type : null,
                    Instance = this.Instance
                };
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

            private bool IsSame(XName written)
            {
                string came = this.Text == null ? "" : Lexical.Collapse(this.Text);
                int colon = came.IndexOf(':');
                string prefix = came.Substring(0, Math.Max(0, colon));
                string space = prefix == "xml" ? XmlNames.Xml : "";
                if (this.Prefixes.ContainsKey(prefix))
                {
                    space = this.Prefixes[prefix];
                }
                return came.Substring(colon + 1) == written.LocalName && space == written.NamespaceName;
            }

            /// <summary>Whether a text is of the type that was stated, as far as that is known here.</summary>
            private bool IsOfBuiltin(string written)
            {
                if (this.Type == null || this.Type.NamespaceName != XmlNames.Schema)
                {
                    return false;
                }
                XmlSimple value = XmlSimple.Empty(this.Type, this.Type.LocalName);
                return !value.HoldsNames && value.Accepts(written);
            }

            /// <summary>Says again what was said beside the value; a type that adds to it goes with what it added.</summary>
            internal void Write(XmlOutput output)
            {
                if (this.Type != null)
                {
                    output.Attribute(XmlNames.Instance, "type", output.Name(this.Type));
                }
                output.Attributes(this.Instance);
            }
        }
    }
}
