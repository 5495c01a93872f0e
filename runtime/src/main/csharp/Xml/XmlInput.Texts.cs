namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Xml.Linq;

    /// <content>
    /// Reads elements of simple types, text and attributes, as the text that they are.
    /// </content>
    public sealed partial class XmlInput
    {
        private string bodyText;
        private Attachment hadIncluded;

        /// <summary>Reads an element of a simple type.</summary>
        public string Text()
        {
            return this.Simple(false, false);
        }

        /// <summary>Reads an element of a simple type in whose text qualified names may stand: their prefixes stay declared.</summary>
        public string TextWithNames()
        {
            return this.Simple(false, true);
        }

        /// <summary>Reads an element of binary content: its text, or nothing when the content is beside the message.</summary>
        public string BinaryText()
        {
            return this.Simple(true, false);
        }

        private string Simple(bool binary, bool names)
        {
            if (this.TakeLacking())
            {
                return null;
            }
            this.TakeRefused();
            this.attributes.Load();
            if (this.attributes.StatedType == null && this.attributes.OfInstance.Count == 0 && !names)
            {
                this.attributes.RejectUnknown(this.cursor.Local);
                return binary ? this.IncludedOrText() : this.cursor.Text();
            }
            XmlNotes.Child child = new XmlNotes.Child
            {
                Ordinal = this.cursor.Ordinal,
                Name = this.cursor.Local,
                Instance = this.attributes.OfInstance,
                Type = this.StatedName()
            };
            child.Extension = child.Type == null ? null : this.types.ComplexType(child.Type);
            if (child.Extension == null)
            {
                this.attributes.RejectUnknown(this.cursor.Local);
                child.Text = binary ? this.IncludedOrText() : this.cursor.Text();
            }
            else
            {
                child.Text = this.Extended(child.Extension, child.Type);
            }
            child.Content = binary ? this.hadIncluded : null;
            if (this.current != null && child.Text != null)
            {
                child.Prefixes = this.PrefixesIn(child.Text, names || (child.Type != null && this.types.HoldsNames(child.Type)));
                if (child.Type != null || child.Instance.Count > 0 || child.Prefixes.Count > 0)
                {
                    this.KeepChild(child);
                }
            }
            return child.Text;
        }

        private XName StatedName()
        {
            string stated = this.attributes.StatedType;
            return stated == null ? null : this.cursor.Resolve(stated);
        }

        /// <summary>Reads an element of which the type is declared as simple, and named by the message as a complex one with text.</summary>
        private string Extended(XmlObject extension, XName type)
        {
            extension.IsTypeStated = true;
            this.bodyText = null;
            this.hadIncluded = null;
            string own = this.standard;
            this.FillAttributes(extension, false, out XmlObject around);
            this.standard = own;
            extension.DoReadXmlBody(this);
            this.standard = null;
            this.current = around;
            if (this.bodyText == null)
            {
                this.cursor.Tolerate(this.Error("xsi:type names " + type + ", which holds elements where the contract has text"));
                return null;
            }
            if (this.hadIncluded != null)
            {
                this.included = this.hadIncluded;
            }
            return this.bodyText;
        }

        /// <summary>The prefixes that a text uses or may use, with their namespaces.</summary>
        /// <param name="text">the text</param>
        /// <param name="names">whether names stand in it for sure, so that those without a prefix are in the default namespace</param>
        internal IDictionary<string, string> PrefixesIn(string text, bool names)
        {
            Dictionary<string, string> prefixes = new Dictionary<string, string>();
            this.cursor.RememberPrefixes(text, prefixes);
            if (names && this.cursor.DefaultNamespace.Length > 0)
            {
                prefixes[""] = this.cursor.DefaultNamespace;
            }
            return prefixes;
        }

        /// <summary>Keeps the prefixes declared that a text of the element being read uses, in which qualified names may stand.</summary>
        private string KeepNames(string text)
        {
            if (text != null)
            {
                this.KeepPrefixes(this.PrefixesIn(text, true));
            }
            return text;
        }

        /// <summary>Reads binary content of an element of which the attributes have been taken, in the way of <see cref="BinaryText"/>.</summary>
        public string BinaryBody()
        {
            string text = this.IncludedOrText();
            bool empty = this.standard != null && text.Length == 0 && this.included == null;
            this.NoteStandard(empty);
            this.bodyText = text;
            return empty ? this.standard : text;
        }

        private string IncludedOrText()
        {
            string text = this.cursor.BinaryText();
            this.hadIncluded = this.cursor.TakeIncluded();
            this.included = this.hadIncluded;
            return text;
        }

        /// <summary>
        /// Reads an element of a simple type that stands for a value of its own when it is empty (XML Schema Part 1, section
        /// 3.3.1).
        /// </summary>
        public string TextOr(string standardText)
        {
            return this.OrStandard(standardText, false);
        }

        /// <summary>Does what <see cref="TextOr"/> does for text in which qualified names may stand.</summary>
        public string TextWithNamesOr(string standardText)
        {
            return this.OrStandard(standardText, true);
        }

        private string OrStandard(string standardText, bool names)
        {
            this.standard = standardText;
            string text = this.Simple(false, names);
            this.standard = null;
            if (text == null)
            {
                return null;
            }
            this.NoteStandard(text.Length == 0);
            return text.Length == 0 ? standardText : text;
        }

        /// <summary>Reads the text of an element of which the attributes have been taken.</summary>
        public string Body()
        {
            this.bodyText = this.cursor.Text();
            return this.bodyText;
        }

        /// <summary>Does what <see cref="Body"/> does for text in which qualified names may stand.</summary>
        public string BodyWithNames()
        {
            return this.KeepNames(this.Body());
        }

        /// <summary>Reads the text of an element of which the attributes have been taken, or what an empty one stands for.</summary>
        public string StandardBody()
        {
            string text = this.Body();
            bool empty = this.standard != null && text.Length == 0;
            this.NoteStandard(empty);
            return empty ? this.standard : text;
        }

        /// <summary>Does what <see cref="StandardBody"/> does for text in which qualified names may stand.</summary>
        public string StandardBodyWithNames()
        {
            return this.KeepNames(this.StandardBody());
        }

        /// <summary>Takes an attribute, or gives null when it is absent.</summary>
        public string Attribute(string space, string name)
        {
            this.TakeRefused();
            return this.attributes.Take(space, name);
        }

        /// <summary>Takes what an array says of itself, which it says anew when it is written (SOAP 1.1, section 5.4.2).</summary>
        public void ArrayOf()
        {
            this.Attribute(XmlNames.SoapEncoding, "arrayType");
        }

        /// <summary>Takes an attribute in which qualified names may stand, or gives null when it is absent.</summary>
        public string AttributeWithNames(string space, string name)
        {
            return this.KeepNames(this.Attribute(space, name));
        }

        /// <summary>Takes an attribute that must be there.</summary>
        public string RequiredAttribute(string space, string name)
        {
            string value = this.Attribute(space, name);
            if (value == null)
            {
                this.cursor.Tolerate(this.Error("the required attribute " + name + " is missing"));
            }
            return value;
        }

        /// <summary>Takes an attribute that must be there and in which qualified names may stand.</summary>
        public string RequiredAttributeWithNames(string space, string name)
        {
            return this.KeepNames(this.RequiredAttribute(space, name));
        }

        /// <summary>Takes all attributes that nobody has taken.</summary>
        public void AnyAttributes(IDictionary<XName, string> into)
        {
            this.Take((name, value) => into[name] = value, space => true);
        }

        /// <summary>Takes the attributes of another namespace than this one that nobody has taken.</summary>
        public void OtherAttributes(IDictionary<XName, string> into, string space)
        {
            this.Take((name, value) => into[name] = value, other => other.Length > 0 && other != space);
        }

        /// <summary>Takes the attributes of some namespaces that nobody has taken.</summary>
        public void AttributesOf(IDictionary<XName, string> into, params string[] spaces)
        {
            this.Take((name, value) => into[name] = value, space => Array.IndexOf(spaces, space) >= 0);
        }

        /// <summary>What the contract leaves open may hold names, so the prefixes that it may use stay declared.</summary>
        private void Take(Action<XName, string> into, Predicate<string> allowed)
        {
            Dictionary<string, string> prefixes = new Dictionary<string, string>();
            this.attributes.TakeRest(into, prefixes, allowed);
            this.KeepPrefixes(prefixes);
        }

        private void KeepPrefixes(IDictionary<string, string> prefixes)
        {
            if (prefixes.Count > 0)
            {
                this.cursor.AffordNotes(this.current, 1 + prefixes.Count, 0);
                this.current.Notes.KeepPrefixes(prefixes);
            }
        }

        /// <summary>Keeps what a message says of a child beside its value.</summary>
        private void KeepChild(XmlNotes.Child child)
        {
            int kept = 1 + (child.Type == null ? 0 : 1) + (child.Prefixes.Count == 0 ? 0 : 1 + child.Prefixes.Count);
            this.cursor.AffordNotes(this.current, kept, 0);
            this.current.Notes.KeepChild(child);
        }

        /// <summary>Takes the memory that is needed for what is kept beside the values of an object.</summary>
        internal void AffordNotes(XmlObject of, int count, long length)
        {
            this.cursor.AffordNotes(of, count, length);
        }
    }
}
