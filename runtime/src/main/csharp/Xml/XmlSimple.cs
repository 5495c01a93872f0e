namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Numerics;
    using System.Xml.Linq;

    /// <summary>
    /// A value of a simple type where the contract allows any type: the text together with the name of its type, as
    /// <c>xsi:type</c> gives it.
    /// </summary>
    public sealed class XmlSimple : XmlObject
    {
        /// <summary>Stands for the built-in type of text in which names may stand.</summary>
        private const string NamesInside = "names";

        /// <summary>Stands behind the built-in type of the items of a list.</summary>
        private const string ListOf = "*";

        private readonly string builtin;
        private XName name;
        private IDictionary<string, string> prefixes = XmlNotes.NoPrefixes;

        /// <summary>A value of any simple type.</summary>
        /// <param name="type">the name of the type, which <c>xsi:type</c> will show</param>
        /// <param name="text">the value as it stands in the message</param>
        public XmlSimple(XName type, string text)
            : this(type, "string", text)
        {
        }

        private XmlSimple(XName type, string builtin, string text)
        {
            this.Type = type ?? throw new ArgumentNullException("type");
            this.Text = text ?? throw new ArgumentNullException("text");
            this.builtin = builtin;
        }

        /// <summary>Gives an empty value of a simple type, to be filled from a message.</summary>
        /// <param name="type">the name of the type</param>
        /// <param name="builtin">the local name of the built-in type it comes from; for a list that of its items, with a star</param>
        public static XmlSimple Empty(XName type, string builtin)
        {
            return new XmlSimple(type, builtin, "");
        }

        /// <summary>Gives an empty value of a simple type in whose text qualified names may stand.</summary>
        public static XmlSimple EmptyWithNames(XName type)
        {
            return new XmlSimple(type, NamesInside, "");
        }

        private static XmlSimple Builtin(string name, string text)
        {
            return new XmlSimple(XName.Get(name, XmlNames.Schema), name, text);
        }

        /// <summary>A value of <c>xs:string</c>.</summary>
        public static XmlSimple Of(string value)
        {
            return Builtin("string", value);
        }

        /// <summary>A value of <c>xs:boolean</c>.</summary>
        public static XmlSimple Of(bool value)
        {
            return Builtin("boolean", Lexical.Print(value));
        }

        /// <summary>A value of <c>xs:int</c>.</summary>
        public static XmlSimple Of(int value)
        {
            return Builtin("int", Lexical.Print(value));
        }

        /// <summary>A value of <c>xs:long</c>.</summary>
        public static XmlSimple Of(long value)
        {
            return Builtin("long", Lexical.Print(value));
        }

        /// <summary>A value of <c>xs:double</c>.</summary>
        public static XmlSimple Of(double value)
        {
            return Builtin("double", Lexical.Print(value));
        }

        /// <summary>A value of <c>xs:decimal</c>.</summary>
        public static XmlSimple Of(XmlDecimal value)
        {
            return Builtin("decimal", Lexical.Print(value));
        }

        /// <summary>A value of <c>xs:integer</c>.</summary>
        public static XmlSimple Of(BigInteger value)
        {
            return Builtin("integer", Lexical.Print(value));
        }

        /// <summary>A value of <c>xs:dateTime</c>.</summary>
        public static XmlSimple Of(XmlDateTime value)
        {
            return Builtin("dateTime", value.Text);
        }

        /// <summary>A value of <c>xs:QName</c>.</summary>
        public static XmlSimple Of(XName value)
        {
            XmlSimple simple = Builtin("QName", value.LocalName);
            simple.name = value;
            return simple;
        }

        /// <summary>The name of the type.</summary>
        public XName Type { get; private set; }

        /// <summary>The value as it stands in the message.</summary>
        public string Text { get; private set; }

        /// <summary>
        /// The value in the type of the platform that stands for the built-in type: <c>int</c> for <c>xs:int</c> and so on, text
        /// where there is none.
        /// </summary>
        /// <exception cref="FormatException">The text is not of the type.</exception>
        public object Value
        {
            get
            {
                return this.name != null ? this.name
                    : this.builtin == NamesInside || this.IsName || this.IsList ? this.Meant
                    : Lexical.Parse(this.builtin, this.Meant);
            }
        }

        /// <summary>The text, or what an empty one stands for.</summary>
        private string Meant
        {
            get { return this.Text.Length == 0 && this.StandingText != null ? this.StandingText : this.Text; }
        }

        private bool IsList
        {
            get { return this.builtin.EndsWith(ListOf, StringComparison.Ordinal); }
        }

        /// <summary>
        /// The values of a list, each in the type of the platform that stands for the built-in type of the items; names as they are
        /// meant where they stand.
        /// </summary>
        /// <exception cref="FormatException">A text is not of the type.</exception>
        public List<T> ValuesOf<T>()
        {
            List<T> values = new List<T>();
            foreach (string item in Lexical.Items(this.Meant))
            {
                values.Add((T)(typeof(T) == typeof(XName) ? this.Named(item) : this.Parsed(item)));
            }
            return values;
        }

        private object Parsed(string item)
        {
            return this.IsList ? Lexical.Parse(this.builtin.Substring(0, this.builtin.Length - ListOf.Length), item) : item;
        }

        private XName Named(string item)
        {
            int colon = item.IndexOf(':');
            string space;
            this.prefixes.TryGetValue(colon < 0 ? "" : item.Substring(0, colon), out space);
            return XName.Get(item.Substring(colon + 1), space ?? "");
        }

        internal bool HoldsNames
        {
            get { return this.IsName || this.builtin == NamesInside; }
        }

        private bool IsName
        {
            get { return this.builtin == "QName" || this.builtin == "NOTATION"; }
        }

        internal override IDictionary<string, string> LocalPrefixes
        {
            get { return this.prefixes; }
        }

        /// <inheritdoc/>
        protected override XName XmlTypeName
        {
            get { return this.Type; }
        }

        /// <inheritdoc/>
        protected override void ReadXmlBody(XmlInput input)
        {
            if (this.IsName)
            {
                string body = input.Body();
                this.name = body.Length == 0 && this.StandingText != null ? null : input.ToName(body);
                this.Text = this.name == null ? "" : this.name.LocalName;
                return;
            }
            this.Text = input.Body();
            if (this.builtin == NamesInside)
            {
                this.prefixes = input.PrefixesIn(this.Text, true);
                return;
            }
            if (!this.Accepts(this.Meant))
            {
                input.Refuse(this.Text, this.Type.LocalName);
            }
        }

        /// <summary>Whether a text is a value of the built-in type that this one comes from.</summary>
        internal bool Accepts(string written)
        {
            try
            {
                if (!this.IsList)
                {
                    Lexical.Parse(this.builtin, written);
                    return true;
                }
                foreach (string item in Lexical.Items(written))
                {
                    this.Parsed(item);
                }
                return true;
            }
            catch (FormatException)
            {
                return false;
            }
        }

        /// <inheritdoc/>
        protected override void WriteXmlBody(XmlOutput output)
        {
            output.Text(this.name != null ? output.Name(this.name) : this.Text);
        }

        /// <inheritdoc/>
        protected override void DescribeXml(XmlDescription to)
        {
            to.Add(this.Type.LocalName, this.name != null ? this.name.ToString() : this.Text);
        }

        /// <inheritdoc/>
        public override bool Equals(object other)
        {
            XmlSimple that = other as XmlSimple;
            return that != null && base.Equals(other) && that.Type == this.Type && that.Text == this.Text && that.name == this.name;
        }

        /// <inheritdoc/>
        public override int GetHashCode()
        {
            return this.Type.GetHashCode() * 31 + this.Text.GetHashCode();
        }
    }
}
