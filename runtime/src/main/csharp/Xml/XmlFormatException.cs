namespace Protypos.Runtime
{
    using System;

    /// <summary>A message is not well-formed, breaks the contract or passes a limit; says where in the message.</summary>
    public sealed class XmlFormatException : Exception
    {
        private const int Most = 1000;

        internal XmlFormatException(string reason, int line, int column, string path, Exception cause)
            : base(
                Shorten(reason) + " (line " + line + ", column " + column + (path.Length == 0 ? "" : ", at " + Shorten(path)) + ")", cause)
        {
            this.Reason = Shorten(reason);
            this.Line = line;
            this.Column = column;
            this.Path = Shorten(path);
        }

        internal XmlFormatException(string reason)
            : base(Shorten(reason))
        {
            this.Reason = Shorten(reason);
            this.Line = 1;
            this.Column = 1;
            this.Path = "";
        }

        /// <summary>What is wrong may quote a message, and who sends one of a few megabytes is not answered with all of them.</summary>
        private static string Shorten(string text)
        {
            return Lexical.Shortened(text, Most);
        }

        /// <summary>What is wrong, without the place.</summary>
        public string Reason { get; private set; }

        /// <summary>The line in the message, from 1.</summary>
        public int Line { get; private set; }

        /// <summary>The column in the message, from 1.</summary>
        public int Column { get; private set; }

        /// <summary>The elements from the root to the place, such as <c>/Envelope/Body/requestBerth</c>.</summary>
        public string Path { get; private set; }
    }
}
