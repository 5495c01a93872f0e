namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Linq;
    using System.Text;
    using System.Xml;

    /// <summary>What a message refers to for its binary content (XOP 1.0, section 3.2).</summary>
    internal abstract class MessageParts
    {
        /// <summary>The part of a reference, or null.</summary>
        internal abstract Attachment Find(string reference);
    }

    /// <summary>
    /// The parser under <see cref="XmlInput"/>: it steps from tag to tag, holds the message to its limits and knows the place
    /// for every complaint. Taking an element leaves the parser on its end tag; the step to the next tag is made when somebody
    /// asks what comes next. So a complaint about a value still knows where the value stood, and mixed content can be read
    /// between elements.
    /// </summary>
    internal sealed partial class XmlCursor
    {
        private const int ElementSize = 40;
        private const int ObjectSize = 40;
        private const int ReferenceSize = 8;
        private const int TextSize = 48;
        private const int AttributeSize = 128;
        private const int NoteSize = 160;
        private readonly MessageReader reader;
        private readonly XmlLimits limits;
        private readonly Lenience lenience;
        private readonly Dictionary<Type, int> sizes = new Dictionary<Type, int>();
        private Type sizedType;
        private int size;
        private long memory;
        private string space;
        private string local;
        private bool taken;
        private string[] path = new string[32];
        private int[] children = new int[33];
        private int depth;
        private MessageParts parts;
        private Attachment included;

        /// <summary>Reads what a parser gives; without a lenience the first deviation from the contract ends it.</summary>
        internal XmlCursor(MessageReader reader, XmlLimits limits, Lenience lenience)
        {
            this.reader = reader;
            this.limits = limits;
            this.lenience = lenience;
            this.memory = limits.Memory;
            this.Step();
        }

        internal MessageReader Reader
        {
            get { return this.reader; }
        }

        /// <summary>Whether elements may be marked as copies of one that the message refers to: the message is in the SOAP encoding.</summary>
        internal bool Sharing { get; set; }

        internal XmlLimits Limits
        {
            get { return this.limits; }
        }

        internal bool IsLenient
        {
            get { return this.lenience != null; }
        }

        /// <summary>Says what the message refers to for its binary content.</summary>
        internal void SetParts(MessageParts around)
        {
            this.parts = around;
        }

        internal bool At(string wantedSpace, string name)
        {
            this.Settle();
            return (this.local != null && this.local == name && this.space == wantedSpace)
                || (this.lenience != null && this.Bring(wantedSpace, name));
        }

        private bool Bring(string wantedSpace, string name)
        {
            string came = this.lenience.Bring(wantedSpace, name);
            if (came == null)
            {
                return false;
            }
            this.OnStart();
            this.lenience.PassOver(this.Error(came == wantedSpace
                ? "<" + name + "> is out of order"
                : "<" + name + "> is of namespace \"" + came + "\" instead of \"" + wantedSpace + "\""));
            this.space = wantedSpace;
            return true;
        }

        /// <summary>Makes way for an element that must come, if it comes later or in another namespace.</summary>
        internal void MakeWayFor(string name)
        {
            if (this.lenience != null && this.local != null)
            {
                this.lenience.PutOffBefore(name);
            }
        }

        /// <summary>Moves to the end tag of the element around, past what nobody has asked for.</summary>
        internal void PassOverRest(Func<XmlFormatException> unexpected)
        {
            while (this.AtElement)
            {
                this.lenience.PutOff();
                this.lenience.PassOver(unexpected());
                this.Skip();
            }
            this.lenience.PassOverRest(this.Path);
        }

        /// <summary>Ends the reading because of a deviation from the contract, or passes over it.</summary>
        internal void Tolerate(XmlFormatException deviation)
        {
            if (this.lenience == null)
            {
                throw deviation;
            }
            this.lenience.PassOver(deviation);
        }

        internal bool AtElement
        {
            get
            {
                this.Settle();
                return this.local != null;
            }
        }

        internal string Space
        {
            get
            {
                this.Settle();
                return this.space;
            }
        }

        internal string Local
        {
            get
            {
                this.Settle();
                return this.local;
            }
        }

        private void Settle()
        {
            if (this.taken)
            {
                this.taken = false;
                this.Step();
            }
        }

        /// <summary>Moves to the next tag; between them only white space may stand.</summary>
        private void Step()
        {
            while (true)
            {
                switch (this.Next())
                {
                    case MessageEvent.Start:
                        this.OnStart();
                        return;
                    case MessageEvent.Text:
                        if (!Lexical.IsBlank(this.reader.Text))
                        {
                            this.Tolerate(this.Error("text is not expected here: " + Shorten(this.reader.Text)));
                        }
                        break;
                    default:
                        this.local = null;
                        return;
                }
            }
        }

        private void OnStart()
        {
            this.Afford(ElementSize);
            this.children[this.depth]++;
            this.local = this.reader.LocalName;
            this.space = this.reader.NamespaceUri;
        }

        /// <summary>Takes memory; ends the reading when the message asks for too much.</summary>
        private void Afford(long bytes)
        {
            this.memory -= bytes;
            if (this.memory < 0)
            {
                throw this.Error("the values of the message take more than " + (this.limits.Memory >> 10) + " KiB of memory");
            }
        }

        /// <summary>Takes the memory that an object of the message needs.</summary>
        internal void Afford(XmlObject value)
        {
            // Values of one type follow each other as a rule.
            Type type = value.GetType();
            if (type != this.sizedType && !this.sizes.TryGetValue(type, out this.size))
            {
                XmlDescription members = new XmlDescription("");
                value.DoDescribeXml(members);
                this.size = ObjectSize + ReferenceSize * members.Count;
                this.sizes[type] = this.size;
            }
            this.sizedType = type;
            this.Afford(this.size);
        }

        /// <summary>Takes the memory that attributes need which are kept by their names.</summary>
        internal void AffordAttributes(int count)
        {
            this.Afford((long)AttributeSize * count);
        }

        /// <summary>Takes the memory that so many things need which are kept beside the values of an object.</summary>
        internal void AffordNotes(XmlObject of, int count, long length)
        {
            // The first brings what all of them are in.
            this.Afford((long)NoteSize * (of.NotesIfAny == null ? count + 1 : count) + 2 * length);
        }

        /// <summary>Takes the memory that binary content needs as bytes of its own: a message may refer to one part many times.</summary>
        internal void AffordBinary(long length)
        {
            this.Afford(TextSize + length);
        }

        private string Affordable(string text)
        {
            this.Afford(text.Length == 0 ? 0 : TextSize + text.Length);
            return text;
        }

        internal MessageEvent Next()
        {
            try
            {
                return this.reader.Next();
            }
            catch (XmlException e)
            {
                throw new XmlFormatException(
                    e.Message, Math.Max(1, e.LineNumber), Math.Max(1, e.LinePosition), this.Path, e);
            }
            catch (ArgumentException e)
            {
                // Some parsers tell so of characters that a name cannot have.
                throw new XmlFormatException(e.Message, this.reader.Line, this.reader.Column, this.Path, e);
            }
        }

        internal void Enter()
        {
            this.Push();
            this.Step();
        }

        private void Push()
        {
            if (this.depth >= this.limits.Depth)
            {
                throw this.TooDeep();
            }
            if (this.depth + 1 == this.path.Length)
            {
                Array.Resize(ref this.path, this.depth * 2 + 2);
                Array.Resize(ref this.children, this.depth * 2 + 3);
            }
            this.path[this.depth++] = this.local;
            this.children[this.depth] = 0;
            this.local = null;
        }

        private XmlFormatException TooDeep()
        {
            return this.Error("elements are nested deeper than " + this.limits.Depth + " levels");
        }

        internal void Leave()
        {
            this.depth--;
            this.taken = true;
            this.local = null;
        }

        internal void Skip()
        {
            int open = 1;
            while (open > 0)
            {
                MessageEvent next = this.Next();
                open += next == MessageEvent.Start ? 1 : next == MessageEvent.End ? -1 : 0;
                if (open + this.depth > this.limits.Depth)
                {
                    throw this.TooDeep();
                }
            }
            this.taken = true;
        }

        internal void Finish()
        {
            this.Settle();
            while (this.reader.Event != MessageEvent.EndOfDocument)
            {
                this.Step();
            }
        }

        /// <summary>The text of an element; binary content that the message only refers to is put into it (XOP 1.0, section 3.2).</summary>
        internal string Text()
        {
            string text = this.BinaryText();
            return this.included == null ? text : this.Base64(this.TakeIncluded());
        }

        /// <summary>The text of an element, or what it refers to: that is taken by <see cref="TakeIncluded"/> then.</summary>
        internal string BinaryText()
        {
            this.included = null;
            this.Push();
            string first = "";
            StringBuilder more = null;
            while (true)
            {
                switch (this.Next())
                {
                    case MessageEvent.Text:
                        if (more != null)
                        {
                            more.Append(this.reader.Text);
                        }
                        else if (first.Length == 0)
                        {
                            first = this.reader.Text;
                        }
                        else
                        {
                            more = new StringBuilder(first).Append(this.reader.Text);
                        }
                        break;
                    case MessageEvent.Start:
                        if (this.included == null && this.AtInclusion())
                        {
                            this.included = this.Inclusion();
                        }
                        else
                        {
                            this.Tolerate(this.Error("<" + this.reader.LocalName + "> is not expected here: the element holds text only"));
                            this.Skip();
                            this.taken = false;
                        }
                        break;
                    default:
                        this.Leave();
                        string text = more == null ? first : more.ToString();
                        if (this.included != null && !Lexical.IsBlank(text))
                        {
                            throw this.Error("text and a reference to binary content stand side by side");
                        }
                        return this.Affordable(text);
                }
            }
        }

        /// <summary>What the element read last referred to, or null.</summary>
        internal Attachment TakeIncluded()
        {
            Attachment content = this.included;
            this.included = null;
            return content;
        }

        private bool AtInclusion()
        {
            return this.parts != null && this.reader.LocalName == "Include" && this.reader.NamespaceUri == XmlNames.Xop;
        }

        /// <summary>Reads a reference to binary content, to its end tag.</summary>
        private Attachment Inclusion()
        {
            string reference = this.reader.Attribute("href");
            Attachment content = reference == null ? null : this.parts.Find(reference.Trim());
            if (content == null)
            {
                throw this.Error("no part of the message is called " + Shorten(reference ?? ""));
            }
            MessageEvent next;
            while ((next = this.Next()) != MessageEvent.End)
            {
                if (next == MessageEvent.Start)
                {
                    throw this.Error("a reference to binary content must be empty");
                }
            }
            return content;
        }

        private string Base64(Attachment content)
        {
            if (content.Length > this.limits.Bytes)
            {
                throw this.Error("binary content is longer than " + this.limits.Bytes + " bytes where it is kept as text");
            }
            // The text is longer by a third, has two bytes for each character, and is put together with others.
            this.AffordBinary(4 * content.Length);
            return content.ToBase64();
        }

        internal XmlFormatException TooManyAttributes()
        {
            return this.Error("an element has more than " + this.limits.Attributes + " attributes");
        }

        /// <summary>Which child of the element around it the element is that came last, from 1.</summary>
        internal int Ordinal
        {
            get { return this.children[this.depth]; }
        }

        internal XmlFormatException Invalid(string text, string type)
        {
            int back = this.taken && text.IndexOf('\n') < 0 ? text.Length + 2 : 0;
            return new XmlFormatException(
                "\"" + Shorten(text) + "\" is not a valid " + type,
                this.reader.Line,
                Math.Max(1, this.reader.Column - back),
                this.Path,
                null);
        }

        internal XmlFormatException Error(string message)
        {
            return new XmlFormatException(message, this.reader.Line, this.reader.Column, this.Path, null);
        }

        private string Path
        {
            get
            {
                StringBuilder text = new StringBuilder();
                for (int i = 0; i < (this.taken ? this.depth + 1 : this.depth); i++)
                {
                    text.Append('/').Append(this.path[i]);
                }
                return !this.taken && this.local != null ? text.Append('/').Append(this.local).ToString() : text.ToString();
            }
        }

        internal static string Shorten(string text)
        {
            return Lexical.Shortened(text, 60);
        }
    }
}
