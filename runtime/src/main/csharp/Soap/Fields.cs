namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.IO;
    using System.Linq;
    using System.Text;
    using System.Text.RegularExpressions;
    using System.Xml;
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

        /// <summary>Whether a method has fields in the address, not in a body (RFC 9110, section 9.3).</summary>
        internal static bool AreInAddress(string verb)
        {
            return verb == "GET" || verb == "HEAD" || verb == "DELETE";
        }

        /// <summary>The fields that a location has by itself, in its query.</summary>
        internal static Fields InQuery(string location)
        {
            int query = location.IndexOf('?');
            return Parse(query < 0 ? "" : SoapRequest.Normal(location.Substring(query + 1)));
        }

        /// <summary>How many they are.</summary>
        internal int Count
        {
            get { return this.pairs.Count; }
        }

        /// <summary>These fields without some of them; null when those are not all there.</summary>
        internal Fields Without(Fields others)
        {
            Fields rest = new Fields();
            rest.pairs.AddRange(this.pairs);
            return others.pairs.All(rest.pairs.Remove) ? rest : null;
        }

        private static bool IsName(string text)
        {
            try
            {
                return XmlConvert.VerifyNCName(text).Length > 0;
            }
            catch (Exception e) when (e is XmlException || e is ArgumentException)
            {
                return false;
            }
        }

        private void Add(string name, string value)
        {
            if (this.pairs.Count == Most)
            {
                throw new RequestRefusedException(400, "there are more than " + Most + " fields");
            }
            this.pairs.Add(new KeyValuePair<string, string>(name, value));
        }

        /// <summary>The text of a field (HTML 4.01, section 17.13.4.1; RFC 3986, section 2.1).</summary>
        private static string Decoded(string text)
        {
            byte[] written = Encoding.UTF8.GetBytes(text);
            byte[] bytes = new byte[written.Length];
            int length = 0;
            bool sound = true;
            for (int i = 0; i < written.Length; i++)
            {
                if (written[i] == '%')
                {
                    sound &= i + 2 < written.Length && Uri.IsHexDigit((char)written[i + 1]) && Uri.IsHexDigit((char)written[i + 2]);
                    bytes[length++] = sound ? (byte)((Uri.FromHex((char)written[i + 1]) * 16) + Uri.FromHex((char)written[i + 2])) : (byte)0;
                    i += 2;
                }
                else
                {
                    bytes[length++] = written[i] == '+' ? (byte)' ' : written[i];
                }
            }
            try
            {
                if (sound)
                {
                    return new UTF8Encoding(false, true).GetString(bytes, 0, length);
                }
            }
            catch (ArgumentException)
            {
                sound = false;
            }
            throw new RequestRefusedException(400, "a field is not URL-encoded: " + ContractEndpoint.Printable(text));
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
            Template template = new Template(location);
            // Round brackets that are no places mean the same either way.
            string plain = path.Replace("(", "%28").Replace(")", "%29");
            return template.Fits(plain, 0, 0) ? template.Values(plain) : null;
        }

        /// <summary>A location with places for values, and where they stand in a path.</summary>
        private sealed class Template
        {
            /// <summary>A path that needs more of them was made up to take long: what fits is found soon.</summary>
            private const int MostSteps = 5000000;

            private static readonly char[] Ends = { '/', '?', '&' };

            private readonly List<string> names = new List<string>();
            private readonly List<string> between = new List<string>();
            private readonly int[] starts;
            private readonly int[] ends;
            private int steps;

            internal Template(string location)
            {
                int at = 0;
                foreach (Match match in Placeholder.Matches(location))
                {
                    this.between.Add(SoapRequest.Normal(location.Substring(at, match.Index - at)));
                    this.names.Add(match.Groups[1].Value);
                    at = match.Index + match.Length;
                }
                this.between.Add(SoapRequest.Normal(location.Substring(at)));
                this.starts = new int[this.names.Count];
                this.ends = new int[this.names.Count];
            }

            /// <summary>Whether the path from somewhere on is what stands before a place, the value, as long as it can be, and the rest.</summary>
            internal bool Fits(string path, int at, int place)
            {
                if (!StandsAt(path, at, this.between[place]))
                {
                    return false;
                }
                int from = at + this.between[place].Length;
                if (place == this.names.Count)
                {
                    return from == path.Length;
                }
                this.starts[place] = from;
                int first = this.First(place);
                if (first < place)
                {
                    // Wherever a part stands it has the same value.
                    string value = path.Substring(this.starts[first], this.ends[first] - this.starts[first]);
                    this.ends[place] = from + value.Length;
                    return StandsAt(path, from, value) && this.Fits(path, this.ends[place], place + 1);
                }
                int to = path.IndexOfAny(Ends, from);
                for (to = to < 0 ? path.Length : to; to >= from && this.steps < MostSteps; to--)
                {
                    this.steps++;
                    this.ends[place] = to;
                    if (this.Fits(path, to, place + 1))
                    {
                        return true;
                    }
                }
                return false;
            }

            internal Fields Values(string path)
            {
                Fields fields = new Fields();
                for (int i = 0; i < this.names.Count; i++)
                {
                    if (this.First(i) == i)
                    {
                        string value = path.Substring(this.starts[i], this.ends[i] - this.starts[i]);
                        fields.Add(this.names[i], Decoded(value.Replace("+", "%2B")));
                    }
                }
                return fields;
            }

            private static bool StandsAt(string path, int at, string text)
            {
                return string.CompareOrdinal(path, at, text, 0, text.Length) == 0;
            }

            /// <summary>The first place that has the name of a place.</summary>
            private int First(int place)
            {
                return this.names.IndexOf(this.names[place]);
            }
        }

        /// <summary>Has a message read the fields.</summary>
        internal void ReadInto(SoapMessage message, XmlTypes types, XmlReading reading)
        {
            try
            {
                XElement tree = new XElement(Around);
                foreach (KeyValuePair<string, string> pair in this.pairs)
                {
                    tree.Add(new XElement(IsName(pair.Key) ? pair.Key : "unnamed", pair.Value));
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
