namespace Protypos.Runtime
{
    using System;

    /// <summary>Which parts of a partial date are there.</summary>
    public enum PartialDateForm
    {
        /// <summary><c>xs:gYear</c>, such as 2027.</summary>
        Year,

        /// <summary><c>xs:gYearMonth</c>, such as 2027-05.</summary>
        YearMonth,

        /// <summary><c>xs:gMonth</c>, such as --05.</summary>
        Month,

        /// <summary><c>xs:gMonthDay</c>, such as --05-09.</summary>
        MonthDay,

        /// <summary><c>xs:gDay</c>, such as ---09.</summary>
        Day
    }

#pragma warning disable 660, 661 // Equals and GetHashCode are those of the base
    /// <summary>
    /// A date of which parts are left out: <c>xs:gYear</c>, <c>xs:gYearMonth</c>, <c>xs:gMonth</c>, <c>xs:gMonthDay</c> or
    /// <c>xs:gDay</c> (XML Schema Part 2, sections 3.2.10 to 3.2.14), with or without a time zone.
    /// </summary>
    public sealed class XmlPartialDate : WrittenValue, IEquatable<XmlPartialDate>
    {
        private XmlPartialDate(string text)
            : base(text)
        {
        }

        /// <summary>Reads a partial date of any form.</summary>
        /// <exception cref="FormatException">The text is none.</exception>
        public static XmlPartialDate Parse(string text)
        {
            string value = Lexical.Collapse(text);
            return Parse(value, FormOf(value));
        }

        /// <summary>Reads a partial date of one form.</summary>
        /// <exception cref="FormatException">The text is not of that form.</exception>
        public static XmlPartialDate Parse(string text, PartialDateForm form)
        {
            string value = Lexical.Collapse(text);
            CalendarText scan = new CalendarText(value);
            switch (form)
            {
                case PartialDateForm.Year:
                    scan.Year();
                    break;
                case PartialDateForm.YearMonth:
                    scan.Year();
                    scan.Expect('-');
                    scan.TwoDigits(1, 12);
                    break;
                case PartialDateForm.Month:
                    Dashes(scan, 2);
                    scan.TwoDigits(1, 12);
                    break;
                case PartialDateForm.MonthDay:
                    Dashes(scan, 2);
                    scan.MonthAndDay(null);
                    break;
                default:
                    Dashes(scan, 3);
                    scan.TwoDigits(1, 31);
                    break;
            }
            scan.ZoneAtEnd();
            return new XmlPartialDate(value);
        }

        private static void Dashes(CalendarText scan, int count)
        {
            for (int i = 0; i < count; i++)
            {
                scan.Expect('-');
            }
        }

        /// <summary>Which parts are there.</summary>
        public PartialDateForm Form
        {
            get { return FormOf(this.Text); }
        }

        private static PartialDateForm FormOf(string value)
        {
            string local = value.Substring(0, CalendarText.ZoneStart(value));
            if (local.StartsWith("---", StringComparison.Ordinal))
            {
                return PartialDateForm.Day;
            }
            if (local.StartsWith("--", StringComparison.Ordinal))
            {
                return local.Length > "--05".Length ? PartialDateForm.MonthDay : PartialDateForm.Month;
            }
            return local.Length > 1 && local.IndexOf('-', 1) > 0 ? PartialDateForm.YearMonth : PartialDateForm.Year;
        }

        /// <summary>Whether a time zone is given.</summary>
        public bool HasZone
        {
            get { return this.Zone.Length > 0; }
        }

        /// <inheritdoc/>
        public bool Equals(XmlPartialDate other)
        {
            return this.Equals((object)other);
        }

        /// <summary>Whether two values are written the same.</summary>
        public static bool operator ==(XmlPartialDate a, XmlPartialDate b)
        {
            return AreEqual(a, b);
        }

        /// <summary>Whether two values are written differently.</summary>
        public static bool operator !=(XmlPartialDate a, XmlPartialDate b)
        {
            return !AreEqual(a, b);
        }
    }
}
