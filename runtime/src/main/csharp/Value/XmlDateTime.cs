namespace Protypos.Runtime
{
    using System;
    using System.Globalization;

#pragma warning disable 660, 661 // Equals and GetHashCode are those of the base
    /// <summary>
    /// A value of <c>xs:dateTime</c> (XML Schema Part 2, section 3.2.7). It keeps what the platform has no place for: an
    /// absent time zone, 24:00:00, years of more than four digits and any number of digits behind the second. It is made of a
    /// <see cref="DateTimeOffset"/> or a <see cref="DateTime"/> without more ado.
    /// </summary>
    public sealed class XmlDateTime : WrittenValue, IEquatable<XmlDateTime>
    {
        private XmlDateTime(string text)
            : base(text)
        {
        }

        /// <summary>Reads a date and time.</summary>
        /// <exception cref="FormatException">The text is no <c>xs:dateTime</c>.</exception>
        public static XmlDateTime Parse(string text)
        {
            string value = Lexical.Collapse(text);
            CalendarText scan = new CalendarText(value);
            string year = scan.Year();
            scan.Expect('-');
            scan.MonthAndDay(year);
            scan.Expect('T');
            scan.Time();
            scan.ZoneAtEnd();
            return new XmlDateTime(value);
        }

        /// <summary>A date and time with its time zone.</summary>
        public static implicit operator XmlDateTime(DateTimeOffset value)
        {
            return new XmlDateTime(Seconds(value.DateTime) + ZoneOf(value.Offset));
        }

        /// <summary>A date and time: in UTC or with the local time zone where its kind says so, with none otherwise.</summary>
        public static implicit operator XmlDateTime(DateTime value)
        {
            if (value.Kind == DateTimeKind.Local)
            {
                return new DateTimeOffset(value);
            }
            return new XmlDateTime(Seconds(value) + (value.Kind == DateTimeKind.Utc ? "Z" : ""));
        }

        private static string Seconds(DateTime value)
        {
            return value.ToString("yyyy-MM-dd'T'HH:mm:ss.FFFFFFF", CultureInfo.InvariantCulture);
        }

        internal static string ZoneOf(TimeSpan offset)
        {
            return offset == TimeSpan.Zero
                ? "Z"
                : (offset < TimeSpan.Zero ? "-" : "+") + offset.ToString("hh':'mm", CultureInfo.InvariantCulture);
        }

        /// <summary>Whether a time zone is given.</summary>
        public bool HasZone
        {
            get { return this.Zone.Length > 0; }
        }

        /// <summary>
        /// The date and time as they are written, without the time zone. 24:00:00 becomes midnight of the next day; digits
        /// beyond the seventh behind the second are cut.
        /// </summary>
        /// <exception cref="FormatException">The platform has no such year.</exception>
        public DateTime ToDateTime()
        {
            return ToDateTime(this.Local);
        }

        internal static DateTime ToDateTime(string written)
        {
            string local = written;
            int time = local.IndexOf('T') + 1;
            bool midnight = string.CompareOrdinal(local, time, "24", 0, 2) == 0;
            if (midnight)
            {
                local = local.Substring(0, time) + "00:00:00";
            }
            int point = local.IndexOf('.');
            if (point >= 0 && local.Length - point - 1 > 7)
            {
                local = local.Substring(0, point + 8);
            }
            DateTime value = DateTime.ParseExact(
                local, "yyyy-MM-dd'T'HH:mm:ss.FFFFFFF", CultureInfo.InvariantCulture, DateTimeStyles.None);
            return midnight ? value.AddDays(1) : value;
        }

        /// <summary>The point in time.</summary>
        /// <param name="otherwise">the offset to take when no time zone is given</param>
        /// <exception cref="FormatException">The platform has no such year.</exception>
        public DateTimeOffset ToDateTimeOffset(TimeSpan otherwise)
        {
            return new DateTimeOffset(this.ToDateTime(), this.HasZone ? CalendarText.Offset(this.Zone) : otherwise);
        }

        /// <summary>The point in time of a value that has a time zone.</summary>
        /// <exception cref="InvalidCastException">No time zone is given: <see cref="ToDateTimeOffset"/> takes one.</exception>
        public static explicit operator DateTimeOffset(XmlDateTime value)
        {
            if (!value.HasZone)
            {
                throw new InvalidCastException("no time zone is given: " + value.Text);
            }
            return value.ToDateTimeOffset(TimeSpan.Zero);
        }

        /// <inheritdoc/>
        public bool Equals(XmlDateTime other)
        {
            return this.Equals((object)other);
        }

        /// <summary>Whether two values are written the same.</summary>
        public static bool operator ==(XmlDateTime a, XmlDateTime b)
        {
            return AreEqual(a, b);
        }

        /// <summary>Whether two values are written differently.</summary>
        public static bool operator !=(XmlDateTime a, XmlDateTime b)
        {
            return !AreEqual(a, b);
        }
    }
}
