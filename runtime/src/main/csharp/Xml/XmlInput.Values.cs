namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Numerics;
    using System.Xml.Linq;

    /// <summary>Finds the value of an enumeration by its text; tells whether there is one.</summary>
    public delegate bool XmlValueFinder<T>(string text, out T value);

    /// <content>
    /// Turns the text of a message into values of simple types, and notices when a value is written in another way than we would
    /// write it.
    /// </content>
    public sealed partial class XmlInput
    {
        private const int MostSmallDigits = 28;

        private string odd;
        private string came;
        private bool standardTaken;
        private bool refused;
        private Attachment included;

        /// <summary>Whether the value read last was written in another way than the ordinary one.</summary>
        public bool IsOdd
        {
            get
            {
                this.standardTaken = false;
                return this.odd != null;
            }
        }

        /// <summary>Whether the value read last was written, in whatever way, rather than passed over or beside the message.</summary>
        public bool IsWritten
        {
            get { return this.IsOdd || this.came != null; }
        }

        internal string WrittenText
        {
            get { return this.odd ?? Lexical.Collapse(this.came); }
        }

        /// <summary>Ends the reading because text is not of the type, or passes over it.</summary>
        internal void Refuse(string text, string type)
        {
            this.cursor.Tolerate(this.cursor.Invalid(text, type));
            this.refused = true;
            this.odd = null;
            this.came = null;
        }

        /// <summary>Whether the value read last was passed over; it is not any longer.</summary>
        private bool TakeRefused()
        {
            bool was = this.refused;
            this.refused = false;
            return was;
        }

        /// <summary>Whether there is no text, because a lenient reading has passed over it.</summary>
        private bool IsLacking(string text)
        {
            if (text == null)
            {
                this.refused = true;
                this.odd = null;
                this.came = null;
            }
            return text == null;
        }

        /// <summary>Notes that an empty element stands for a value of its own, or that the element is not empty.</summary>
        private void NoteStandard(bool taken)
        {
            this.standardTaken = taken;
            this.odd = taken ? "" : null;
        }

        private void Note(string text, bool ordinary)
        {
            this.came = text;
            if (this.standardTaken)
            {
                this.standardTaken = false;
            }
            else
            {
                this.odd = ordinary ? null : Lexical.Collapse(text);
            }
        }

        /// <summary>Turns text into a value.</summary>
        /// <param name="text">what was read</param>
        /// <param name="type">the name to show when it is none</param>
        /// <param name="parser">gives the value</param>
        /// <param name="isOrdinary">whether the value is written just like that; null where it is kept as it came</param>
        private T Parse<T>(string text, string type, Func<string, T> parser, Func<string, T, bool> isOrdinary)
        {
            if (this.IsLacking(text))
            {
                return default(T);
            }
            try
            {
                T value = parser(text);
                this.Note(text, isOrdinary == null || isOrdinary(text, value));
                return value;
            }
            catch (FormatException)
            {
                this.Refuse(text, type);
                return default(T);
            }
        }

        private long Integral(string text, long least, long most, string type)
        {
            if (this.IsLacking(text))
            {
                return 0;
            }
            try
            {
                long value = Lexical.ParseLong(text, least, most);
                int start = text[0] == '-' ? 1 : 0;
                this.Note(text, (text[start] >= '1' && text[start] <= '9' && text[text.Length - 1] > ' ') || text == "0");
                return value;
            }
            catch (FormatException)
            {
                this.Refuse(text, type);
                return 0;
            }
        }

        /// <summary>Reads the items of a list type.</summary>
        public List<T> List<T>(string text, Func<string, T> reader)
        {
            List<T> list = new List<T>();
            bool taken = this.standardTaken;
            bool ordinary = true;
            this.standardTaken = false;
            foreach (string item in Lexical.Items(this.IsLacking(text) ? "" : text))
            {
                this.odd = null;
                T value = reader(item);
                if (!this.TakeRefused())
                {
                    list.Add(value);
                }
                ordinary &= this.odd == null;
            }
            this.odd = taken ? "" : ordinary ? null : Lexical.Collapse(text);
            this.came = text;
            return list;
        }

        /// <summary>Finds the value of an enumeration.</summary>
        /// <param name="text">what was read, in the form in which the enumeration has its values</param>
        /// <param name="find">finds the value</param>
        /// <param name="type">the name to show when there is none</param>
        public T Known<T>(string text, XmlValueFinder<T> find, string type)
        {
            T value;
            if (this.IsLacking(text))
            {
                return default(T);
            }
            if (!find(text, out value))
            {
                this.Refuse(text, type);
            }
            return value;
        }

        /// <summary>
        /// Turns text into a value of a type that the contract knows nothing of, and keeps the text where the value alone would be
        /// written otherwise.
        /// </summary>
        /// <param name="text">what was read</param>
        /// <param name="parser">gives the value; null and exceptions say that there is none</param>
        /// <param name="printer">gives the text of a value</param>
        /// <param name="type">what the value should have been, for who reads why it is none</param>
        public T Converted<T>(string text, Func<string, T> parser, Func<T, string> printer, string type)
        {
            if (this.IsLacking(text))
            {
                return default(T);
            }
            string wrong = type;
            try
            {
                T value = parser(text);
                if (value != null)
                {
                    bool ordinary = text == printer(value);
                    this.odd = this.standardTaken ? "" : ordinary ? null : text;
                    this.came = text;
                    this.standardTaken = false;
                    return value;
                }
            }
            catch (XmlFormatException e)
            {
                wrong = type + ": " + e.Message;
            }
            catch (Exception)
            {
                // The converter may be anybody's: whatever it throws says that the text is no such value.
            }
            this.Refuse(text, wrong);
            return default(T);
        }

        /// <summary>Collapses white space, as most simple types want it (XML Schema Part 2, section 4.3.6).</summary>
        public string ToToken(string text)
        {
            return this.IsLacking(text) ? null : Lexical.Collapse(text);
        }

        /// <summary>Replaces each white space character by a space (XML Schema Part 2, section 4.3.6).</summary>
        public string ToNormalized(string text)
        {
            return this.IsLacking(text) ? null : Lexical.Replace(text);
        }

        /// <summary>Reads <c>xs:boolean</c>.</summary>
        public bool ToBoolean(string text)
        {
            return this.Parse(text, "boolean", read => Lexical.ParseBoolean(read), (read, value) => read == Lexical.Print(value));
        }

        /// <summary>Reads <c>xs:byte</c>.</summary>
        public sbyte ToByte(string text)
        {
            return (sbyte)this.Integral(text, sbyte.MinValue, sbyte.MaxValue, "byte");
        }

        /// <summary>Reads <c>xs:unsignedByte</c>.</summary>
        public byte ToUnsignedByte(string text)
        {
            return (byte)this.Integral(text, 0, byte.MaxValue, "unsignedByte");
        }

        /// <summary>Reads <c>xs:short</c>.</summary>
        public short ToShort(string text)
        {
            return (short)this.Integral(text, short.MinValue, short.MaxValue, "short");
        }

        /// <summary>Reads <c>xs:unsignedShort</c>.</summary>
        public ushort ToUnsignedShort(string text)
        {
            return (ushort)this.Integral(text, 0, ushort.MaxValue, "unsignedShort");
        }

        /// <summary>Reads <c>xs:int</c>.</summary>
        public int ToInt(string text)
        {
            return (int)this.Integral(text, int.MinValue, int.MaxValue, "int");
        }

        /// <summary>Reads <c>xs:unsignedInt</c>.</summary>
        public uint ToUnsignedInt(string text)
        {
            return (uint)this.Integral(text, 0, uint.MaxValue, "unsignedInt");
        }

        /// <summary>Reads <c>xs:long</c>.</summary>
        public long ToLong(string text)
        {
            return this.Integral(text, long.MinValue, long.MaxValue, "long");
        }

        /// <summary>Reads <c>xs:unsignedLong</c>.</summary>
        public ulong ToUnsignedLong(string text)
        {
            return this.Parse(text, "unsignedLong", read => Lexical.ParseUnsignedLong(read), (read, value) => read == Lexical.Print(value));
        }

        /// <summary>Reads <c>xs:integer</c> and the types derived from it that have no type of the platform.</summary>
        public BigInteger ToInteger(string text)
        {
            return this.Parse(text, "integer", read => Lexical.ParseInteger(read), (read, value) => read == Lexical.Print(value));
        }

        /// <summary>Reads <c>xs:decimal</c>.</summary>
        public XmlDecimal ToDecimal(string text)
        {
            return this.Parse(text, "decimal", read => XmlDecimal.Parse(read), (read, value) => Lexical.IsOrdinaryDecimal(read));
        }

        /// <summary>Reads an <c>xs:decimal</c> of so few digits that a <see cref="decimal"/> holds them.</summary>
        public decimal ToSmallDecimal(string text)
        {
            return this.Parse(
                text,
                "decimal",
                read => SmallDecimal(read),
                (read, value) => read.Length <= MostSmallDigits ? Lexical.IsOrdinaryDecimal(read) : read == Lexical.Print(value));
        }

        private static decimal SmallDecimal(string text)
        {
            try
            {
                return (decimal)XmlDecimal.Parse(text);
            }
            catch (OverflowException)
            {
                throw new FormatException(text);
            }
        }

        /// <summary>Reads <c>xs:float</c>.</summary>
        public float ToFloat(string text)
        {
            return this.Parse(text, "float", read => Lexical.ParseFloat(read), (read, value) => read == Lexical.Print(value));
        }

        /// <summary>Reads <c>xs:double</c>.</summary>
        public double ToDouble(string text)
        {
            return this.Parse(text, "double", read => Lexical.ParseDouble(read), (read, value) => read == Lexical.Print(value));
        }

        /// <summary>Reads <c>xs:hexBinary</c>.</summary>
        public byte[] ToHex(string text)
        {
            return this.Parse(text, "hexBinary", read => Lexical.ParseHex(read), (read, value) => read == Lexical.PrintHex(value));
        }

        /// <summary>Reads <c>xs:base64Binary</c>.</summary>
        public byte[] ToBase64(string text)
        {
            Attachment content = this.TakeContent();
            if (content == null)
            {
                return this.Parse(text, "base64Binary", read => Lexical.ParseBase64(read), (read, value) => read == Lexical.PrintBase64(value));
            }
            if (content.Length > this.cursor.Limits.Bytes)
            {
                this.Refuse("", "binary content of at most " + this.cursor.Limits.Bytes + " bytes");
                return null;
            }
            this.cursor.AffordBinary(content.Length);
            return content.ToArray();
        }

        /// <summary>Reads <c>xs:base64Binary</c> that need not fit into memory.</summary>
        public Attachment ToAttachment(string text)
        {
            Attachment content = this.TakeContent();
            if (content != null)
            {
                return content;
            }
            byte[] value = this.ToBase64(text);
            return value == null ? null : Attachment.Of(value);
        }

        private Attachment TakeContent()
        {
            Attachment content = this.included;
            this.included = null;
            if (content != null)
            {
                this.odd = null;
                this.came = null;
            }
            return content;
        }

        /// <summary>Reads <c>xs:dateTime</c>.</summary>
        public XmlDateTime ToDateTime(string text)
        {
            return this.Parse(text, "dateTime", read => XmlDateTime.Parse(read), null);
        }

        /// <summary>Reads <c>xs:date</c>.</summary>
        public XmlDate ToDate(string text)
        {
            return this.Parse(text, "date", read => XmlDate.Parse(read), null);
        }

        /// <summary>Reads <c>xs:time</c>.</summary>
        public XmlTime ToTime(string text)
        {
            return this.Parse(text, "time", read => XmlTime.Parse(read), null);
        }

        /// <summary>Reads <c>xs:duration</c>.</summary>
        public XmlDuration ToDuration(string text)
        {
            return this.Parse(text, "duration", read => XmlDuration.Parse(read), null);
        }

        /// <summary>Reads <c>xs:gYear</c>, <c>xs:gYearMonth</c>, <c>xs:gMonth</c>, <c>xs:gMonthDay</c> or <c>xs:gDay</c>.</summary>
        public XmlPartialDate ToPartialDate(string text, PartialDateForm form)
        {
            return this.Parse(text, "partial date", value => XmlPartialDate.Parse(value, form), null);
        }

        /// <summary>Reads <c>xs:QName</c> and <c>xs:NOTATION</c>: the prefix is looked up where the value stands.</summary>
        public XName ToName(string text)
        {
            return text == null ? null : this.cursor.Resolve(text);
        }
    }
}
