namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.IO;
    using System.Xml.Linq;

    /// <summary>
    /// A message being read, element by element, by the types it is made of. The input stands either on the start tag of an
    /// element not yet taken, or on the end tag of the element around it. Reading methods take one whole element and leave the
    /// input behind it. Every method throws <see cref="XmlFormatException"/> when the message is not well-formed, breaks the
    /// contract or passes a limit.
    /// </summary>
    public sealed partial class XmlInput
    {
        private const int MostHeads = 100;

        private readonly XmlCursor cursor;
        private readonly XmlAttributes attributes;
        private readonly XmlTypes types;
        private XmlObject current;
        private string standard;
        private SharedValues shared;
        private bool keepForeign;
        private bool lacking;

        internal XmlInput(XmlCursor cursor, XmlTypes types)
        {
            this.cursor = cursor;
            this.attributes = new XmlAttributes(cursor);
            this.types = types;
        }

        /// <summary>Opens a message and moves to its root element.</summary>
        internal static XmlInput Open(Stream stream, string encoding, XmlTypes types, XmlLimits limits)
        {
            return new XmlInput(new XmlCursor(ParserReader.Of(stream, encoding, limits), limits, null), types);
        }

        /// <summary>Says which package the message is the root of: binary content may be in its parts (XOP 1.0, section 3.2).</summary>
        internal void SetParts(MessageParts around)
        {
            this.cursor.SetParts(around);
        }

        /// <summary>From now on elements may be marked as copies: they are read as one value.</summary>
        internal void SetShared(SharedValues values)
        {
            this.shared = values;
            this.cursor.Sharing = true;
        }

        /// <summary>Sets the attributes of a namespace aside from now on: they belong to an envelope and not to the content.</summary>
        internal void SetAside(string envelope)
        {
            this.attributes.SetAside(envelope);
        }

        /// <summary>An attribute set aside on the element that comes next, or null when it is absent.</summary>
        internal string AsideAttribute(string name)
        {
            this.attributes.Load();
            return this.attributes.Aside(name);
        }

        /// <summary>Whether an element of this name comes next.</summary>
        public bool At(string space, string name)
        {
            this.lacking = false;
            return this.cursor.At(space, name);
        }

        /// <summary>Whether any element comes next, rather than the end tag of the one around it.</summary>
        public bool AtElement()
        {
            return this.cursor.AtElement;
        }

        /// <summary>The namespace of the element that comes next, empty for none.</summary>
        public string Space
        {
            get { return this.cursor.Space; }
        }

        /// <summary>The local name of the element that comes next.</summary>
        public string LocalName
        {
            get { return this.cursor.Local; }
        }

        private XName NextName
        {
            get { return XName.Get(this.cursor.Local, this.cursor.Space); }
        }

        /// <summary>Goes into the element that comes next: from its start tag to its first child or its end tag.</summary>
        public void Enter()
        {
            this.standard = null;
            this.cursor.Enter();
        }

        /// <summary>Goes out of an element, at whose end tag the input must stand.</summary>
        public void Leave()
        {
            this.lacking = false;
            if (this.cursor.IsLenient)
            {
                this.cursor.PassOverRest(this.Unexpected);
            }
            else if (this.cursor.AtElement)
            {
                throw this.Unexpected();
            }
            this.cursor.Leave();
        }

        /// <summary>Passes over the element that comes next.</summary>
        public void Skip()
        {
            this.cursor.Skip();
        }

        /// <summary>Makes sure that nothing follows the root element.</summary>
        public void Finish()
        {
            this.cursor.Finish();
        }

        /// <summary>Reads an element of a complex type.</summary>
        /// <param name="plain">an empty value of the declared type, or null when that is abstract</param>
        /// <returns>the value, of the type that <c>xsi:type</c> names if it names one</returns>
        public T Object<T>(T plain)
            where T : XmlObject
        {
            if (this.TakeLacking())
            {
                return null;
            }
            this.attributes.Load();
            string id = this.attributes.Shared;
            T known = id == null ? null : this.shared.Known(id) as T;
            if (known != null)
            {
                this.cursor.Skip();
                return known;
            }
            string stated = this.attributes.StatedType;
            T value = stated == null ? plain : this.Stated(plain, stated);
            if (value != null)
            {
                if (id != null)
                {
                    this.shared.Keep(id, value);
                }
                return this.Fill(value);
            }
            if (stated == null)
            {
                this.cursor.Tolerate(this.Error(
                    "the type " + typeof(T).Name + " is abstract: xsi:type must say which type derived from it is meant"));
            }
            this.cursor.Skip();
            return null;
        }

        /// <summary>
        /// Reads an element of a complex type with simple content that stands for a value of its own when it is empty (XML
        /// Schema Part 1, section 3.3.1).
        /// </summary>
        public T Object<T>(T plain, string standardText)
            where T : XmlObject
        {
            this.standard = standardText;
            T value = this.Object(plain);
            this.standard = null;
            return value;
        }

        private T Stated<T>(T plain, string stated)
            where T : XmlObject
        {
            XName name = this.ToName(stated);
            if (name == null)
            {
                return plain;
            }
            if (plain != null && name == plain.TypeName)
            {
                plain.IsTypeStated = true;
                return plain;
            }
            XmlObject value = this.types.TypeOrBuiltin(name);
            T found = value as T;
            if (found == null)
            {
                this.cursor.Tolerate(this.Error(value == null
                    ? "xsi:type names " + name + ", a type that the contract does not have or that is abstract"
                    : "xsi:type names " + name + ", which is not derived from " + typeof(T).Name));
                return plain;
            }
            found.IsTypeStated = true;
            return found;
        }

        /// <summary>Makes sure that a part was among those that may come in any order.</summary>
        public void Came(int[] parts, int count, int wanted, string expected)
        {
            if (Array.IndexOf(parts, wanted, 0, count) < 0)
            {
                this.cursor.Tolerate(this.Missing(expected));
            }
        }

        /// <summary>Reads the members of a model group, which has no element of its own.</summary>
        public T Group<T>(T group)
            where T : XmlObject
        {
            if (this.TakeLacking())
            {
                return null;
            }
            this.cursor.Afford(group);
            group.DoReadXmlElements(this);
            return group;
        }

        private T Fill<T>(T value)
            where T : XmlObject
        {
            XmlTree tree = value as XmlTree;
            if (tree != null)
            {
                tree.Fill(this.WholeTree());
                return value;
            }
            string own = value.StandingText ?? this.standard;
            bool nil = this.attributes.StatedNil;
            this.FillAttributes(value, this.keepForeign, out XmlObject around);
            if (nil)
            {
                value.IsXmlNil = true;
                this.cursor.Enter();
                this.Leave();
            }
            else
            {
                this.standard = own;
                value.DoReadXmlBody(this);
                this.standard = null;
            }
            this.current = around;
            this.TakeRefused();
            return value;
        }

        private void FillAttributes(XmlObject value, bool foreign, out XmlObject around)
        {
            if (this.attributes.OfInstance.Count > 0)
            {
                this.cursor.AffordNotes(value, 0, 0);
                value.Notes.KeepOwn(this.attributes.OfInstance);
            }
            this.cursor.Afford(value);
            around = this.current;
            this.keepForeign = false;
            this.current = value;
            value.DoReadXmlAttributes(this);
            if (foreign)
            {
                List<KeyValuePair<XName, string>> kept = new List<KeyValuePair<XName, string>>();
                this.Take((name, text) => kept.Add(new KeyValuePair<XName, string>(name, text)), space => space.Length > 0);
                value.Notes.KeepOwn(kept);
            }
            this.attributes.RejectUnknown(this.cursor.Local);
        }

        /// <summary>
        /// Takes the element that comes next if it is nil and says nothing else, and tells whether it did. The type that it may
        /// name is kept.
        /// </summary>
        public bool TakeNil()
        {
            return this.TakeNil(false);
        }

        /// <summary>
        /// Does what <see cref="TakeNil()"/> does for an element of a simple type: what a type that it names adds to it is kept.
        /// </summary>
        public bool TakeSimpleNil()
        {
            return this.TakeNil(true);
        }

        private bool TakeNil(bool simple)
        {
            if (this.lacking)
            {
                return false;
            }
            this.attributes.Load();
            if (!this.attributes.StatedNil)
            {
                return false;
            }
            XName type = this.StatedName();
            XmlObject extension = type != null && this.attributes.AreThere ? this.types.ComplexType(type) : null;
            if (this.attributes.AreThere && !(simple && extension != null))
            {
                return false;
            }
            if (this.current != null && (type != null || this.attributes.OfInstance.Count > 0))
            {
                this.KeepChild(new XmlNotes.Child
                {
                    Ordinal = this.cursor.Ordinal,
                    Name = this.cursor.Local,
                    Type = type,
                    Instance = this.attributes.OfInstance,
                    Extension = extension
                });
            }
            if (extension != null)
            {
                extension.IsTypeStated = true;
                extension.IsXmlNil = true;
                this.FillAttributes(extension, false, out XmlObject around);
                this.current = around;
            }
            this.cursor.Enter();
            this.Leave();
            return true;
        }

        /// <summary>Makes sure that an element of this name comes next; a lenient reading goes on without it.</summary>
        public void Expect(string space, string name)
        {
            if (!this.IsOnItsWay(space, name))
            {
                this.Lack("<" + name + ">");
            }
        }

        /// <summary>Makes sure that an element of this name comes next, without which nothing can be read.</summary>
        public void Demand(string space, string name)
        {
            if (!this.IsOnItsWay(space, name))
            {
                throw this.Missing("<" + name + ">");
            }
        }

        /// <summary>Makes sure that an element comes, whatever it is called.</summary>
        /// <param name="name">what it is called as a rule</param>
        public void DemandAny(string name)
        {
            if (!this.cursor.AtElement)
            {
                throw this.Missing("<" + name + ">");
            }
        }

        private bool IsOnItsWay(string space, string name)
        {
            this.lacking = false;
            if (this.cursor.At(space, name))
            {
                return true;
            }
            this.cursor.MakeWayFor(name);
            return false;
        }

        /// <summary>Says that something required does not come next; a lenient reading gives nothing to who reads it nevertheless.</summary>
        public void Lack(string expected)
        {
            this.cursor.Tolerate(this.Missing(expected));
            this.lacking = true;
        }

        private bool TakeLacking()
        {
            bool lacks = this.lacking;
            this.lacking = false;
            return lacks;
        }

        /// <summary>Adds what was read to a list, unless a lenient reading has passed over it.</summary>
        public void Add<T>(List<T> list, T value)
        {
            if (!this.TakeRefused() && value != null)
            {
                list.Add(value);
            }
        }

        /// <summary>Gives what was read, or nothing when a lenient reading has passed over it.</summary>
        public T? Given<T>(T value)
            where T : struct
        {
            return this.TakeRefused() ? (T?)null : value;
        }

        /// <summary>Whether an element comes next that may stand for the head of a substitution group, or the head itself.</summary>
        public bool AtMember(string space, string head)
        {
            this.lacking = false;
            if (!this.cursor.AtElement)
            {
                return false;
            }
            XName name = this.NextName;
            for (int steps = 0; name != null && steps < MostHeads; steps++)
            {
                if (name.LocalName == head && name.NamespaceName == space)
                {
                    return true;
                }
                name = this.types.HeadOf(name);
            }
            return false;
        }

        /// <summary>Whether an element of another namespace than this one comes next, and not one without a namespace.</summary>
        public bool AtOther(string space)
        {
            return this.cursor.AtElement && this.cursor.Space.Length > 0 && this.cursor.Space != space;
        }

        /// <summary>Whether an element of one of these namespaces comes next.</summary>
        public bool AtAnyOf(params string[] spaces)
        {
            return this.cursor.AtElement && Array.IndexOf(spaces, this.cursor.Space) >= 0;
        }

        /// <summary>Whether an element comes next that is among these, each given as namespace, space and local name.</summary>
        public bool AtOneOf(HashSet<string> names)
        {
            return this.cursor.AtElement && names.Contains(this.cursor.Space + " " + this.cursor.Local);
        }

        /// <summary>Reads an element that stands for the head of a substitution group, with content derived from the head's.</summary>
        public XmlElement<T> Member<T>()
            where T : XmlObject
        {
            XmlElement<XmlObject> element = this.TypedElement();
            if (element == null)
            {
                return null;
            }
            T content = element.Value as T;
            if (content == null)
            {
                this.cursor.Tolerate(this.Error(
                    "the content of <" + element.Name.LocalName + "> is not a " + typeof(T).Name));
                return null;
            }
            return new XmlElement<T>(element.Name, content);
        }

        /// <summary>The failure to report when something required does not come.</summary>
        internal XmlFormatException Missing(string expected)
        {
            if (!this.cursor.AtElement)
            {
                return this.Error("expected " + expected + ", but the element ends");
            }
            // Where both have the same name, what differs is the namespace.
            bool alike = expected == "<" + this.LocalName + ">";
            return this.Error("expected " + expected + ", but <" + this.LocalName + ">"
                + (alike ? " of namespace \"" + this.Space + "\"" : "") + " came");
        }

        private XmlFormatException Unexpected()
        {
            return this.Error("<" + this.LocalName + ">"
                + (this.Space.Length == 0 ? "" : " of namespace " + this.Space)
                + " is not expected here");
        }

        /// <summary>The failure to report at this place of the message.</summary>
        internal XmlFormatException Error(string message)
        {
            return this.cursor.Error(message);
        }
    }
}
