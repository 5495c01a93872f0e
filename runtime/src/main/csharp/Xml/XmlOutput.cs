namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Xml.Linq;

    /// <summary>Where binary content may go rather than into the message (XOP 1.0, section 3.1).</summary>
    internal abstract class OutgoingParts
    {
        /// <summary>Whether content of so many bytes travels beside the message.</summary>
        internal abstract bool Takes(long length);

        /// <summary>Takes content; gives the reference to it.</summary>
        internal abstract string Refer(Attachment content);
    }

    /// <summary>
    /// A message being written. Namespaces are declared on the root element, each once, under the prefixes asked for or under
    /// made-up ones; content that brings prefixes of its own declares them where it stands.
    /// </summary>
    public sealed partial class XmlOutput
    {
        private const string Declaration = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n";

        private readonly XmlTypes types;
        private readonly XmlText body = new XmlText(1024);
        private string[] openNames = new string[64];
        private int[] localCounts = new int[32];
        private int[] children = new int[33];
        private XmlObject current;
        private int depth;
        private bool tagOpen;
        private int rootTagEnd = -1;
        private OutgoingParts parts;
        private SharedValues shared;
        private string envelope;
        private bool counting;
        private XName pendingType;
        internal XmlOutput(XmlTypes types)
        {
            this.types = types;
            this.rootPrefixes[XmlNames.Xml] = "xml";
        }

        /// <summary>Says where binary content may go rather than into the message.</summary>
        internal void SetParts(OutgoingParts around)
        {
            this.parts = around;
        }

        /// <summary>
        /// Writes in the SOAP encoding from now on: values say their types, and those that stand in several places are written
        /// once.
        /// </summary>
        /// <param name="values">knows which those are</param>
        /// <param name="trial">whether nothing but that is to be found out</param>
        internal void Encode(SharedValues values, bool trial)
        {
            this.shared = values;
            this.counting = trial;
        }

        /// <summary>Says in what envelope it is written.</summary>
        internal void InEnvelope(string space)
        {
            this.envelope = space;
            this.Prefer("soap", space);
        }

        /// <summary>Writes the values that others have referred to.</summary>
        internal void WriteSharedValues()
        {
            for (int i = 0; i < this.shared.All.Count; i++)
            {
                XmlObject value = this.shared.All[i];
                this.Open("", "shared", value.LocalPrefixes);
                this.Attribute("", "id", this.shared.Id(value));
                // SOAP 1.1, sections 4.1.1 and 5.6: they stand outside of the call that says how it is written, and are no call.
                this.EncodingStyle(this.envelope);
                this.Attribute(XmlNames.SoapEncoding, "root", "0");
                this.StateType(value);
                this.Content(value);
            }
        }

        /// <summary>Says of what type the element is that is written next, for encodings that want to be told.</summary>
        public void Typed(string space, string name)
        {
            if (this.shared != null)
            {
                this.pendingType = XName.Get(name, space);
            }
        }

        /// <summary>Opens an element.</summary>
        public void Open(string space, string name)
        {
            this.Open(space, name, XmlNotes.NoPrefixes);
        }

        /// <summary>Opens an element and declares prefixes on it, which its own name must not fall under.</summary>
        private void Open(string space, string name, IDictionary<string, string> prefixes)
        {
            this.CloseTag();
            if (this.depth == this.localCounts.Length)
            {
                Array.Resize(ref this.localCounts, this.depth * 2);
                Array.Resize(ref this.children, this.depth * 2 + 1);
                Array.Resize(ref this.openNames, this.depth * 4);
            }
            this.localCounts[this.depth] = this.localDeclarations.Count;
            if (this.depth == 0)
            {
                this.onRoot = prefixes;
            }
            if (prefixes.Count > 0 && this.localPrefixes.Count > 0)
            {
                prefixes = this.Undeclared(prefixes);
            }
            bool declares = prefixes != XmlNotes.NoPrefixes && prefixes.Count > 0;
            if (declares)
            {
                foreach (KeyValuePair<string, string> declared in prefixes)
                {
                    this.Bind(declared.Key, declared.Value);
                }
            }
            string known = space.Length == 0 ? "" : this.Prefix(space);
            string prefix = known ?? this.Unused("h" + this.depth);
            this.openNames[2 * this.depth] = prefix;
            this.openNames[2 * this.depth + 1] = name;
            this.children[this.depth++]++;
            this.children[this.depth] = 0;
            this.body.Append('<').AppendName(prefix, name);
            this.tagOpen = true;
            if (declares)
            {
                foreach (KeyValuePair<string, string> declared in prefixes)
                {
                    this.body.AppendDeclaration(declared.Key, declared.Value);
                }
            }
            if (known == null)
            {
                this.Declare(prefix, space);
            }
            else if (space.Length == 0 && this.IsHidden("", ""))
            {
                this.Declare("", "");
            }
        }

        private void CloseTag()
        {
            if (this.tagOpen)
            {
                if (this.depth == 1)
                {
                    this.rootTagEnd = this.body.Length;
                }
                this.body.Append('>');
                this.tagOpen = false;
            }
        }

        /// <summary>Closes the element opened last.</summary>
        public void Close()
        {
            this.depth--;
            if (this.tagOpen)
            {
                if (this.depth == 0)
                {
                    this.rootTagEnd = this.body.Length;
                }
                this.body.Append("/>");
                this.tagOpen = false;
            }
            else
            {
                this.body.Append("</").AppendName(this.openNames[2 * this.depth], this.openNames[2 * this.depth + 1]).Append('>');
            }
            int count = this.localCounts[this.depth];
            while (this.localDeclarations.Count > count)
            {
                KeyValuePair<string, string> ended = this.localDeclarations[this.localDeclarations.Count - 1];
                this.localDeclarations.RemoveAt(this.localDeclarations.Count - 1);
                if (ended.Value == null)
                {
                    this.localPrefixes.Remove(ended.Key);
                }
                else
                {
                    this.localPrefixes[ended.Key] = ended.Value;
                }
            }
        }

        /// <summary>Adds an attribute to the element just opened, unless the value is null.</summary>
        public void Attribute(string space, string name, string value)
        {
            if (value == null)
            {
                return;
            }
            string prefix = space.Length == 0 ? "" : this.PrefixInTag(space);
            this.body.Append(' ').AppendName(prefix, name).Append("=\"");
            this.body.AppendEscaped(value, true);
            this.body.Append('"');
        }

        /// <summary>Adds an attribute that holds a qualified name, unless the value is null.</summary>
        public void Attribute(string space, string name, XName value)
        {
            if (value != null)
            {
                this.Attribute(space, name, this.Name(value));
            }
        }

        /// <summary>Adds attributes of which the contract leaves the names open.</summary>
        public void Attributes(IEnumerable<KeyValuePair<XName, string>> attributes)
        {
            foreach (KeyValuePair<XName, string> one in attributes)
            {
                this.Attribute(one.Key.NamespaceName, one.Key.LocalName, one.Value);
            }
        }

        /// <summary>Writes text content.</summary>
        public void Text(string value)
        {
            this.CloseTag();
            this.body.AppendEscaped(value, false);
        }

        /// <summary>Writes an element of a simple type, unless the value is null.</summary>
        public void Element(string space, string name, string value)
        {
            if (value == null)
            {
                this.pendingType = null;
                return;
            }
            if (this.IsPlain)
            {
                this.CloseTag();
                this.children[this.depth]++;
                this.body.AppendElement(space.Length == 0 ? "" : this.Prefix(space), name, value);
                return;
            }
            XmlNotes.Child note = this.Note(name);
            XmlNotes.Child kept = note == null ? null : note.Before(value);
            if (this.Extended(space, name, kept))
            {
                return;
            }
            this.OpenChild(space, name, kept);
            if (value.Length > 0)
            {
                this.Text(value);
            }
            this.Close();
        }

        /// <summary>Whether nothing stands beside the value of an element that is written next: no type, no note, no declaration.</summary>
        private bool IsPlain
        {
            get
            {
                return this.depth > 0
                    && this.pendingType == null
                    && this.localDeclarations.Count == 0
                    && (this.current == null || this.current.NotesIfAny == null);
            }
        }

        /// <summary>What the message had on the child that is about to be written and its type has no place for, or null.</summary>
        private XmlNotes.Child Note(string name)
        {
            XmlNotes notes = this.current == null || this.pendingType != null ? null : this.current.NotesIfAny;
            return notes == null ? null : notes.ChildAt(this.children[this.depth] + 1, name);
        }

        /// <summary>Writes the value of a complex type that stood for a simple one, if there is one.</summary>
        private bool Extended(string space, string name, XmlNotes.Child kept)
        {
            XmlObject extension = kept == null ? null : kept.Extension;
            this.Object(space, name, extension, null);
            return extension != null;
        }

        /// <summary>Opens an element of a simple type, with what the message had on it beside its value.</summary>
        private void OpenChild(string space, string name, XmlNotes.Child kept)
        {
            this.Open(space, name, kept == null ? XmlNotes.NoPrefixes : kept.Prefixes);
            if (this.pendingType != null)
            {
                this.Attribute(XmlNames.Instance, "type", this.Name(this.pendingType));
                this.pendingType = null;
            }
            else if (kept != null)
            {
                kept.Write(this);
            }
        }

        /// <summary>Opens an element of a simple type of which the text depends on what is declared there.</summary>
        public void OpenChild(string space, string name)
        {
            XmlNotes.Child note = this.Note(name);
            this.OpenChild(space, name, note == null ? null : note.Anew(true));
        }

        /// <summary>Writes an element that refers to binary content beside the message, if there is a place for it; tells whether it did.</summary>
        public bool Attached(string space, string name, byte[] value)
        {
            return this.parts != null && this.parts.Takes(value.Length) && this.Refer(space, name, Attachment.Of(value));
        }

        /// <summary>Does the same for content that need not fit into memory.</summary>
        public bool Attached(string space, string name, Attachment value)
        {
            return this.parts != null && this.parts.Takes(value.Length) && this.Refer(space, name, value);
        }

        /// <summary>Refers to binary content beside the message from the element just opened, if there is a place for it.</summary>
        public bool Attached(byte[] value)
        {
            return this.parts != null && this.parts.Takes(value.Length) && this.Refer(Attachment.Of(value));
        }

        /// <summary>Does the same for content that need not fit into memory.</summary>
        public bool Attached(Attachment value)
        {
            return this.parts != null && this.parts.Takes(value.Length) && this.Refer(value);
        }

        private bool Refer(string space, string name, Attachment value)
        {
            XmlNotes.Child note = this.Note(name);
            XmlNotes.Child kept = note == null ? null : note.Before(value);
            if (!this.Extended(space, name, kept))
            {
                this.OpenChild(space, name, kept);
                this.Refer(value);
                this.Close();
            }
            return true;
        }

        private bool Refer(Attachment value)
        {
            this.Open(XmlNames.Xop, "Include");
            this.Attribute("", "href", this.parts.Refer(value));
            this.Close();
            return true;
        }

        /// <summary>Writes an element that is nil and has nothing else.</summary>
        public void Nil(string space, string name)
        {
            XmlNotes.Child note = this.Note(name);
            XmlNotes.Child kept = note == null ? null : note.Before((string)null);
            if (this.Extended(space, name, kept))
            {
                return;
            }
            this.OpenChild(space, name, kept);
            this.Attribute(XmlNames.Instance, "nil", "true");
            this.Close();
        }

        /// <summary>Writes an element of a complex type, unless the value is null.</summary>
        /// <param name="space">its namespace</param>
        /// <param name="name">its local name</param>
        /// <param name="value">what it holds</param>
        /// <param name="declared">the declared type: a value of another type says so with <c>xsi:type</c></param>
        public void Object(string space, string name, XmlObject value, Type declared)
        {
            if (value == null || (this.shared != null && this.IsElsewhere(space, name, value)))
            {
                return;
            }
            this.Open(space, name, value.LocalPrefixes);
            if (value.GetType() != declared || value.IsTypeStated || this.shared != null)
            {
                this.StateType(value);
            }
            this.Content(value);
        }

        /// <summary>Refers to a value that is written elsewhere, because it stands in several places.</summary>
        private bool IsElsewhere(string space, string name, XmlObject value)
        {
            if (this.counting)
            {
                return this.shared.Meet(value);
            }
            string id = this.shared.Id(value);
            if (id != null)
            {
                this.Open(space, name);
                this.Attribute("", "href", "#" + id);
                this.Close();
            }
            return id != null;
        }

        /// <summary>Says on the tag just opened that it is an array of so many items (SOAP 1.1, section 5.4.2).</summary>
        public void ArrayOf(string space, string type, int size)
        {
            this.Attribute(XmlNames.SoapEncoding, "arrayType", this.Name(XName.Get(type, space)) + "[" + Lexical.Print(size) + "]");
        }

        /// <summary>Says on the tag just opened that what is in it is in the SOAP encoding (SOAP 1.1, section 4.1.1).</summary>
        public void EncodingStyle(string otherwise)
        {
            this.Attribute(this.envelope ?? otherwise, "encodingStyle", XmlNames.SoapEncoding);
        }

        private void StateType(XmlObject value)
        {
            if (value.TypeName != null)
            {
                this.Attribute(XmlNames.Instance, "type", this.Name(value.TypeName));
            }
        }

        private void Content(XmlObject value)
        {
            XmlTree tree = value as XmlTree;
            if (tree != null)
            {
                this.TreeContent(tree.Element);
                return;
            }
            if (value.IsXmlNil)
            {
                this.Attribute(XmlNames.Instance, "nil", "true");
            }
            if (value.NotesIfAny != null)
            {
                this.Attributes(value.NotesIfAny.Own);
            }
            XmlObject around = this.current;
            this.current = value;
            value.DoWriteXmlAttributes(this);
            if (!value.IsXmlNil)
            {
                value.DoWriteXmlBody(this);
            }
            this.current = around;
            this.Close();
        }

        /// <summary>Writes an element with its name and typed content, unless it is null.</summary>
        public void Element<T>(XmlElement<T> element)
            where T : XmlObject
        {
            if (element == null)
            {
                return;
            }
            XmlTree tree = (XmlObject)element.Value as XmlTree;
            if (tree != null)
            {
                this.Any(element.Name.NamespaceName, element.Name.LocalName, tree.Element);
                return;
            }
            XmlObject declared = this.types.ElementContent(element.Name);
            this.Object(
                element.Name.NamespaceName, element.Name.LocalName, element.Value, declared == null ? null : declared.GetType());
        }

        /// <summary>Writes the members of a model group, which has no element of its own.</summary>
        public void Group(XmlObject group)
        {
            if (group != null)
            {
                group.DoWriteXmlElements(this);
            }
        }

        /// <summary>Writes an element that holds a qualified name, unless the value is null.</summary>
        public void Element(string space, string name, XName value)
        {
            XmlNotes.Child note = value == null ? null : this.Note(name);
            XmlNotes.Child kept = note == null ? null : note.Before(value);
            if (value != null && !this.Extended(space, name, kept))
            {
                this.OpenChild(space, name, kept);
                this.Text(this.Name(value));
                this.Close();
            }
            this.pendingType = null;
        }

        /// <summary>Ends the message; gives the whole document in UTF-8, nothing when nothing was written.</summary>
        internal byte[] Finish()
        {
            if (this.rootTagEnd < 0)
            {
                return new byte[0];
            }
            XmlText declarations = new XmlText(256);
            foreach (KeyValuePair<string, string> declared in this.rootDeclarations)
            {
                declarations.AppendDeclaration(declared.Key, declared.Value);
            }
            return this.body.ToUtf8(Declaration, this.rootTagEnd, declarations);
        }
    }
}
