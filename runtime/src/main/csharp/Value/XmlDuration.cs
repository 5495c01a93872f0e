namespace Protypos.Runtime
{
    using System;
    using System.Globalization;
    using System.Xml;

#pragma warning disable 660, 661 // Equals and GetHashCode are those of the base
    /// <summary>
    /// A value of <c>xs:duration</c> (XML Schema Part 2, section 3.2.6): years and months, of which the length differs, as
    /// well as days, hours, minutes and seconds.
    /// </summary>
    public sealed class XmlDuration : WrittenValue, IEquatable<XmlDuration>
    {
        private XmlDuration(string text)
            : base(text)
        {
        }

        /// <summary>Reads a duration such as <c>P2D</c> or <c>-P1Y2M3DT4H5M6.7S</c>.</summary>
        /// <exception cref="FormatException">The text is no <c>xs:duration</c>.</exception>
        public static XmlDuration Parse(string text)
        {
            string value = Lexical.Collapse(text);
            CalendarText scan = new CalendarText(value);
            scan.Skip('-');
            scan.Expect('P');
            bool any = Parts(scan, "YMD", false);
            if (scan.Skip('T'))
            {
                if (!Parts(scan, "HMS", true))
                {
                    throw scan.Wrong();
                }
                any = true;
            }
            if (!any || !scan.AtEnd)
            {
                throw scan.Wrong();
            }
            return new XmlDuration(value);
        }

        private static bool Parts(CalendarText scan, string designators, bool fraction)
        {
            int next = 0;
            while (!scan.AtEnd && !scan.Comes('T'))
            {
                scan.Digits(fraction && scan.Comes('.') ? 0 : 1);
                bool cut = fraction && scan.Skip('.');
                if (cut)
                {
                    scan.Digits(1);
                }
                while (next < designators.Length && !scan.Skip(designators[next]))
                {
                    next++;
                }
                if (next == designators.Length || (cut && designators[next] != 'S'))
                {
                    throw scan.Wrong();
                }
                next++;
            }
            return next > 0;
        }

        /// <summary>A duration in days, hours, minutes and seconds.</summary>
        public static implicit operator XmlDuration(TimeSpan value)
        {
            return new XmlDuration(XmlConvert.ToString(value));
        }

        /// <summary>The length of the duration; a day has 24 hours.</summary>
        /// <exception cref="InvalidCastException">Years or months are given, of which the length differs.</exception>
        /// <exception cref="OverflowException">It is longer than the platform holds.</exception>
        public TimeSpan ToTimeSpan()
        {
            int time = this.Text.IndexOf('T');
            string days = time < 0 ? this.Text : this.Text.Substring(0, time);
            if (days.IndexOf('Y') >= 0 || days.IndexOf('M') >= 0)
            {
                throw new InvalidCastException("years and months differ in length: " + this.Text);
            }
            return XmlConvert.ToTimeSpan(this.Text);
        }

        /// <summary>The length of the duration; a day has 24 hours.</summary>
        public static explicit operator TimeSpan(XmlDuration value)
        {
            return value.ToTimeSpan();
        }

        /// <inheritdoc/>
        public bool Equals(XmlDuration other)
        {
            return this.Equals((object)other);
        }

        /// <summary>Whether two values are written the same.</summary>
        public static bool operator ==(XmlDuration a, XmlDuration b)
        {
            return AreEqual(a, b);
        }

        /// <summary>Whether two values are written differently.</summary>
        public static bool operator !=(XmlDuration a, XmlDuration b)
        {
            return !AreEqual(a, b);
        }
    }
}
