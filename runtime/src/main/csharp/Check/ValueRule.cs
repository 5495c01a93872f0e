namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Globalization;
    using System.Numerics;

    /// <summary>
    /// What a simple type lets its values be (XML Schema Part 2, section 4): a built-in type, a list or a union, narrowed by
    /// facets one after the other. Each facet gives a new rule; a rule never changes.
    /// </summary>
    public sealed class ValueRule
    {
        private const int ShownValues = 6;
        private const int ShownLength = 60;

        private readonly string builtin;
        private readonly ValueRule item;
        private readonly ValueRule[] members;
        private readonly ValueRule narrowed;
        private readonly string whiteSpace;
        private readonly Func<ValueRule, string, string> facet;

        private ValueRule(
            string builtin,
            ValueRule item,
            ValueRule[] members,
            ValueRule narrowed,
            string whiteSpace,
            Func<ValueRule, string, string> facet)
        {
            this.builtin = builtin;
            this.item = item;
            this.members = members;
            this.narrowed = narrowed;
            this.whiteSpace = whiteSpace;
            this.facet = facet;
        }

        /// <summary>The rule of a built-in type, given by its local name.</summary>
        public static ValueRule Of(string builtin)
        {
            string listed = BuiltinText.Item(builtin);
            return new ValueRule(
                builtin, listed == null ? null : Of(listed), null, null, BuiltinText.WhiteSpace(builtin), null);
        }

        /// <summary>Items with white space between.</summary>
        public static ValueRule ListOf(ValueRule item)
        {
            return new ValueRule(null, item, null, null, "collapse", null);
        }

        /// <summary>Values of any of some types; the first that takes a text has it.</summary>
        public static ValueRule UnionOf(params ValueRule[] members)
        {
            return new ValueRule(null, null, members, null, "preserve", null);
        }

        private ValueRule With(Func<ValueRule, string, string> added)
        {
            return new ValueRule(this.builtin, this.item, this.members, this, this.whiteSpace, added);
        }

        /// <summary>White space is treated in a way: <c>preserve</c>, <c>replace</c> or <c>collapse</c>.</summary>
        public ValueRule WhiteSpace(string treatment)
        {
            return new ValueRule(this.builtin, this.item, this.members, this, treatment, null);
        }

        /// <summary>Text matches one of some patterns.</summary>
        /// <param name="shown">the patterns as messages show them</param>
        /// <param name="patterns">the patterns, blocks of characters written out</param>
        public ValueRule Pattern(string shown, params string[] patterns)
        {
            Lazy<PatternAutomaton> automaton = new Lazy<PatternAutomaton>(() => PatternAutomaton.Of(patterns));
            return this.With((of, text) =>
            {
                string literal = of.Literal(text);
                return automaton.Value == null || automaton.Value.Matches(literal)
                    ? null
                    : Shown(literal) + " does not match " + shown;
            });
        }

        /// <summary>Text as the member of a union that has it treats its white space (XML Schema Part 2, section 4.3.6).</summary>
        private string Literal(string text)
        {
            ValueRule member = this.members == null ? null : this.Member(text);
            return member == null ? text : member.Literal(member.Normalized(text));
        }

        /// <summary>The value is one of some.</summary>
        public ValueRule Values(params string[] allowed)
        {
            Lazy<HashSet<string>> keys = new Lazy<HashSet<string>>(
                () => new HashSet<string>(Array.ConvertAll(allowed, this.Key), StringComparer.Ordinal));
            return this.With((of, text) => keys.Value.Contains(this.Key(text))
                ? null
                : Shown(text) + " is none of " + Listed(allowed));
        }

        private static string Listed(string[] values)
        {
            List<string> shown = new List<string>();
            for (int i = 0; i < Math.Min(values.Length, ShownValues); i++)
            {
                shown.Add(Shown(values[i]));
            }
            string text = string.Join(", ", shown);
            return values.Length > ShownValues ? text + " and " + (values.Length - ShownValues) + " more" : text;
        }

        /// <summary>The value is not less than a bound, or greater than it when that is exclusive.</summary>
        public ValueRule Least(string bound, bool exclusive)
        {
            return this.With((of, text) =>
            {
                int order = ValueOrder.Compare(of.Primitive, text, bound);
                bool holds = order != ValueOrder.Undecided && (exclusive ? order > 0 : order >= 0);
                return holds ? null : Shown(text) + (exclusive ? " is not greater than " : " is less than ") + bound;
            });
        }

        /// <summary>The value is not greater than a bound, or less than it when that is exclusive.</summary>
        public ValueRule Most(string bound, bool exclusive)
        {
            return this.With((of, text) =>
            {
                int order = ValueOrder.Compare(of.Primitive, text, bound);
                bool holds = exclusive ? order < 0 : order <= 0;
                return holds ? null : Shown(text) + (exclusive ? " is not less than " : " is greater than ") + bound;
            });
        }

        /// <summary>The length lies between two bounds: characters of text, bytes of binary, items of a list.</summary>
        public ValueRule Length(int least, int most)
        {
            return this.With((of, text) =>
            {
                int length = of.LengthOf(text);
                if (length < 0 || (length >= least && length <= most))
                {
                    return null;
                }
                string bound = length < least ? "at least " + least : "at most " + most;
                return Shown(text) + " has a length of " + length + ", not " + bound;
            });
        }

        private int LengthOf(string text)
        {
            if (this.item != null)
            {
                return Lexical.Items(text).Length;
            }
            switch (this.Primitive)
            {
                case "hexBinary":
                    return Lexical.ParseHex(text).Length;
                case "base64Binary":
                    return Lexical.ParseBase64(text).Length;
                case "QName":
                case "NOTATION":
                    return -1;
                default:
                    int count = 0;
                    for (int i = 0; i < text.Length; i++)
                    {
                        count += char.IsLowSurrogate(text[i]) ? 0 : 1;
                    }
                    return count;
            }
        }

        /// <summary>The number has at most so many digits, and at most so many of them behind the point.</summary>
        public ValueRule Digits(int total, int fraction)
        {
            return this.With((of, text) =>
            {
                XmlDecimal value = Lexical.ParseDecimal(text).Shortened();
                if (value.Scale > fraction)
                {
                    return Shown(text) + " has more than " + fraction + " digits behind the point";
                }
                int digits = BigInteger.Abs(value.Digits).ToString(CultureInfo.InvariantCulture).Length;
                return !value.Digits.IsZero && Math.Max(digits, value.Scale) > total
                    ? Shown(text) + " has more than " + total + " digits"
                    : null;
            });
        }

        /// <summary>The primitive type behind the values, or null for lists and unions.</summary>
        private string Primitive
        {
            get { return this.builtin == null || this.item != null ? null : BuiltinText.Primitive(this.builtin); }
        }

        /// <summary>
        /// A value as the type wants it written: a pattern may want <c>007</c> for 7, or <c>1</c> for true. Gives the ordinary way
        /// if the type takes that, or no other way to write the same value.
        /// </summary>
        public string Fitting(string ordinary)
        {
            if (this.Complaint(ordinary) == null)
            {
                return ordinary;
            }
            if (this.builtin == null && this.item != null)
            {
                return string.Join(" ", Array.ConvertAll(Lexical.Items(ordinary), this.item.Fitting));
            }
            string primitive = this.Primitive;
            string other = primitive == null
                ? null
                : Spellings.Find(primitive, primitive == "decimal" && primitive != this.builtin, ordinary, way => this.Complaint(way) == null);
            return other ?? ordinary;
        }

        private string Normalized(string text)
        {
            return this.whiteSpace == "collapse"
                ? Lexical.Collapse(text)
                : this.whiteSpace == "replace" ? Lexical.Replace(text) : text;
        }

        /// <summary>Checks a text; gives what is wrong, or null.</summary>
        internal string Complaint(string text)
        {
            return this.Check(this.Normalized(text));
        }

        private string Check(string text)
        {
            if (this.narrowed == null)
            {
                return this.OwnComplaint(text);
            }
            string inherited = this.narrowed.Check(text);
            if (inherited != null || this.facet == null)
            {
                return inherited;
            }
            try
            {
                return this.facet(this, text);
            }
            catch (FormatException)
            {
                // A facet that makes no sense for its type, such as a bound that is no value of it, is not held against the
                // text.
                return null;
            }
        }

        private string OwnComplaint(string text)
        {
            if (this.members != null)
            {
                return this.Member(text) == null ? Shown(text) + " is of none of the types allowed here" : null;
            }
            if (this.item != null)
            {
                if (this.builtin != null && text.Length == 0)
                {
                    return "a list of " + this.builtin + " has at least one item";
                }
                foreach (string one in Lexical.Items(text))
                {
                    string wrong = this.item.Complaint(one);
                    if (wrong != null)
                    {
                        return wrong;
                    }
                }
                return null;
            }
            return BuiltinText.Accepts(this.builtin, text) ? null : Shown(text) + " is no " + this.builtin;
        }

        /// <summary>The member of a union that has a text, or null.</summary>
        private ValueRule Member(string text)
        {
            return Array.Find(this.members, member => member.Complaint(text) == null);
        }

        /// <summary>Something that two texts of this type have in common exactly when they stand for the same value.</summary>
        private string Key(string text)
        {
            string value = this.Normalized(text);
            if (this.members != null)
            {
                ValueRule member = this.Member(value);
                return member == null ? value : member.Key(value);
            }
            if (this.item != null)
            {
                return string.Join(" ", Array.ConvertAll(Lexical.Items(value), this.item.Key));
            }
            try
            {
                string primitive = this.Primitive == "anySimpleType" ? "string" : this.Primitive;
                return primitive + " " + ValueOrder.Identity(primitive, value);
            }
            catch (FormatException)
            {
                return value;
            }
        }

        private static string Shown(string text)
        {
            return text.Length <= ShownLength ? "\"" + text + "\"" : "\"" + text.Substring(0, ShownLength - 3) + "...\"";
        }
    }
}
