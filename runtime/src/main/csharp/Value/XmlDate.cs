namespace Protypos.Runtime
{
    using System;
    using System.Globalization;

#pragma warning disable 660, 661 // Equals and GetHashCode are those of the base
    /// <summary>A value of <c>xs:date</c> (XML Schema Part 2, section 3.2.9): a day, with or without a time zone.</summary>
    public sealed class XmlDate : WrittenValue, IEquatable<XmlDate>
    {
        private XmlDate(string text)
            : base(text)
        {
        }

        /// <summary>Reads a date.</summary>
        /// <exception cref="FormatException">The text is no <c>xs:date</c>.</exception>
        public static XmlDate Parse(string text)
        {
            string value = Lexical.Collapse(text);
            CalendarText scan = new CalendarText(value);
            string year = scan.Year();
            scan.Expect('-');
            scan.MonthAndDay(year);
            scan.ZoneAtEnd();
            return new XmlDate(value);
        }

        /// <summary>The day of a date and time, with no time zone.</summary>
        public static implicit operator XmlDate(DateTime value)
        {
            return new XmlDate(value.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
        }

        /// <summary>Whether a time zone is given.</summary>
        public bool HasZone
        {
            get { return this.Zone.Length > 0; }
        }

        /// <summary>Midnight of the day, without the time zone.</summary>
        /// <exception cref="FormatException">The platform has no such year.</exception>
        public DateTime ToDateTime()
        {
            return DateTime.ParseExact(this.Local, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None);
        }

        /// <inheritdoc/>
        public bool Equals(XmlDate other)
        {
            return this.Equals((object)other);
        }

        /// <summary>Whether two values are written the same.</summary>
        public static bool operator ==(XmlDate a, XmlDate b)
        {
            return AreEqual(a, b);
        }

        /// <summary>Whether two values are written differently.</summary>
        public static bool operator !=(XmlDate a, XmlDate b)
        {
            return !AreEqual(a, b);
        }
    }
}
