namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.IO;
    using System.Linq;
    using System.Text;
    using System.Text.RegularExpressions;
    using System.Xml.Linq;

    /// <summary>
    /// The parts of a message as names and values, in a query, a form or a path (WSDL 1.1, sections 4.5 and 4.6). Messages read and
    /// write elements only, so the fields are the elements of a small document in between.
    /// </summary>
    internal sealed class Fields
    {
        private const string Around = "fields";
        private const int Most = 1000;
        private static readonly Regex Missing = new Regex("^expected <([^>]*)>, but ");
        private static readonly Regex Unknown = new Regex("^<([^>]*)> is not expected here");
        private static readonly Regex Placeholder = new Regex("\\(([^()/?&]+)\\)");
        private static readonly Regex Name = new Regex("^[\\p{L}_][\\p{L}\\p{N}._-]*$");

        private readonly List<KeyValuePair<string, string>> pairs = new List<KeyValuePair<string, string>>();

        /// <summary>What a message has in its body, as a tree around all of it.</summary>
        internal static XElement TreeOf(SoapMessage message, XmlTypes types)
        {
            XmlOutput output = new XmlOutput(types);
            output.Open("", Around);
            message.WriteBody(output);
            output.Close();
            using (MemoryStream bytes = new MemoryStream(output.Finish()))
            {
                return XElement.Load(bytes, LoadOptions.PreserveWhitespace);
            }
        }

        /// <summary>The fields of a message that is sent.</summary>
        internal static Fields Of(SoapMessage message, XmlTypes types)
        {
            Fields fields = new Fields();
            foreach (XElement part in TreeOf(message, types).Elements().Elements())
            {
                fields.Add(part.Name.LocalName, part.Value);
            }
            return fields;
        }

        /// <summary>The fields of a query or a form.</summary>
        internal static Fields Parse(string text)
        {
            Fields fields = new Fields();
            foreach (string pair in text.Split('&'))
            {
                int equals = pair.IndexOf('=');
                if (pair.Length > 0)
                {
                    fields.Add(
                        Decoded(equals < 0 ? pair : pair.Substring(0, equals)),
                        equals < 0 ? "" : Decoded(pair.Substring(equals + 1)));
                }
            }
            return fields;
        }

        private void Add(string name, string value)
        {
            if (this.pairs.Count == Most)
            {
                throw new RequestRefusedException(400, "there are more than " + Most + " fields");
            }
            this.pairs.Add(new KeyValuePair<string, string>(name, value));
        }

        private static string Decoded(string text)
        {
            return Uri.UnescapeDataString(text.Replace('+', ' '));
        }

        private static string Encoded(string text)
        {
            // What one call escapes is bounded on older platforms.
            StringBuilder encoded = new StringBuilder();
            for (int from = 0; from < text.Length;)
            {
                int to = Math.Min(text.Length, from + 30000);
                to -= to < text.Length && char.IsHighSurrogate(text[to - 1]) ? 1 : 0;
                encoded.Append(Uri.EscapeDataString(text.Substring(from, to - from)));
                from = to;
            }
            return encoded.ToString();
        }

        /// <summary>The fields as a query or a form.</summary>
        internal string InForm()
        {
            return string.Join("&", this.pairs.Select(pair => Encoded(pair.Key) + "=" + Encoded(pair.Value).Replace("%20", "+")));
        }

        /// <summary>The location with each part's name in round brackets replaced by its value.</summary>
        internal string ReplacedIn(string location)
        {
            return Placeholder.Replace(location, match =>
            {
                int at = this.pairs.FindIndex(pair => pair.Key == match.Groups[1].Value);
                return at < 0 ? "" : Encoded(this.pairs[at].Value);
            });
        }

        /// <summary>The values that stand in a path where the location has names in round brackets; null when the two do not fit.</summary>
        internal static Fields Taken(string location, string path)
        {
            List<string> names = new List<string>();
            StringBuilder pattern = new StringBuilder("^");
            int at = 0;
            foreach (Match match in Placeholder.Matches(location))
            {
                pattern.Append(Literal(location.Substring(at, match.Index - at)));
                int known = names.IndexOf(match.Groups[1].Value);
                if (known < 0)
                {
                    names.Add(match.Groups[1].Value);
                    pattern.Append("([^/?&]*)");
                }
                else
                {
                    // Wherever a part stands it has the same value.
                    pattern.Append("(?:\\").Append(known + 1).Append(")");
                }
                at = match.Index + match.Length;
            }
            pattern.Append(Literal(location.Substring(at))).Append("$");
            // Round brackets that are no places mean the same either way.
            Match fits = Regex.Match(path.Replace("(", "%28").Replace(")", "%29"), pattern.ToString());
            if (!fits.Success)
            {
                return null;
            }
            Fields fields = new Fields();
            for (int i = 0; i < names.Count; i++)
            {
                fields.Add(names[i], Decoded(fits.Groups[i + 1].Value.Replace("+", "%2B")));
            }
            return fields;
        }

        private static string Literal(string text)
        {
            return Regex.Escape(SoapRequest.Escaped(text));
        }

        /// <summary>Has a message read the fields.</summary>
        internal void ReadInto(SoapMessage message, XmlTypes types, XmlReading reading)
        {
            try
            {
                XElement tree = new XElement(Around);
                foreach (KeyValuePair<string, string> pair in this.pairs)
                {
                    tree.Add(new XElement(Name.IsMatch(pair.Key) ? pair.Key : "unnamed", pair.Value));
                }
                reading.Read(NoTypes.Instance.WriteTree(tree), null, types, null, input =>
                {
                    message.ReadBody(input);
                    input.Finish();
                    return message;
                });
            }
            catch (XmlFormatException e)
            {
                throw new RequestRefusedException(400, OfFields(e));
            }
            catch (ArgumentException)
            {
                throw new RequestRefusedException(400, "a field holds characters that have no place in XML");
            }
        }

        /// <summary>What is wrong in the words of somebody who has sent fields and seen no XML.</summary>
        private static string OfFields(XmlFormatException wrong)
        {
            Match missing = Missing.Match(wrong.Reason);
            if (missing.Success)
            {
                return "the field " + missing.Groups[1].Value + " is missing";
            }
            Match unknown = Unknown.Match(wrong.Reason);
            if (unknown.Success)
            {
                return "the field " + unknown.Groups[1].Value + " is not expected, or is there more than once";
            }
            string name = wrong.Path.Substring(wrong.Path.LastIndexOf('/') + 1);
            return name == Around || name.Length == 0 ? wrong.Reason : "the field " + name + ": " + wrong.Reason;
        }
    }
}
