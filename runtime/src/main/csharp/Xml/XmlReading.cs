namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.IO;
    using System.Linq;

    /// <summary>
    /// How messages are read: within which bounds, and what becomes of deviations from the contract. A strict reading ends at the
    /// first; a lenient one passes over deviations and tells them, in the order of the message.
    /// </summary>
    internal sealed class XmlReading
    {
        private readonly Action<XmlFormatException> passedOver;

        internal XmlReading(XmlLimits limits, Action<XmlFormatException> passedOver)
        {
            this.Limits = limits;
            this.passedOver = passedOver;
        }

        internal XmlLimits Limits { get; private set; }

        /// <summary>Whether a deviation is passed over, as a lenient reading does; it is told then.</summary>
        internal bool PassesOver(XmlFormatException deviation)
        {
            if (this.passedOver != null)
            {
                this.passedOver(deviation);
            }
            return this.passedOver != null;
        }

        /// <summary>
        /// Reads a message. A lenient reading may read it several times, so <paramref name="reader"/> must start from nothing each
        /// time. It takes unknown elements and attributes, values that are none, another order and other namespaces than the
        /// contract's, and leaves empty what does not come; what is not well-formed or passes a bound it refuses like a strict one.
        /// </summary>
        internal T Read<T>(byte[] message, string encoding, XmlTypes types, MessageParts parts, Func<XmlInput, T> reader)
        {
            try
            {
                XmlInput input = XmlInput.Open(new MemoryStream(message, false), encoding, types, this.Limits);
                input.SetParts(parts);
                return reader(input);
            }
            catch (XmlFormatException)
            {
                if (this.passedOver == null)
                {
                    throw;
                }
            }
            Lenience lenience = new Lenience();
            MessageReplay.Message kept = MessageReplay.Keep(
                ParserReader.Of(new MemoryStream(message, false), encoding, this.Limits), this.Limits);
            T value = lenience.Read(kept, this.Limits, types, parts, reader);
            // What is looked at twice may have been told twice.
            foreach (XmlFormatException deviation in lenience.PassedOver
                .GroupBy(one => one.Message)
                .Select(same => same.First())
                .OrderBy(one => one.Line)
                .ThenBy(one => one.Column))
            {
                this.passedOver(deviation);
            }
            return value;
        }
    }

    /// <summary>
    /// Reads a message that breaks its contract: again and again from the start, each time with one more kind of element put off
    /// that stood in the way, until what can be understood is. What deviates is kept for a report.
    /// </summary>
    internal sealed class Lenience
    {
        /// <summary>So many kinds of elements may stand in the way; whatever else does is passed over for good.</summary>
        private const int MostRounds = 100;

        private readonly HashSet<string> putOff = new HashSet<string>();
        private MessageReplay replay;

        internal Lenience()
        {
            this.PassedOver = new List<XmlFormatException>();
        }

        internal List<XmlFormatException> PassedOver { get; private set; }

        /// <summary>An element stands in the way: the reading starts anew.</summary>
        private sealed class AgainException : Exception
        {
        }

        internal T Read<T>(
            MessageReplay.Message message, XmlLimits limits, XmlTypes types, MessageParts parts, Func<XmlInput, T> reader)
        {
            while (true)
            {
                try
                {
                    this.PassedOver = new List<XmlFormatException>();
                    this.replay = new MessageReplay(message, this.putOff);
                    XmlInput input = new XmlInput(new XmlCursor(this.replay, limits, this), types);
                    input.SetParts(parts);
                    return reader(input);
                }
                catch (AgainException)
                {
                    // One more element is known to be put off now.
                }
            }
        }

        internal void PassOver(XmlFormatException deviation)
        {
            this.PassedOver.Add(deviation);
        }

        /// <summary>Puts the element that comes next off. When too many have been, nothing happens.</summary>
        internal void PutOff()
        {
            if (this.putOff.Count < MostRounds && this.putOff.Add(this.replay.Key))
            {
                throw new AgainException();
            }
        }

        /// <summary>Puts the element that comes next off if one of this local name is to come after it, or is it but for its namespace.</summary>
        internal void PutOffBefore(string name)
        {
            if (this.replay.IsToCome(name))
            {
                this.PutOff();
            }
        }

        /// <summary>Brings an element that was put off; gives its namespace, or null when none of this local name was put off here.</summary>
        internal string Bring(string space, string name)
        {
            return this.replay.Bring(space, name);
        }

        /// <summary>Reports what was put off in the element that ends here and never asked for.</summary>
        internal void PassOverRest(string path)
        {
            this.PassedOver.AddRange(this.replay.LeftOver(path));
        }
    }
}
