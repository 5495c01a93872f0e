namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Xml.Linq;

    /// <summary>
    /// The attributes of the tag on which the parser stands: those of the content, of which each is taken once, and apart from
    /// them those of the instance namespace (XML Schema Part 1, section 2.6) and of an envelope.
    /// </summary>
    internal sealed class XmlAttributes
    {
        private readonly XmlCursor cursor;
        private readonly MessageReader reader;
        private readonly List<string[]> own = new List<string[]>();
        private readonly List<bool> taken = new List<bool>();
        private Dictionary<string, string> aside;
        private string asideNamespace;

        internal XmlAttributes(XmlCursor cursor)
        {
            this.cursor = cursor;
            this.reader = cursor.Reader;
            this.OfInstance = XmlNotes.NoAttributes;
        }

        /// <summary>The type that the message names, as it is written, or null.</summary>
        internal string StatedType { get; private set; }

        internal bool StatedNil { get; private set; }

        /// <summary>The attributes of the instance namespace that change nothing.</summary>
        internal List<KeyValuePair<XName, string>> OfInstance { get; private set; }

        /// <summary>The identifier of what the element is a copy of, or null.</summary>
        internal string Shared { get; private set; }

        /// <summary>Whether there are any of the content.</summary>
        internal bool AreThere
        {
            get { return this.own.Count > 0; }
        }

        /// <summary>From now on attributes of this namespace are no part of the content.</summary>
        internal void SetAside(string envelopeNamespace)
        {
            this.asideNamespace = envelopeNamespace;
        }

        internal string Aside(string name)
        {
            string value = null;
            return this.aside != null && this.aside.TryGetValue(name, out value) ? value : null;
        }

        /// <summary>Copies the attributes of the tag and sets aside those that are not of the content.</summary>
        internal void Load()
        {
            this.StatedType = null;
            this.StatedNil = false;
            this.Shared = null;
            this.OfInstance = XmlNotes.NoAttributes;
            this.aside = null;
            this.own.Clear();
            this.taken.Clear();
            int all = this.reader.AttributeCount;
            if (all > this.cursor.Limits.Attributes)
            {
                throw this.cursor.TooManyAttributes();
            }
            for (int i = 0; i < all; i++)
            {
                string uri = this.reader.AttributeNamespace(i);
                string name = this.reader.AttributeName(i);
                string value = this.reader.AttributeValue(i);
                if (uri == XmlNames.Instance)
                {
                    this.LoadInstanceAttribute(name, value);
                }
                else if (this.cursor.Sharing && uri == XmlNames.Shared)
                {
                    this.Shared = value;
                }
                else if (uri.Length > 0 && uri == this.asideNamespace)
                {
                    this.aside = this.aside ?? new Dictionary<string, string>();
                    this.aside[name] = value;
                }
                else
                {
                    this.own.Add(new[] { uri, name, value });
                    this.taken.Add(false);
                }
            }
        }

        /// <summary>XML Schema Part 1, section 2.6: schema locations are hints; they are kept, and nothing is fetched.</summary>
        private void LoadInstanceAttribute(string name, string value)
        {
            switch (name)
            {
                case "type":
                    this.StatedType = value;
                    break;
                case "nil":
                    try
                    {
                        this.StatedNil = Lexical.ParseBoolean(value);
                        if (!this.StatedNil)
                        {
                            this.KeepInstanceAttribute(name, value);
                        }
                    }
                    catch (FormatException)
                    {
                        this.cursor.Tolerate(this.cursor.Error(
                            "xsi:nil must be true or false, not \"" + XmlCursor.Shorten(value) + "\""));
                    }
                    break;
                case "schemaLocation":
                case "noNamespaceSchemaLocation":
                    this.KeepInstanceAttribute(name, value);
                    break;
                default:
                    this.cursor.Tolerate(this.cursor.Error("the attribute xsi:" + name + " does not exist"));
                    break;
            }
        }

        private void KeepInstanceAttribute(string name, string value)
        {
            List<KeyValuePair<XName, string>> all = new List<KeyValuePair<XName, string>>(this.OfInstance);
            all.Add(new KeyValuePair<XName, string>(XName.Get(name, XmlNames.Instance), value));
            this.OfInstance = all;
        }

        /// <summary>Takes one, or gives null when it is absent.</summary>
        internal string Take(string wantedNamespace, string name)
        {
            for (int i = 0; i < this.own.Count; i++)
            {
                string[] one = this.own[i];
                if (one[1] == name && one[0] == wantedNamespace)
                {
                    this.taken[i] = true;
                    return one[2];
                }
            }
            return null;
        }

        /// <summary>Takes those that nobody has taken and whose namespace is allowed.</summary>
        internal void TakeRest(Action<XName, string> into, IDictionary<string, string> prefixes, Predicate<string> allowed)
        {
            for (int i = 0; i < this.own.Count; i++)
            {
                string[] one = this.own[i];
                if (!this.taken[i] && allowed(one[0]))
                {
                    this.taken[i] = true;
                    this.cursor.AffordAttributes(1);
                    into(XName.Get(one[1], one[0]), one[2]);
                    this.cursor.RememberPrefixes(one[2], prefixes);
                }
            }
        }

        internal void RejectUnknown(string element)
        {
            for (int i = 0; i < this.own.Count; i++)
            {
                bool serves = this.cursor.Sharing && this.own[i][0] == XmlNames.SoapEncoding;
                if (!this.taken[i] && !serves)
                {
                    this.cursor.Tolerate(this.cursor.Error(
                        "the attribute " + this.own[i][1] + " is not expected on <" + element + ">"));
                }
            }
        }
    }
}
