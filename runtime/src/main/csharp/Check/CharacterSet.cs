namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Globalization;

    /// <summary>A set of characters in a pattern (XML Schema Part 2, appendix F.1).</summary>
    internal abstract class CharacterSet
    {
        internal abstract bool Has(string text, int at, int codePoint);

        /// <summary>Characters from one to another.</summary>
        internal sealed class Range : CharacterSet
        {
            private readonly int from;
            private readonly int to;

            internal Range(int from, int to)
            {
                this.from = from;
                this.to = to;
            }

            internal override bool Has(string text, int at, int codePoint)
            {
                return codePoint >= this.from && codePoint <= this.to;
            }
        }

        /// <summary>Characters of some general categories, given by the letters that these begin with.</summary>
        internal sealed class Category : CharacterSet
        {
            private static readonly string[] Letters =
            {
                "Lu", "Ll", "Lt", "Lm", "Lo", "Mn", "Mc", "Me", "Nd", "Nl", "No", "Zs", "Zl", "Zp", "Cc", "Cf", "Cs", "Co",
                "Pc", "Pd", "Ps", "Pe", "Pi", "Pf", "Po", "Sm", "Sc", "Sk", "So", "Cn"
            };

            private readonly string[] names;

            internal Category(params string[] names)
            {
                this.names = names;
            }

            internal static bool IsKnown(string name)
            {
                return name.Length > 0 && Array.Exists(Letters, one => one.StartsWith(name, StringComparison.Ordinal));
            }

            internal override bool Has(string text, int at, int codePoint)
            {
                string category = Letters[(int)CharUnicodeInfo.GetUnicodeCategory(text, at)];
                foreach (string name in this.names)
                {
                    if (category.StartsWith(name, StringComparison.Ordinal))
                    {
                        return true;
                    }
                }
                return false;
            }
        }

        /// <summary>Characters of any of some sets, or of none of them, and without those of another.</summary>
        internal sealed class Union : CharacterSet
        {
            private readonly List<CharacterSet> sets;
            private readonly bool negated;
            private readonly CharacterSet without;

            internal Union(bool negated, CharacterSet without, List<CharacterSet> sets)
            {
                this.sets = sets;
                this.negated = negated;
                this.without = without;
            }

            internal override bool Has(string text, int at, int codePoint)
            {
                bool found = false;
                foreach (CharacterSet set in this.sets)
                {
                    if (set.Has(text, at, codePoint))
                    {
                        found = true;
                        break;
                    }
                }
                return found != this.negated && (this.without == null || !this.without.Has(text, at, codePoint));
            }
        }

        internal static CharacterSet Of(bool negated, params CharacterSet[] sets)
        {
            return new Union(negated, null, new List<CharacterSet>(sets));
        }
    }
}
