namespace Protypos.Runtime
{
    using System;

    /// <summary>The ways to write one value (XML Schema Part 2, section 3.2), for types whose patterns do not take the ordinary one.</summary>
    internal static class Spellings
    {
        private const int MostZerosBefore = 18;
        private const int MostZerosBehind = 12;

        /// <summary>
        /// Finds another way to write a value; gives the first that will do, the closest to the ordinary one first, or null.
        /// </summary>
        /// <param name="primitive">the primitive type of the value</param>
        /// <param name="whole">whether it is a number without a point</param>
        /// <param name="ordinary">the ordinary way</param>
        /// <param name="fits">whether a way will do</param>
        internal static string Find(string primitive, bool whole, string ordinary, Func<string, bool> fits)
        {
            switch (primitive)
            {
                case "boolean":
                    return ordinary == "true" ? One("1", fits) : ordinary == "false" ? One("0", fits) : null;
                case "hexBinary":
                    return One(ordinary.ToLowerInvariant(), fits);
                case "decimal":
                    return Number(ordinary, whole, fits);
                case "float":
                case "double":
                    char last = ordinary[ordinary.Length - 1];
                    return last >= '0' && last <= '9' ? Number(ordinary, false, fits) : null;
                default:
                    return null;
            }
        }

        private static string One(string way, Func<string, bool> fits)
        {
            return fits(way) ? way : null;
        }

        private static string Number(string ordinary, bool whole, Func<string, bool> fits)
        {
            bool negative = ordinary[0] == '-';
            string plain = Plain(negative ? ordinary.Substring(1) : ordinary);
            int point = plain.IndexOf('.');
            string before = point < 0 ? plain : plain.Substring(0, point);
            string behind = point < 0 ? "" : plain.Substring(point + 1).TrimEnd('0');
            // What is less than one can be written with no digit before the point, which is the last way to try.
            int most = whole || behind.Length == 0 || before != "0" ? MostZerosBefore : MostZerosBefore + 1;
            for (int leading = 0; leading <= most; leading++)
            {
                string start = leading > MostZerosBefore ? "" : new string('0', leading) + before;
                for (int trailing = 0; trailing <= (whole ? 0 : MostZerosBehind); trailing++)
                {
                    string fraction = behind + new string('0', trailing);
                    string digits = start + (fraction.Length == 0 ? "" : "." + fraction);
                    string signed = negative ? "-" + digits : digits;
                    if (fits(signed))
                    {
                        return signed;
                    }
                    if (!negative && fits("+" + digits))
                    {
                        return "+" + digits;
                    }
                }
            }
            return null;
        }

        /// <summary>A number without an exponent.</summary>
        private static string Plain(string number)
        {
            int exponent = number.IndexOf('E');
            if (exponent < 0)
            {
                return number;
            }
            int move = int.Parse(number.Substring(exponent + 1), System.Globalization.CultureInfo.InvariantCulture);
            string digits = number.Substring(0, exponent);
            int point = digits.IndexOf('.');
            int before = (point < 0 ? digits.Length : point) + move;
            digits = digits.Replace(".", "");
            if (before <= 0)
            {
                return "0." + new string('0', -before) + digits;
            }
            return before >= digits.Length
                ? digits + new string('0', before - digits.Length)
                : digits.Substring(0, before) + "." + digits.Substring(before);
        }
    }
}
