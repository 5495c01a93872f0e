namespace Protypos.Runtime
{
    using System;
    using System.Globalization;
    using System.Numerics;

    /// <summary>
    /// A value of <c>xs:decimal</c> with any number of digits (XML Schema Part 2, section 3.2.3). It is made of a
    /// <see cref="decimal"/> without more ado, and becomes one where that holds all its digits. Equal numbers are equal,
    /// however many zeros they end with.
    /// </summary>
    public struct XmlDecimal : IEquatable<XmlDecimal>, IComparable<XmlDecimal>
    {
        private const int MostPlaces = 28;

        private readonly BigInteger digits;
        private readonly int scale;

        /// <summary>The number <paramref name="digits"/> with the point moved to the left by <paramref name="scale"/> places.</summary>
        public XmlDecimal(BigInteger digits, int scale)
        {
            if (scale < 0)
            {
                throw new ArgumentOutOfRangeException("scale");
            }
            this.digits = digits;
            this.scale = scale;
        }

        /// <summary>All digits of the number, without the point.</summary>
        public BigInteger Digits
        {
            get { return this.digits; }
        }

        private bool IsLong
        {
            get { return this.digits <= long.MaxValue && this.digits > long.MinValue; }
        }

        /// <summary>How many of the digits stand behind the point.</summary>
        public int Scale
        {
            get { return this.scale; }
        }

        /// <summary>Reads a number.</summary>
        /// <exception cref="FormatException">The text is no <c>xs:decimal</c>.</exception>
        public static XmlDecimal Parse(string text)
        {
            long few;
            int places;
            if (Lexical.IsSmall(text, out few, out places))
            {
                return new XmlDecimal(few, Math.Max(0, places));
            }
            string value = Lexical.Bounded(Lexical.Collapse(text));
            int start = value.Length > 0 && (value[0] == '-' || value[0] == '+') ? 1 : 0;
            int point = value.IndexOf('.', start);
            int end = point < 0 ? value.Length : point;
            bool good = Lexical.AreDigits(value, start, end)
                && (point < 0 || Lexical.AreDigits(value, point + 1, value.Length))
                && value.Length - start > (point < 0 ? 0 : 1);
            if (!good)
            {
                throw new FormatException(text);
            }
            string all = value.Substring(start, end - start) + (point < 0 ? "" : value.Substring(point + 1));
            BigInteger number = BigInteger.Parse(all, NumberStyles.None, CultureInfo.InvariantCulture);
            return new XmlDecimal(value[0] == '-' ? -number : number, point < 0 ? 0 : value.Length - point - 1);
        }

        /// <summary>The same number.</summary>
        public static implicit operator XmlDecimal(decimal value)
        {
            int[] bits = decimal.GetBits(value);
            BigInteger number = (((BigInteger)(uint)bits[2] << 32) + (uint)bits[1] << 32) + (uint)bits[0];
            return new XmlDecimal(bits[3] < 0 ? -number : number, bits[3] >> 16 & 0xff);
        }

        /// <summary>The same number.</summary>
        public static implicit operator XmlDecimal(long value)
        {
            return new XmlDecimal(value, 0);
        }

        /// <summary>The same number.</summary>
        public static implicit operator XmlDecimal(int value)
        {
            return new XmlDecimal(value, 0);
        }

        /// <summary>The same number, if a <see cref="decimal"/> holds it: 28 digits and more do not always fit.</summary>
        /// <exception cref="OverflowException">It has more digits than that.</exception>
        public static explicit operator decimal(XmlDecimal value)
        {
            if (value.IsLong && value.scale <= MostPlaces)
            {
                ulong number = (ulong)Math.Abs((long)value.digits);
                return new decimal((int)number, (int)(number >> 32), 0, value.digits.Sign < 0, (byte)value.scale);
            }
            decimal result;
            if (!decimal.TryParse(value.ToString(), NumberStyles.Number, CultureInfo.InvariantCulture, out result)
                || (XmlDecimal)result != value)
            {
                throw new OverflowException("a decimal does not hold " + value);
            }
            return result;
        }

        /// <summary>Whether two numbers are equal.</summary>
        public static bool operator ==(XmlDecimal a, XmlDecimal b)
        {
            return a.Equals(b);
        }

        /// <summary>Whether two numbers differ.</summary>
        public static bool operator !=(XmlDecimal a, XmlDecimal b)
        {
            return !a.Equals(b);
        }

        internal XmlDecimal Shortened()
        {
            BigInteger number = this.digits;
            int places = this.scale;
            while (places > 0)
            {
                BigInteger rest;
                BigInteger shorter = BigInteger.DivRem(number, 10, out rest);
                if (!rest.IsZero)
                {
                    break;
                }
                number = shorter;
                places--;
            }
            return new XmlDecimal(number, places);
        }

        /// <inheritdoc/>
        public int CompareTo(XmlDecimal other)
        {
            int most = Math.Max(this.scale, other.scale);
            return (this.digits * BigInteger.Pow(10, most - this.scale)).CompareTo(other.digits * BigInteger.Pow(10, most - other.scale));
        }

        /// <inheritdoc/>
        public bool Equals(XmlDecimal other)
        {
            return this.scale == other.scale ? this.digits == other.digits : this.CompareTo(other) == 0;
        }

        /// <inheritdoc/>
        public override bool Equals(object other)
        {
            return other is XmlDecimal && this.Equals((XmlDecimal)other);
        }

        /// <inheritdoc/>
        public override int GetHashCode()
        {
            XmlDecimal shortened = this.Shortened();
            return shortened.digits.GetHashCode() * 31 + shortened.scale;
        }

        /// <summary>The number as it is written in XML, with all its zeros.</summary>
        public override string ToString()
        {
            if (this.IsLong && this.scale <= MostPlaces)
            {
                return Print((long)this.digits, this.scale);
            }
            string text = BigInteger.Abs(this.digits).ToString(CultureInfo.InvariantCulture);
            if (this.scale > 0)
            {
                text = text.PadLeft(this.scale + 1, '0');
                text = text.Substring(0, text.Length - this.scale) + "." + text.Substring(text.Length - this.scale);
            }
            return this.digits.Sign < 0 ? "-" + text : text;
        }

        private static string Print(long digits, int scale)
        {
            // The sign, the point, and nineteen digits or a zero and the places.
            char[] text = new char[MostPlaces + 3];
            int at = text.Length;
            long rest = Math.Abs(digits);
            for (int place = 0; rest > 0 || place <= scale; place++)
            {
                if (place == scale && place > 0)
                {
                    text[--at] = '.';
                }
                text[--at] = (char)('0' + rest % 10);
                rest /= 10;
            }
            if (digits < 0)
            {
                text[--at] = '-';
            }
            return new string(text, at, text.Length - at);
        }
    }
}
