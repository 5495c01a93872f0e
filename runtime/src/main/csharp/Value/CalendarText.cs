namespace Protypos.Runtime
{
    using System;
    using System.Globalization;

    /// <summary>
    /// Scans the parts that dates and times are written with (XML Schema Part 2, section 3.2.7.1 and appendix D). Each
    /// method takes one part and moves behind it.
    /// </summary>
    internal sealed class CalendarText
    {
        private const int WidestZone = 14 * 60;

        private readonly string text;
        private int at;

        internal CalendarText(string text)
        {
            this.text = text;
        }

        internal FormatException Wrong()
        {
            return new FormatException(this.text);
        }

        internal bool AtEnd
        {
            get { return this.at == this.text.Length; }
        }

        internal bool Comes(char c)
        {
            return this.at < this.text.Length && this.text[this.at] == c;
        }

        internal bool Skip(char c)
        {
            bool there = this.Comes(c);
            this.at += there ? 1 : 0;
            return there;
        }

        internal void Expect(char c)
        {
            if (!this.Skip(c))
            {
                throw this.Wrong();
            }
        }

        /// <summary>Takes digits and gives them as text.</summary>
        internal string Digits(int atLeast)
        {
            int start = this.at;
            while (this.at < this.text.Length && this.text[this.at] >= '0' && this.text[this.at] <= '9')
            {
                this.at++;
            }
            if (this.at - start < atLeast)
            {
                throw this.Wrong();
            }
            return this.text.Substring(start, this.at - start);
        }

        internal int TwoDigits(int least, int most)
        {
            string digits = this.Digits(2);
            int value = digits.Length == 2 ? int.Parse(digits, CultureInfo.InvariantCulture) : -1;
            if (value < least || value > most)
            {
                throw this.Wrong();
            }
            return value;
        }

        /// <summary>Takes a year of four digits or more, with its sign.</summary>
        internal string Year()
        {
            string sign = this.Skip('-') ? "-" : "";
            string digits = this.Digits(4);
            if (digits.Length > 4 && digits[0] == '0')
            {
                throw this.Wrong();
            }
            return sign + digits;
        }

        internal void MonthAndDay(string year)
        {
            int month = this.TwoDigits(1, 12);
            this.Expect('-');
            this.TwoDigits(1, DaysIn(month, year));
        }

        private static int DaysIn(int month, string year)
        {
            switch (month)
            {
                case 4:
                case 6:
                case 9:
                case 11:
                    return 30;
                case 2:
                    return IsLeap(year) ? 29 : 28;
                default:
                    return 31;
            }
        }

        /// <summary>Only the last four digits matter: the calendar repeats every 400 years. A year before 1 counts from 1 BCE.</summary>
        private static bool IsLeap(string year)
        {
            if (year == null)
            {
                return true;
            }
            int digits = int.Parse(year.Substring(year.Length - 4), CultureInfo.InvariantCulture);
            int count = year[0] == '-' && digits > 0 ? digits - 1 : digits;
            return count % 4 == 0 && (count % 100 != 0 || count % 400 == 0);
        }

        internal void Time()
        {
            int hour = this.TwoDigits(0, 24);
            this.Expect(':');
            int minute = this.TwoDigits(0, 59);
            this.Expect(':');
            int second = this.TwoDigits(0, 59);
            bool fraction = false;
            if (this.Skip('.'))
            {
                fraction = this.Digits(1).Trim('0').Length > 0;
            }
            if (hour == 24 && (minute != 0 || second != 0 || fraction))
            {
                throw this.Wrong();
            }
        }

        /// <summary>Takes a time zone if there is one; then nothing may be left.</summary>
        internal void ZoneAtEnd()
        {
            if (!this.Skip('Z') && (this.Comes('+') || this.Comes('-')))
            {
                this.at++;
                int hours = this.TwoDigits(0, 14);
                this.Expect(':');
                if (hours * 60 + this.TwoDigits(0, 59) > WidestZone)
                {
                    throw this.Wrong();
                }
            }
            if (!this.AtEnd)
            {
                throw this.Wrong();
            }
        }

        /// <summary>Where the time zone starts in a text known to be good, or its length when there is none.</summary>
        internal static int ZoneStart(string text)
        {
            int length = text.Length;
            if (length > 0 && text[length - 1] == 'Z')
            {
                return length - 1;
            }
            int sign = length - "+00:00".Length;
            bool zoned = sign > 0 && text[length - 3] == ':' && "+-".IndexOf(text[sign]) >= 0;
            return zoned ? sign : length;
        }

        /// <summary>The offset that a zone as it is written stands for.</summary>
        internal static TimeSpan Offset(string zone)
        {
            if (zone.Length < "+00:00".Length)
            {
                return TimeSpan.Zero;
            }
            int hours = int.Parse(zone.Substring(1, 2), CultureInfo.InvariantCulture);
            TimeSpan offset = new TimeSpan(hours, int.Parse(zone.Substring(4, 2), CultureInfo.InvariantCulture), 0);
            return zone[0] == '-' ? offset.Negate() : offset;
        }
    }
}
