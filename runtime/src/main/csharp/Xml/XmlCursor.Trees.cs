namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Linq;
    using System.Text;
    using System.Xml;
    using System.Xml.Linq;

    /// <content>
    /// Copies trees, and keeps what the prefixes in a text stand for.
    /// </content>
    internal sealed partial class XmlCursor
    {
        private const int LongestPrefix = 1000;

        /// <summary>The tree being read, in which names without a prefix may stand; null once it says what they are in.</summary>
        private XElement undeclared;

        /// <summary>The default namespace where that tree stands.</summary>
        private string around;

        /// <summary>Whether a tree has had a default namespace, which may be declared again around others.</summary>
        private bool keptDefault;

        /// <summary>Reads the content of the element that came last into one that has its name and attributes, and moves past it.</summary>
        /// <param name="into">the element to fill</param>
        /// <param name="mixed">told of each child element as soon as it is read; null for nobody</param>
        internal void Tree(XElement into, Action<XElement> mixed)
        {
            this.Push();
            XElement open = into;
            StringBuilder text = new StringBuilder();
            int level = 0;
            while (true)
            {
                MessageEvent next = this.Next();
                if (next == MessageEvent.Text)
                {
                    this.AppendText(text, open);
                    continue;
                }
                if (next == MessageEvent.Start && this.AtInclusion())
                {
                    text.Append(this.Base64(this.Inclusion()));
                    continue;
                }
                if (text.Length > 0)
                {
                    string whole = this.Affordable(text.ToString());
                    if (level > 0 || mixed == null)
                    {
                        this.KeepDefault(whole);
                    }
                    open.Add(new XText(whole));
                    text.Clear();
                }
                if (next == MessageEvent.Start)
                {
                    if (this.depth + ++level > this.limits.Depth)
                    {
                        throw this.TooDeep();
                    }
                    this.Afford(ElementSize + ObjectSize);
                    XElement child = new XElement(XName.Get(this.reader.LocalName, this.reader.NamespaceUri));
                    if (level == 1 && mixed != null)
                    {
                        this.BeginTree(child);
                    }
                    this.CopyAttributes(child);
                    open.Add(child);
                    open = child;
                }
                else if (level-- == 0)
                {
                    this.Leave();
                    return;
                }
                else
                {
                    XElement done = open;
                    open = open.Parent;
                    if (level == 0 && mixed != null)
                    {
                        mixed(done);
                    }
                }
            }
        }

        /// <summary>Takes a text of an element, of which others may have come, with what its prefixes stand for where it stands.</summary>
        private void AppendText(StringBuilder text, XElement of)
        {
            string more = this.reader.Text;
            if (more.IndexOf(':') >= 0)
            {
                // The beginning of a prefix may have come before.
                int from = text.Length;
                for (int most = Math.Max(0, from - LongestPrefix); from > most && IsNameCharacter(text[from - 1]);)
                {
                    from--;
                }
                this.RememberPrefixes(text.ToString(from, text.Length - from) + more, of);
            }
            text.Append(more);
        }

        /// <summary>A tree begins whose attributes and content are to be copied, and which may come to stand elsewhere.</summary>
        internal void BeginTree(XElement root)
        {
            this.around = this.DefaultNamespace;
            this.keptDefault |= this.around.Length > 0;
            this.undeclared = this.keptDefault ? root : null;
        }

        /// <summary>
        /// Has the tree being read say what its default namespace is, or that there is none, once there is a text in it that may be
        /// names without a prefix: nobody knows here which are.
        /// </summary>
        private void KeepDefault(string text)
        {
            if (this.undeclared != null && MayBeNames(text))
            {
                if (this.undeclared.Attribute("xmlns") == null)
                {
                    this.undeclared.SetAttributeValue("xmlns", this.around);
                }
                this.undeclared = null;
            }
        }

        /// <summary>Whether a text can be a list of names without prefixes; of characters beyond ASCII any may be in one.</summary>
        private static bool MayBeNames(string text)
        {
            bool inside = false;
            bool any = false;
            foreach (char c in text)
            {
                bool separates = c == ' ' || c == '\t' || c == '\n' || c == '\r';
                bool begins = !inside && !separates;
                bool ofName = c > '~' || (begins ? char.IsLetter(c) || c == '_' : IsNameCharacter(c));
                if (!separates && !ofName)
                {
                    return false;
                }
                inside = !separates;
                any |= inside;
            }
            return any;
        }

        /// <summary>Copies what is on the tag, declarations of namespaces among it.</summary>
        internal void CopyAttributes(XElement to)
        {
            // An element of the platform looks through all that is on it for each that is added.
            string[] declared = this.reader.Declarations;
            if (this.reader.AttributeCount + declared.Length / 2 > this.limits.Attributes)
            {
                throw this.TooManyAttributes();
            }
            this.AffordAttributes(this.reader.AttributeCount + declared.Length / 2);
            for (int i = 0; i < declared.Length; i += 2)
            {
                to.SetAttributeValue(declared[i].Length == 0 ? "xmlns" : XNamespace.Xmlns + declared[i], declared[i + 1]);
            }
            for (int i = 0; i < this.reader.AttributeCount; i++)
            {
                if (this.Sharing && this.reader.AttributeNamespace(i) == XmlNames.Shared)
                {
                    continue;
                }
                string value = this.reader.AttributeValue(i);
                to.SetAttributeValue(XName.Get(this.reader.AttributeName(i), this.reader.AttributeNamespace(i)), value);
                this.RememberPrefixes(value, to);
                this.KeepDefault(value);
            }
        }

        /// <summary>Declares the prefixes that a text in a tree uses or may use on the element that has it, wherever that is moved.</summary>
        private void RememberPrefixes(string text, XElement of)
        {
            if (text.IndexOf(':') < 0)
            {
                return;
            }
            Dictionary<string, string> used = new Dictionary<string, string>();
            this.RememberPrefixes(text, used);
            foreach (KeyValuePair<string, string> prefix in used)
            {
                XName declared = XNamespace.Xmlns + prefix.Key;
                if (of.Attribute(declared) == null)
                {
                    if (of.Attributes().Count() >= 2 * this.limits.Attributes)
                    {
                        throw this.TooManyAttributes();
                    }
                    of.SetAttributeValue(declared, prefix.Value);
                }
            }
        }

        /// <summary>Keeps the declarations of prefixes that a value uses or may use: what looks like one costs little to keep.</summary>
        internal void RememberPrefixes(string value, IDictionary<string, string> prefixes)
        {
            for (int colon = value.IndexOf(':'); colon >= 0; colon = value.IndexOf(':', colon + 1))
            {
                int start = colon;
                while (start > 0 && IsNameCharacter(value[start - 1]))
                {
                    start--;
                }
                string prefix = value.Substring(start, colon - start);
                string uri = prefix.Length == 0 || prefix == "xml" || prefix == "xmlns" ? null : this.LookUp(prefix);
                if (!string.IsNullOrEmpty(uri) && !prefixes.ContainsKey(prefix))
                {
                    prefixes[prefix] = uri;
                }
            }
        }

        private static bool IsNameCharacter(char c)
        {
            return char.IsLetterOrDigit(c) || c == '-' || c == '_' || c == '.';
        }

        private string LookUp(string prefix)
        {
            char first = prefix.Length == 0 ? 'a' : prefix[0];
            return first == '-' || first == '.' || char.IsDigit(first) ? null : this.reader.Lookup(prefix);
        }

        /// <summary>The default namespace, in which names without a prefix are, empty for none.</summary>
        internal string DefaultNamespace
        {
            get { return this.reader.Lookup("") ?? ""; }
        }

        internal XName Resolve(string text)
        {
            string value = Lexical.Collapse(text);
            int colon = value.IndexOf(':');
            string prefix = colon < 0 ? "" : value.Substring(0, colon);
            string name = value.Substring(colon + 1);
            string uri = this.LookUp(prefix);
            if (string.IsNullOrEmpty(uri) && colon >= 0)
            {
                this.Tolerate(this.Error("the prefix " + Shorten(prefix) + " in \"" + Shorten(value) + "\" is not declared"));
                return null;
            }
            try
            {
                XmlConvert.VerifyNCName(name);
                return XName.Get(name, uri ?? "");
            }
            catch (Exception e) when (e is XmlException || e is ArgumentException)
            {
                this.Tolerate(this.Invalid(text, "QName"));
                return null;
            }
        }
    }
}
