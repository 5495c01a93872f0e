namespace Protypos.Runtime
{
    using System;

    /// <summary>
    /// A value that is kept as it is written, because no type of the platform holds all that XML Schema lets one write. Two
    /// values are equal when they are of one type and written the same.
    /// </summary>
    public abstract class WrittenValue
    {
        internal WrittenValue(string text)
        {
            this.Text = text;
        }

        /// <summary>The value as it is written in XML.</summary>
        public string Text { get; private set; }

        /// <summary>What is written before the time zone.</summary>
        internal string Local
        {
            get { return this.Text.Substring(0, CalendarText.ZoneStart(this.Text)); }
        }

        /// <summary>The time zone as it is written, empty for none.</summary>
        internal string Zone
        {
            get { return this.Text.Substring(CalendarText.ZoneStart(this.Text)); }
        }

        internal static bool AreEqual(WrittenValue a, WrittenValue b)
        {
            return ReferenceEquals(a, null) ? ReferenceEquals(b, null) : a.Equals(b);
        }

        /// <inheritdoc/>
        public sealed override bool Equals(object other)
        {
            return other != null && other.GetType() == this.GetType() && ((WrittenValue)other).Text == this.Text;
        }

        /// <inheritdoc/>
        public sealed override int GetHashCode()
        {
            return this.Text.GetHashCode();
        }

        /// <inheritdoc/>
        public sealed override string ToString()
        {
            return this.Text;
        }
    }
}
