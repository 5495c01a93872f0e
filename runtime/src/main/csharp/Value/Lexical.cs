namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Globalization;
    using System.Numerics;
    using System.Text;

    /// <summary>
    /// The lexical forms of the built-in simple types (XML Schema Part 2, section 3). Parsing methods take text with white
    /// space around it and throw <see cref="FormatException"/> for text that is not of the type.
    /// </summary>
    public static class Lexical
    {
        private const int MostDigits = 50000;
        private const int MostSmallDigits = 18;

        private static readonly char[] NonZero = "123456789".ToCharArray();
        private static readonly char[] Spaces = { ' ', '\t', '\n', '\r' };

        private static bool IsSpace(char c)
        {
            return c == ' ' || c == '\n' || c == '\t' || c == '\r';
        }

        /// <summary>A text to be shown, with its end cut off when it has more characters than a number, of at least 3.</summary>
        internal static string Shortened(string text, int most)
        {
            return text.Length <= most ? text : text.Substring(0, most - 3) + "...";
        }

        /// <summary>Takes white space off both ends and makes each run inside one space.</summary>
        public static string Collapse(string text)
        {
            int length = text.Length;
            bool clean = length == 0 || (!IsSpace(text[0]) && !IsSpace(text[length - 1]));
            for (int i = 1; clean && i < length; i++)
            {
                char c = text[i];
                clean = !IsSpace(c) || (c == ' ' && text[i - 1] != ' ');
            }
            return clean ? text : string.Join(" ", Items(text));
        }

        /// <summary>Makes each white space character a space.</summary>
        public static string Replace(string text)
        {
            return text.IndexOfAny(Spaces, 0) < 0
                ? text
                : text.Replace('\t', ' ').Replace('\n', ' ').Replace('\r', ' ');
        }

        /// <summary>Splits at white space.</summary>
        public static string[] Items(string text)
        {
            return text.Split(Spaces, StringSplitOptions.RemoveEmptyEntries);
        }

        /// <summary>Whether there is nothing but white space.</summary>
        internal static bool IsBlank(string text)
        {
            foreach (char c in text)
            {
                if (!IsSpace(c))
                {
                    return false;
                }
            }
            return true;
        }

        private static FormatException Wrong(string text)
        {
            return new FormatException(text);
        }

        /// <summary>Parses <c>xs:boolean</c>.</summary>
        public static bool ParseBoolean(string text)
        {
            switch (Collapse(text))
            {
                case "true":
                case "1":
                    return true;
                case "false":
                case "0":
                    return false;
                default:
                    throw Wrong(text);
            }
        }

        /// <summary>Parses an integer type that fits a <c>long</c>, within bounds.</summary>
        public static long ParseLong(string text, long least, long most)
        {
            long small;
            int places;
            if (IsSmall(text, out small, out places) && places < 0)
            {
                return small >= least && small <= most ? small : throw Wrong(text);
            }
            BigInteger value = ParseInteger(text);
            return value >= least && value <= most ? (long)value : throw Wrong(text);
        }

        /// <summary>Numbers of few digits, as most are, need no great ones.</summary>
        /// <param name="text">what may be one</param>
        /// <param name="digits">the number without its point</param>
        /// <param name="places">how many digits stand behind the point, negative when there is no point</param>
        internal static bool IsSmall(string text, out long digits, out int places)
        {
            digits = 0;
            places = -1;
            int start = text.Length > 0 && text[0] == '-' ? 1 : 0;
            if (text.Length - start > MostSmallDigits)
            {
                return false;
            }
            for (int i = start; i < text.Length; i++)
            {
                if (IsDigit(text[i]))
                {
                    digits = digits * 10 + (text[i] - '0');
                }
                else if (text[i] == '.' && places < 0)
                {
                    places = text.Length - i - 1;
                }
                else
                {
                    return false;
                }
            }
            digits = start == 0 ? digits : -digits;
            return text.Length - start > (places < 0 ? 0 : 1);
        }

        /// <summary>Parses <c>xs:unsignedLong</c>.</summary>
        public static ulong ParseUnsignedLong(string text)
        {
            BigInteger value = ParseInteger(text);
            if (value.Sign < 0 || value > ulong.MaxValue)
            {
                throw Wrong(text);
            }
            return (ulong)value;
        }

        /// <summary>Parses <c>xs:integer</c>.</summary>
        public static BigInteger ParseInteger(string text)
        {
            string digits = Bounded(Collapse(text));
            int start = digits.Length > 0 && (digits[0] == '-' || digits[0] == '+') ? 1 : 0;
            if (!AreDigits(digits, start, digits.Length) || start == digits.Length)
            {
                throw Wrong(text);
            }
            return BigInteger.Parse(digits, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture);
        }

        internal static bool AreDigits(string text, int from, int to)
        {
            for (int i = from; i < to; i++)
            {
                if (text[i] < '0' || text[i] > '9')
                {
                    return false;
                }
            }
            return true;
        }

        /// <summary>Longer numbers than anybody means cost minutes (XML Schema Part 2, section 5.1 lets a processor have a limit).</summary>
        internal static string Bounded(string digits)
        {
            if (digits.Length > MostDigits)
            {
                throw new FormatException("more than " + MostDigits + " digits");
            }
            return digits;
        }

        /// <summary>Parses <c>xs:decimal</c>: no exponent; zeros at the end are kept.</summary>
        public static XmlDecimal ParseDecimal(string text)
        {
            return XmlDecimal.Parse(text);
        }

        /// <summary>Whether a text that is an <c>xs:decimal</c> is written as we write one.</summary>
        internal static bool IsOrdinaryDecimal(string text)
        {
            int start = text[0] == '-' ? 1 : 0;
            int next = start + 1 < text.Length ? text[start + 1] : '.';
            return IsDigit(text[start])
                && (text[start] != '0' || next == '.')
                && IsDigit(text[text.Length - 1])
                && (start == 0 || text.IndexOfAny(NonZero) >= 0);
        }

        /// <summary>Parses <c>xs:float</c>.</summary>
        public static float ParseFloat(string text)
        {
            string value = Collapse(text);
            switch (value)
            {
                case "INF":
                    return float.PositiveInfinity;
                case "-INF":
                    return float.NegativeInfinity;
                case "NaN":
                    return float.NaN;
                default:
                    string number = Numeric(value);
                    try
                    {
                        float parsed = float.Parse(number, NumberStyles.Float, CultureInfo.InvariantCulture);
                        return parsed == 0 && number[0] == '-' ? -0f : parsed;
                    }
                    catch (OverflowException)
                    {
                        return number[0] == '-' ? float.NegativeInfinity : float.PositiveInfinity;
                    }
            }
        }

        /// <summary>Parses <c>xs:double</c>.</summary>
        public static double ParseDouble(string text)
        {
            string value = Collapse(text);
            switch (value)
            {
                case "INF":
                    return double.PositiveInfinity;
                case "-INF":
                    return double.NegativeInfinity;
                case "NaN":
                    return double.NaN;
                default:
                    string number = Numeric(value);
                    try
                    {
                        double parsed = double.Parse(number, NumberStyles.Float, CultureInfo.InvariantCulture);
                        return parsed == 0 && number[0] == '-' ? -0d : parsed;
                    }
                    catch (OverflowException)
                    {
                        return number[0] == '-' ? double.NegativeInfinity : double.PositiveInfinity;
                    }
            }
        }

        /// <summary>The platform also takes words and signs of cultures, which XML Schema does not.</summary>
        private static string Numeric(string text)
        {
            string number = Bounded(text);
            int at = number.Length > 0 && (number[0] == '-' || number[0] == '+') ? 1 : 0;
            int digits = 0;
            bool point = false;
            for (; at < number.Length && (IsDigit(number[at]) || (number[at] == '.' && !point)); at++)
            {
                point |= number[at] == '.';
                digits += number[at] == '.' ? 0 : 1;
            }
            if (digits == 0)
            {
                throw Wrong(text);
            }
            if (at < number.Length)
            {
                bool exponent = number[at] == 'e' || number[at] == 'E';
                at++;
                at += exponent && at < number.Length && (number[at] == '-' || number[at] == '+') ? 1 : 0;
                if (!exponent || at == number.Length || !AreDigits(number, at, number.Length))
                {
                    throw Wrong(text);
                }
                if (number.Length - at > 9)
                {
                    // So great an exponent says no more than one of nine digits.
                    string most = number.Substring(at).TrimStart('0');
                    number = number.Substring(0, at) + (most.Length == 0 ? "0" : most.Length > 9 ? "999999999" : most);
                }
            }
            return number;
        }

        private static bool IsDigit(char c)
        {
            return c >= '0' && c <= '9';
        }

        /// <summary>Parses <c>xs:hexBinary</c>.</summary>
        public static byte[] ParseHex(string text)
        {
            string digits = Collapse(text);
            if (digits.Length % 2 != 0)
            {
                throw Wrong(text);
            }
            byte[] bytes = new byte[digits.Length / 2];
            for (int i = 0; i < bytes.Length; i++)
            {
                bytes[i] = (byte)(HexDigit(digits[2 * i], text) << 4 | HexDigit(digits[2 * i + 1], text));
            }
            return bytes;
        }

        private static int HexDigit(char c, string text)
        {
            if (c >= '0' && c <= '9')
            {
                return c - '0';
            }
            if (c >= 'a' && c <= 'f')
            {
                return c - 'a' + 10;
            }
            if (c >= 'A' && c <= 'F')
            {
                return c - 'A' + 10;
            }
            throw Wrong(text);
        }

        /// <summary>Parses <c>xs:base64Binary</c>; white space may stand anywhere (XML Schema Part 2, section 3.2.16).</summary>
        public static byte[] ParseBase64(string text)
        {
            string packed = text;
            if (text.IndexOfAny(Spaces) >= 0)
            {
                packed = string.Concat(Items(text));
            }
            if (packed.Length % 4 != 0)
            {
                throw new FormatException("base64 comes in groups of four characters");
            }
            int padding = packed.EndsWith("==", StringComparison.Ordinal) ? 2 : packed.EndsWith("=", StringComparison.Ordinal) ? 1 : 0;
            if (padding > 0)
            {
                string allowed = padding == 1 ? "AEIMQUYcgkosw048" : "AQgw";
                if (packed.Length < padding + 1 || allowed.IndexOf(packed[packed.Length - padding - 1]) < 0)
                {
                    throw new FormatException("the last digit holds bits beyond the last byte");
                }
            }
            for (int i = 0; i < packed.Length - padding; i++)
            {
                char c = packed[i];
                bool digit = (c >= 'A' && c <= 'Z') || (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '+' || c == '/';
                if (!digit)
                {
                    throw Wrong("no digit of base64");
                }
            }
            return Convert.FromBase64String(packed);
        }

        /// <summary>Parses text of any built-in type, given by its local name; text for types that have no type of their own.</summary>
        public static object Parse(string builtin, string text)
        {
            switch (builtin)
            {
                case "boolean":
                    return ParseBoolean(text);
                case "byte":
                    return (sbyte)ParseLong(text, sbyte.MinValue, sbyte.MaxValue);
                case "short":
                    return (short)ParseLong(text, short.MinValue, short.MaxValue);
                case "int":
                    return (int)ParseLong(text, int.MinValue, int.MaxValue);
                case "long":
                    return ParseLong(text, long.MinValue, long.MaxValue);
                case "unsignedByte":
                    return (byte)ParseLong(text, 0, byte.MaxValue);
                case "unsignedShort":
                    return (ushort)ParseLong(text, 0, ushort.MaxValue);
                case "unsignedInt":
                    return (uint)ParseLong(text, 0, uint.MaxValue);
                case "unsignedLong":
                    return ParseUnsignedLong(text);
                case "integer":
                case "nonNegativeInteger":
                case "positiveInteger":
                case "nonPositiveInteger":
                case "negativeInteger":
                    return ParseInteger(text);
                case "decimal":
                    return ParseDecimal(text);
                case "float":
                    return ParseFloat(text);
                case "double":
                    return ParseDouble(text);
                case "hexBinary":
                    return ParseHex(text);
                case "base64Binary":
                    return ParseBase64(text);
                case "dateTime":
                    return XmlDateTime.Parse(Bounded(text));
                case "date":
                    return XmlDate.Parse(Bounded(text));
                case "time":
                    return XmlTime.Parse(Bounded(text));
                case "duration":
                    return XmlDuration.Parse(Bounded(text));
                case "gYear":
                    return XmlPartialDate.Parse(Bounded(text), PartialDateForm.Year);
                case "gYearMonth":
                    return XmlPartialDate.Parse(Bounded(text), PartialDateForm.YearMonth);
                case "gMonth":
                    return XmlPartialDate.Parse(Bounded(text), PartialDateForm.Month);
                case "gMonthDay":
                    return XmlPartialDate.Parse(Bounded(text), PartialDateForm.MonthDay);
                case "gDay":
                    return XmlPartialDate.Parse(Bounded(text), PartialDateForm.Day);
                case "string":
                case "anySimpleType":
                    return text;
                case "normalizedString":
                    return Replace(text);
                default:
                    return Collapse(text);
            }
        }

        /// <summary>Prints <c>xs:boolean</c>.</summary>
        public static string Print(bool value)
        {
            return value ? "true" : "false";
        }

        /// <summary>Prints an integer type.</summary>
        public static string Print(long value)
        {
            return value.ToString(CultureInfo.InvariantCulture);
        }

        /// <summary>Prints an integer type.</summary>
        public static string Print(int value)
        {
            return value.ToString(CultureInfo.InvariantCulture);
        }

        /// <summary>Prints <c>xs:unsignedLong</c>.</summary>
        public static string Print(ulong value)
        {
            return value.ToString(CultureInfo.InvariantCulture);
        }

        /// <summary>Prints <c>xs:integer</c>.</summary>
        public static string Print(BigInteger value)
        {
            return value.ToString(CultureInfo.InvariantCulture);
        }

        /// <summary>Prints <c>xs:decimal</c>.</summary>
        public static string Print(decimal value)
        {
            return value.ToString(CultureInfo.InvariantCulture);
        }

        /// <summary>Prints <c>xs:decimal</c>.</summary>
        public static string Print(XmlDecimal value)
        {
            return value.ToString();
        }

        /// <summary>Prints <c>xs:float</c>.</summary>
        public static string Print(float value)
        {
            if (float.IsInfinity(value))
            {
                return value > 0 ? "INF" : "-INF";
            }
            if (float.IsNaN(value))
            {
                return "NaN";
            }
            if (value == 0)
            {
                return 1 / value < 0 ? "-0" : "0";
            }
            string text = value.ToString("R", CultureInfo.InvariantCulture);
            return float.Parse(text, CultureInfo.InvariantCulture) == value
                ? text
                : value.ToString("G9", CultureInfo.InvariantCulture);
        }

        /// <summary>Prints <c>xs:double</c>.</summary>
        public static string Print(double value)
        {
            if (double.IsInfinity(value))
            {
                return value > 0 ? "INF" : "-INF";
            }
            if (double.IsNaN(value))
            {
                return "NaN";
            }
            if (value == 0)
            {
                return 1 / value < 0 ? "-0" : "0";
            }
            string text = value.ToString("R", CultureInfo.InvariantCulture);
            double again;
            bool same = double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out again) && again == value;
            return same ? text : value.ToString("G17", CultureInfo.InvariantCulture);
        }

        /// <summary>Prints a date, a time or a duration.</summary>
        public static string Print(WrittenValue value)
        {
            return value.Text;
        }

        /// <summary>Prints a list type.</summary>
        public static string Print<T>(IEnumerable<T> values, Func<T, string> printer)
        {
            StringBuilder text = new StringBuilder();
            foreach (T value in values)
            {
                text.Append(text.Length == 0 ? "" : " ").Append(printer(value));
            }
            return text.ToString();
        }

        /// <summary>Prints <c>xs:hexBinary</c> in its canonical form, in upper case.</summary>
        public static string PrintHex(byte[] value)
        {
            const string Digits = "0123456789ABCDEF";
            char[] text = new char[value.Length * 2];
            for (int i = 0; i < value.Length; i++)
            {
                text[2 * i] = Digits[value[i] >> 4];
                text[2 * i + 1] = Digits[value[i] & 15];
            }
            return new string(text);
        }

        /// <summary>Prints <c>xs:base64Binary</c>.</summary>
        public static string PrintBase64(byte[] value)
        {
            return Convert.ToBase64String(value);
        }
    }
}
