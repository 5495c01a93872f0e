namespace Protypos.Runtime
{
    using System;
    using System.Globalization;

#pragma warning disable 660, 661 // Equals and GetHashCode are those of the base
    /// <summary>A value of <c>xs:time</c> (XML Schema Part 2, section 3.2.8): a time of day, with or without a time zone.</summary>
    public sealed class XmlTime : WrittenValue, IEquatable<XmlTime>
    {
        private XmlTime(string text)
            : base(text)
        {
        }

        /// <summary>Reads a time of day.</summary>
        /// <exception cref="FormatException">The text is no <c>xs:time</c>.</exception>
        public static XmlTime Parse(string text)
        {
            string value = Lexical.Collapse(text);
            CalendarText scan = new CalendarText(value);
            scan.Time();
            scan.ZoneAtEnd();
            return new XmlTime(value);
        }

        /// <summary>A time of day with no time zone.</summary>
        /// <exception cref="ArgumentOutOfRangeException">It is not within one day.</exception>
        public static implicit operator XmlTime(TimeSpan value)
        {
            if (value < TimeSpan.Zero || value >= TimeSpan.FromDays(1))
            {
                throw new ArgumentOutOfRangeException("value", "a time of day lies within one day");
            }
            return new XmlTime(new DateTime(value.Ticks).ToString("HH:mm:ss.FFFFFFF", CultureInfo.InvariantCulture));
        }

        /// <summary>Whether a time zone is given.</summary>
        public bool HasZone
        {
            get { return this.Zone.Length > 0; }
        }

        /// <summary>The time since midnight, without the time zone; 24:00:00 is a whole day.</summary>
        public TimeSpan ToTimeSpan()
        {
            return XmlDateTime.ToDateTime("2000-01-01T" + this.Local) - new DateTime(2000, 1, 1);
        }

        /// <inheritdoc/>
        public bool Equals(XmlTime other)
        {
            return this.Equals((object)other);
        }

        /// <summary>Whether two values are written the same.</summary>
        public static bool operator ==(XmlTime a, XmlTime b)
        {
            return AreEqual(a, b);
        }

        /// <summary>Whether two values are written differently.</summary>
        public static bool operator !=(XmlTime a, XmlTime b)
        {
            return !AreEqual(a, b);
        }
    }
}
