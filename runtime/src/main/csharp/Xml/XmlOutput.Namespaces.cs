namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Xml.Linq;

    /// <content>
    /// Declares namespaces and finds the prefixes to use.
    /// </content>
    public sealed partial class XmlOutput
    {
        private readonly Dictionary<string, string> rootPrefixes = new Dictionary<string, string>(StringComparer.Ordinal);
        private readonly List<KeyValuePair<string, string>> rootDeclarations = new List<KeyValuePair<string, string>>();
        private readonly List<KeyValuePair<string, string>> localDeclarations = new List<KeyValuePair<string, string>>();
        private readonly Dictionary<string, string> localPrefixes = new Dictionary<string, string>(StringComparer.Ordinal);
        private IDictionary<string, string> onRoot = XmlNotes.NoPrefixes;
        private string lastSpace;
        private string lastPrefix;

        /// <summary>Asks that a namespace be declared under a prefix.</summary>
        internal void Prefer(string prefix, string space)
        {
            if (!this.rootPrefixes.ContainsKey(space))
            {
                this.rootPrefixes[space] = prefix;
                this.rootDeclarations.Add(new KeyValuePair<string, string>(prefix, space));
            }
        }

        private string Prefix(string space)
        {
            // What comes next is of the same namespace as a rule, and that constant is one object.
            string known = this.lastPrefix;
            if (!ReferenceEquals(space, this.lastSpace))
            {
                if (!this.rootPrefixes.TryGetValue(space, out known))
                {
                    known = this.FreePrefix(space == XmlNames.Instance ? "xsi" : space == XmlNames.Schema ? "xs" : null);
                    this.rootPrefixes[space] = known;
                    this.rootDeclarations.Add(new KeyValuePair<string, string>(known, space));
                }
                this.lastSpace = space;
                this.lastPrefix = known;
            }
            return this.IsHidden(known, space) ? null : known;
        }

        /// <summary>A prefix that the root element does not declare by itself.</summary>
        private string FreePrefix(string wanted)
        {
            string free = wanted ?? "n" + (this.rootDeclarations.Count + 1);
            for (int number = 1; this.onRoot.ContainsKey(free); number++)
            {
                free = (wanted ?? "n") + (this.rootDeclarations.Count + 1) + "-" + number;
            }
            return free;
        }

        /// <summary>Whether a declaration inside the content hides that of the root.</summary>
        private bool IsHidden(string prefix, string space)
        {
            string local;
            return this.localDeclarations.Count > 0 && this.localPrefixes.TryGetValue(prefix, out local) && local != space;
        }

        /// <summary>A prefix in place of one that is hidden, which no content declares by itself.</summary>
        private string Unused(string wanted)
        {
            string free = wanted;
            for (int number = 1; this.localPrefixes.ContainsKey(free); number++)
            {
                free = wanted + "-" + number;
            }
            return free;
        }

        /// <summary>The prefix to use inside the tag just opened, declared there when that of the root is hidden.</summary>
        private string PrefixInTag(string space)
        {
            string known = this.Prefix(space);
            if (known == null)
            {
                known = this.Unused("h" + this.depth + "-" + this.localDeclarations.Count);
                this.Declare(known, space);
            }
            return known;
        }

        /// <summary>The prefixes among some that do not stand for the same already where the next element begins.</summary>
        private IDictionary<string, string> Undeclared(IDictionary<string, string> wanted)
        {
            Dictionary<string, string> missing = new Dictionary<string, string>();
            foreach (KeyValuePair<string, string> one in wanted)
            {
                string around;
                if (!this.localPrefixes.TryGetValue(one.Key, out around) || around != one.Value)
                {
                    missing[one.Key] = one.Value;
                }
            }
            return missing;
        }

        /// <summary>Notes a declaration inside the content, with what the prefix stood for there before it.</summary>
        private void Bind(string prefix, string space)
        {
            string before;
            this.localPrefixes.TryGetValue(prefix, out before);
            this.localDeclarations.Add(new KeyValuePair<string, string>(prefix, before));
            this.localPrefixes[prefix] = space;
        }

        /// <summary>Declares one more prefix on the element just opened.</summary>
        private void Declare(string prefix, string space)
        {
            this.Bind(prefix, space);
            this.body.AppendDeclaration(prefix, space);
        }

        /// <summary>The text of a qualified name, its namespace declared; asked for while its tag is open (XML Schema Part 2, section 3.2.18).</summary>
        public string Name(XName name)
        {
            if (name.NamespaceName.Length > 0)
            {
                return this.PrefixInTag(name.NamespaceName) + ":" + name.LocalName;
            }
            if (this.IsHidden("", ""))
            {
                this.Declare("", "");
            }
            return name.LocalName;
        }
    }
}
