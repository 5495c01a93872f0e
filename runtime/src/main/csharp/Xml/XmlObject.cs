namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Xml.Linq;

    /// <summary>
    /// A value with XML content, and so the root of every generated type. Derived types say how their own attributes and
    /// content are read and written. What they inherit comes first, as XML Schema Part 1, section 3.4.2 appends the content of
    /// an extension to that of its base.
    /// </summary>
    public abstract class XmlObject
    {
        private XmlNotes notes;

        /// <summary>The schema type that this class stands for, or null where the type has no name.</summary>
        protected virtual XName XmlTypeName
        {
            get { return null; }
        }

        /// <summary>
        /// Whether the element carries <c>xsi:nil="true"</c>: present, and said to have no content. Attributes may stand beside
        /// it.
        /// </summary>
        public bool IsXmlNil { get; set; }

        /// <summary>Takes the declared attributes off the start tag at which the input stands.</summary>
        protected virtual void ReadXmlAttributes(XmlInput input)
        {
        }

        /// <summary>Reads all between the start tag at which the input stands and its end tag, and moves past that.</summary>
        protected virtual void ReadXmlBody(XmlInput input)
        {
            input.Enter();
            this.ReadXmlElements(input);
            input.Leave();
        }

        /// <summary>Reads the child elements in the order that the schema gives.</summary>
        protected virtual void ReadXmlElements(XmlInput input)
        {
        }

        /// <summary>Adds the attributes to the start tag just opened.</summary>
        protected virtual void WriteXmlAttributes(XmlOutput output)
        {
        }

        /// <summary>Writes the content between start tag and end tag.</summary>
        protected virtual void WriteXmlBody(XmlOutput output)
        {
            this.WriteXmlElements(output);
        }

        /// <summary>Writes the child elements in the order that the schema gives.</summary>
        protected virtual void WriteXmlElements(XmlOutput output)
        {
        }

        /// <summary>Names the members and their values for <see cref="ToString"/>.</summary>
        protected virtual void DescribeXml(XmlDescription to)
        {
        }

        /// <summary>Checks the members; what they inherit comes first.</summary>
        protected virtual void CheckXml(XmlCheck to)
        {
        }

        /// <summary>
        /// Checks this value and all in it against the contract: required members, occurrence, choices, facets and fixed
        /// values.
        /// </summary>
        /// <returns>what is wrong, each naming the member; empty when nothing is</returns>
        public IReadOnlyList<Violation> Violations()
        {
            return new XmlCheck().Of(this);
        }

        /// <summary>
        /// The values of complex types that stand for child elements of a simple type, because the message named with
        /// <c>xsi:type</c> a type that extends it: they have the attributes that the simple type has no place for. They are
        /// written again as long as the elements keep their places and values.
        /// </summary>
        /// <param name="element">the local name of the elements</param>
        public IReadOnlyList<XmlObject> XmlExtensions(string element)
        {
            return this.notes == null ? (IReadOnlyList<XmlObject>)new XmlObject[0] : this.notes.Extensions(element);
        }

        /// <summary>Remembers how the message wrote a value, if it did so out of the ordinary.</summary>
        /// <param name="input">the input from which the value was just read</param>
        /// <param name="member">the member</param>
        /// <param name="index">the place in a list, otherwise 0</param>
        /// <param name="ordinary">how the value would be written without this</param>
        protected void KeepXmlText(XmlInput input, string member, int index, string ordinary)
        {
            string written = input.WrittenText;
            input.AffordNotes(this, 1, ordinary.Length + written.Length);
            this.Notes.Keep(member, index, ordinary, written);
        }

        /// <summary>How to write a value: as the message wrote it if it still has that value, in the ordinary way otherwise.</summary>
        protected string KeptXmlText(string member, int index, string ordinary)
        {
            return (this.notes == null ? null : this.notes.Text(member, index, ordinary)) ?? ordinary;
        }

        /// <summary>
        /// How to write a value: as the message wrote it if it still has that value, as the patterns of its type want it otherwise.
        /// </summary>
        protected string KeptXmlText(string member, int index, string ordinary, ValueRule rule)
        {
            return (this.notes == null ? null : this.notes.Text(member, index, ordinary)) ?? rule.Fitting(ordinary);
        }

        /// <summary>Remembers the order of parts that may come in any order.</summary>
        protected void KeepXmlOrder(int[] parts, int count)
        {
            for (int i = 1; i < count; i++)
            {
                if (parts[i] < parts[i - 1])
                {
                    this.Notes.KeepOrder(parts, count);
                    return;
                }
            }
        }

        /// <summary>The order in which to write so many parts that may come in any order.</summary>
        protected int[] KeptXmlOrder(int count)
        {
            return (this.notes ?? new XmlNotes()).Order(count);
        }

        /// <summary>What the element stands for when it is empty, or null for nothing but that.</summary>
        internal string StandingText
        {
            get { return this.notes == null ? null : this.notes.Standing; }
        }

        internal XmlNotes Notes
        {
            get { return this.notes ?? (this.notes = new XmlNotes()); }
        }

        internal XmlNotes NotesIfAny
        {
            get { return this.notes; }
        }

        /// <summary>Whether the message named the type although it is the declared one; kept so that it is written again.</summary>
        internal bool IsTypeStated { get; set; }

        internal virtual IDictionary<string, string> LocalPrefixes
        {
            get { return this.notes == null ? XmlNotes.NoPrefixes : this.notes.Prefixes; }
        }

        // What this package asks of a type, which is protected so that nobody else does.
        internal XName TypeName
        {
            get { return this.XmlTypeName; }
        }

        internal void DoReadXmlAttributes(XmlInput input)
        {
            this.ReadXmlAttributes(input);
        }

        internal void DoReadXmlBody(XmlInput input)
        {
            this.ReadXmlBody(input);
        }

        internal void DoReadXmlElements(XmlInput input)
        {
            this.ReadXmlElements(input);
        }

        internal void DoWriteXmlAttributes(XmlOutput output)
        {
            this.WriteXmlAttributes(output);
        }

        internal void DoWriteXmlBody(XmlOutput output)
        {
            this.WriteXmlBody(output);
        }

        internal void DoWriteXmlElements(XmlOutput output)
        {
            this.WriteXmlElements(output);
        }

        internal void DoDescribeXml(XmlDescription to)
        {
            this.DescribeXml(to);
        }

        internal void DoCheckXml(XmlCheck to)
        {
            this.CheckXml(to);
        }

        /// <summary>Equal when of the same type with equal members.</summary>
        public override bool Equals(object other)
        {
            XmlObject that = other as XmlObject;
            return that != null
                && that.GetType() == this.GetType()
                && that.IsXmlNil == this.IsXmlNil
                && Members.AreEqual(ExtensionsOf(this), ExtensionsOf(that));
        }

        private static List<XmlObject> ExtensionsOf(XmlObject value)
        {
            return value.notes == null ? null : value.notes.Extensions(null);
        }

        /// <inheritdoc/>
        public override int GetHashCode()
        {
            return this.IsXmlNil ? 1 : 0;
        }

        /// <inheritdoc/>
        public override string ToString()
        {
            XmlDescription description = new XmlDescription(this.GetType().Name);
            if (this.IsXmlNil)
            {
                description.Add("nil", true);
            }
            this.DescribeXml(description);
            return description.Finish();
        }
    }
}
