namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Globalization;
    using System.Numerics;

    /// <summary>
    /// The order of values of the built-in types (XML Schema Part 2, the order relations of section 3.2). It is partial where
    /// a time zone is missing or a duration counts in months.
    /// </summary>
    internal static class ValueOrder
    {
        /// <summary>Neither is known to be the greater.</summary>
        internal const int Undecided = 2;

        private static readonly XmlDecimal WidestZone = 14 * 3600;

        /// <summary>The points in time to which durations are added to compare them (section 3.2.6.2), as years and months.</summary>
        private static readonly int[][] DurationStarts =
        {
            new[] { 1696, 9 }, new[] { 1697, 2 }, new[] { 1903, 3 }, new[] { 1903, 7 }
        };

        /// <summary>Compares two values of one type: negative, zero, positive, or <see cref="Undecided"/>.</summary>
        /// <exception cref="FormatException">A text is not of the type, or the values of the type have no order.</exception>
        internal static int Compare(string primitive, string a, string b)
        {
            switch (primitive)
            {
                case "decimal":
                    return Lexical.ParseDecimal(a).CompareTo(Lexical.ParseDecimal(b));
                case "float":
                    return Compare(Lexical.ParseFloat(a), Lexical.ParseFloat(b));
                case "double":
                    return Compare(Lexical.ParseDouble(a), Lexical.ParseDouble(b));
                case "duration":
                    return CompareSpans(Span(a), Span(b));
                default:
                    if (!IsMoment(primitive))
                    {
                        throw new FormatException("values of " + primitive + " have no order");
                    }
                    return CompareMoments(Moment(primitive, a), Moment(primitive, b));
            }
        }

        private static bool IsMoment(string primitive)
        {
            switch (primitive)
            {
                case "dateTime":
                case "date":
                case "time":
                case "gYear":
                case "gYearMonth":
                case "gMonth":
                case "gMonthDay":
                case "gDay":
                    return true;
                default:
                    return false;
            }
        }

        /// <summary>Whether a number is one of the two zeros, which are one value.</summary>
        private static bool IsZero(double number)
        {
            return number >= 0 && number <= 0;
        }

        /// <summary>Something that two values of one type have in common exactly when they are the same value.</summary>
        internal static string Identity(string primitive, string text)
        {
            switch (primitive)
            {
                case "decimal":
                    return Lexical.ParseDecimal(text).Shortened().ToString();
                case "float":
                    float single = Lexical.ParseFloat(text);
                    return Lexical.Print(IsZero(single) ? 0f : single);
                case "double":
                    double number = Lexical.ParseDouble(text);
                    return Lexical.Print(IsZero(number) ? 0d : number);
                case "boolean":
                    return Lexical.Print(Lexical.ParseBoolean(text));
                case "duration":
                    KeyValuePair<BigInteger, XmlDecimal> span = Span(text);
                    return span.Key.ToString(CultureInfo.InvariantCulture) + " " + span.Value.Shortened();
                case "hexBinary":
                    return Lexical.PrintHex(Lexical.ParseHex(text));
                case "base64Binary":
                    return Lexical.PrintBase64(Lexical.ParseBase64(text));
                default:
                    if (!IsMoment(primitive))
                    {
                        return text;
                    }
                    KeyValuePair<XmlDecimal, bool> moment = Moment(primitive, text);
                    return moment.Key.Shortened() + (moment.Value ? "Z" : "");
            }
        }

        /// <summary>What is no number is neither less nor greater than any other value (XML Schema Part 2, section 3.2.4).</summary>
        private static int Compare(double a, double b)
        {
            if (double.IsNaN(a) || double.IsNaN(b))
            {
                return double.IsNaN(a) && double.IsNaN(b) ? 0 : Undecided;
            }
            return a < b ? -1 : a > b ? 1 : 0;
        }

        private static XmlDecimal Plus(XmlDecimal a, XmlDecimal b)
        {
            int scale = Math.Max(a.Scale, b.Scale);
            return new XmlDecimal(
                a.Digits * BigInteger.Pow(10, scale - a.Scale) + b.Digits * BigInteger.Pow(10, scale - b.Scale), scale);
        }

        private static XmlDecimal Times(XmlDecimal a, BigInteger b)
        {
            return new XmlDecimal(a.Digits * b, a.Scale);
        }

        private static int CompareMoments(KeyValuePair<XmlDecimal, bool> a, KeyValuePair<XmlDecimal, bool> b)
        {
            if (a.Value == b.Value)
            {
                return a.Key.CompareTo(b.Key);
            }
            if (!a.Value)
            {
                int reverse = CompareMoments(b, a);
                return reverse == Undecided ? Undecided : -reverse;
            }
            if (a.Key.CompareTo(Plus(b.Key, Times(WidestZone, -1))) < 0)
            {
                return -1;
            }
            return a.Key.CompareTo(Plus(b.Key, WidestZone)) > 0 ? 1 : Undecided;
        }

        private static int CompareSpans(KeyValuePair<BigInteger, XmlDecimal> a, KeyValuePair<BigInteger, XmlDecimal> b)
        {
            int first = 0;
            for (int i = 0; i < DurationStarts.Length; i++)
            {
                int here = From(a, DurationStarts[i]).CompareTo(From(b, DurationStarts[i]));
                if (i > 0 && here != first)
                {
                    return Undecided;
                }
                first = here;
            }
            return first;
        }

        /// <summary>Days from a fixed day, in the calendar that goes on for ever in both directions.</summary>
        private static BigInteger Days(BigInteger year, int month, int day)
        {
            BigInteger shifted = month <= 2 ? year - 1 : year;
            BigInteger rest;
            BigInteger era = BigInteger.DivRem(shifted, 400, out rest);
            if (rest.Sign < 0)
            {
                era -= 1;
                rest += 400;
            }
            int ofEra = (int)rest;
            int ofYear = (153 * (month + (month > 2 ? -3 : 9)) + 2) / 5 + day - 1;
            return era * 146097 + (ofEra * 365 + ofEra / 4 - ofEra / 100 + ofYear);
        }

        /// <summary>A point on the time line, in seconds, and whether a zone says which; without one it is only near it.</summary>
        private static KeyValuePair<XmlDecimal, bool> Moment(string type, string text)
        {
            string value = Lexical.Collapse(text);
            Lexical.Parse(type, value);
            int end = CalendarText.ZoneStart(value);
            string local = value.Substring(0, end);
            BigInteger year = 1972;
            int month = 12;
            int day = 31;
            bool ofYear = type.StartsWith("gYear", StringComparison.Ordinal);
            if (type == "dateTime" || type == "date" || ofYear)
            {
                int dash = local.IndexOf('-', 1);
                year = Lexical.ParseInteger(dash < 0 ? local : local.Substring(0, dash));
                year = year.Sign < 0 ? year + 1 : year;
                month = dash < 0 ? 1 : Number(local, dash + 1);
                day = dash < 0 || ofYear ? 1 : Number(local, dash + 4);
            }
            else if (type[0] == 'g')
            {
                month = type == "gDay" ? 1 : Number(local, 2);
                day = type == "gMonth" ? 1 : type == "gDay" ? Number(local, 3) : Number(local, 5);
            }
            XmlDecimal seconds = new XmlDecimal(Days(year, month, day) * 86400, 0);
            int time = type == "time" ? 0 : local.IndexOf('T') + 1;
            if (time > 0 || type == "time")
            {
                seconds = Plus(seconds, Number(local, time) * 3600 + Number(local, time + 3) * 60);
                seconds = Plus(seconds, Lexical.ParseDecimal(local.Substring(time + 6)));
            }
            seconds = Plus(seconds, -(long)CalendarText.Offset(value.Substring(end)).TotalSeconds);
            return new KeyValuePair<XmlDecimal, bool>(seconds, end < value.Length);
        }

        private static int Number(string text, int at)
        {
            return int.Parse(text.Substring(at, 2), CultureInfo.InvariantCulture);
        }

        /// <summary>A duration as months and seconds, which do not convert into each other.</summary>
        private static KeyValuePair<BigInteger, XmlDecimal> Span(string text)
        {
            string value = XmlDuration.Parse(text).Text;
            BigInteger months = 0;
            XmlDecimal seconds = 0;
            bool time = false;
            int start = value.IndexOf('P') + 1;
            for (int i = start; i < value.Length; i++)
            {
                char c = value[i];
                if (c == 'T')
                {
                    time = true;
                    start = i + 1;
                }
                else if (c > '9')
                {
                    XmlDecimal part = Lexical.ParseDecimal(value.Substring(start, i - start));
                    if (c == 'Y' || (c == 'M' && !time))
                    {
                        months += part.Digits * (c == 'Y' ? 12 : 1);
                    }
                    else
                    {
                        seconds = Plus(seconds, Times(part, c == 'D' ? 86400 : c == 'H' ? 3600 : c == 'M' ? 60 : 1));
                    }
                    start = i + 1;
                }
            }
            bool negative = value[0] == '-';
            return new KeyValuePair<BigInteger, XmlDecimal>(
                negative ? -months : months, negative ? Times(seconds, -1) : seconds);
        }

        private static XmlDecimal From(KeyValuePair<BigInteger, XmlDecimal> span, int[] start)
        {
            BigInteger month = span.Key + (start[0] * 12 + start[1] - 1);
            BigInteger rest;
            BigInteger year = BigInteger.DivRem(month, 12, out rest);
            if (rest.Sign < 0)
            {
                year -= 1;
                rest += 12;
            }
            return Plus(new XmlDecimal(Days(year, (int)rest + 1, 1) * 86400, 0), span.Value);
        }
    }
}
