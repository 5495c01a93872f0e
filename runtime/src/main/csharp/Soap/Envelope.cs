namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.IO;
    using System.Linq;
    using System.Xml.Linq;

    /// <summary>
    /// The envelope around a message (SOAP 1.1, section 4; SOAP 1.2 Part 1, section 5). Reading goes in two steps, for only the body
    /// tells which operation is meant and the header comes before it: the first stops at the body's content.
    /// </summary>
    internal sealed class Envelope
    {
        private const string Security =
            "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-secext-1.0.xsd";

        private readonly List<Block> blocks;

        private Envelope(XmlInput input, SoapVersion version, List<Block> blocks)
        {
            this.Content = input;
            this.Version = version;
            this.blocks = blocks;
        }

        /// <summary>A header block with whether the receiver must understand it.</summary>
        private sealed class Block
        {
            internal XmlElement<XmlObject> Element;
            internal bool MustUnderstand;
        }

        internal SoapVersion Version { get; private set; }

        /// <summary>The input, at the content of the body.</summary>
        internal XmlInput Content { get; private set; }

        /// <summary>Reads an envelope.</summary>
        /// <param name="message">what came</param>
        /// <param name="encoded">whether the body is in the SOAP encoding</param>
        /// <param name="types">what the contract declares by name</param>
        /// <param name="reading">how it is read</param>
        /// <param name="reader">goes on from the content of the body; it may be called more than once, each time from nothing</param>
        internal static T Read<T>(
            Incoming message, bool encoded, XmlTypes types, XmlReading reading, Func<Envelope, T> reader)
        {
            string charset = message.Type.Charset;
            byte[] literal = encoded ? EncodedMessage.Literal(message.Body, charset, reading.Limits) : message.Body;
            return reading.Read(literal, encoded ? null : charset, types, message.Parts, input =>
            {
                if (encoded)
                {
                    input.SetShared(new SharedValues());
                }
                return reader(Open(input));
            });
        }

        /// <summary>Reads up to the content of the body.</summary>
        private static Envelope Open(XmlInput input)
        {
            SoapVersion version = input.LocalName == "Envelope" ? SoapVersion.OfNamespace(input.Space) : null;
            if (version == null)
            {
                throw new NotAnEnvelopeException(
                    "the root element is <" + input.LocalName + "> of namespace \"" + input.Space + "\", not a SOAP envelope");
            }
            input.SetAside(version.Namespace);
            input.Enter();
            List<Block> blocks = new List<Block>();
            if (input.At(version.Namespace, "Header"))
            {
                input.Enter();
                while (input.AtElement())
                {
                    bool must = IsTrue(input.AsideAttribute("mustUnderstand")) && IsForUs(input, version);
                    blocks.Add(new Block { Element = input.Block(), MustUnderstand = must });
                }
                input.Leave();
            }
            if (!input.At(version.Namespace, "Body"))
            {
                throw input.Missing("the SOAP body");
            }
            input.Enter();
            return new Envelope(input, version, blocks);
        }

        private static bool IsTrue(string flag)
        {
            return flag == "1" || flag == "true";
        }

        /// <summary>A block may be meant for somebody on the way: SOAP 1.1, section 4.2.2; SOAP 1.2 Part 1, section 2.2.</summary>
        private static bool IsForUs(XmlInput input, SoapVersion version)
        {
            if (version == SoapVersion.Soap11)
            {
                string actor = input.AsideAttribute("actor");
                return string.IsNullOrEmpty(actor) || actor == "http://schemas.xmlsoap.org/soap/actor/next";
            }
            string role = input.AsideAttribute("role");
            return string.IsNullOrEmpty(role)
                || role == version.Namespace + "/role/next"
                || role == version.Namespace + "/role/ultimateReceiver";
        }

        /// <summary>The local names of the elements in the first element of the body.</summary>
        internal HashSet<string> PartNames()
        {
            HashSet<string> names = new HashSet<string>();
            this.Content.Enter();
            while (this.Content.AtElement())
            {
                names.Add(this.Content.LocalName);
                this.Content.Skip();
            }
            return names;
        }

        internal bool IsFault
        {
            get { return this.Content.At(this.Version.Namespace, "Fault"); }
        }

        /// <summary>The header blocks of a name as trees.</summary>
        internal List<XElement> Headers(XName name)
        {
            List<XElement> found = new List<XElement>();
            foreach (Block block in this.blocks.Where(one => one.Element.Name == name))
            {
                using (MemoryStream written = new MemoryStream(NoTypes.Instance.Write(block.Element)))
                {
                    found.Add(XElement.Load(written, LoadOptions.PreserveWhitespace));
                }
            }
            return found;
        }

        /// <summary>
        /// Hands headers and body to the message they are for, and reads to the end; gives the names of the blocks that had to be
        /// understood and were not. When there are any, the body is not read.
        /// </summary>
        /// <param name="message">the message</param>
        /// <param name="guarded">whether somebody has looked at the security header block</param>
        internal List<XName> ReadInto(SoapMessage message, bool guarded)
        {
            List<XName> notUnderstood = new List<XName>();
            foreach (Block block in this.blocks)
            {
                string space = block.Element.Name.NamespaceName;
                bool known = space == Addressing.Namespace || (guarded && space == Security);
                if (!message.TakeHeader(block.Element) && !known && block.MustUnderstand)
                {
                    notUnderstood.Add(block.Element.Name);
                }
            }
            if (notUnderstood.Count > 0)
            {
                return notUnderstood;
            }
            message.ReadBody(this.Content);
            this.Content.Leave();
            while (this.Content.AtElement())
            {
                // SOAP 1.1, section 4.1.1 lets elements follow; SOAP 1.2 Part 1, section 5.1 does not.
                if (this.Version == SoapVersion.Soap12)
                {
                    throw this.Content.Error("<" + this.Content.LocalName + "> stands behind the body, where SOAP 1.2 has nothing");
                }
                this.Content.Skip();
            }
            this.Content.Leave();
            this.Content.Finish();
            return notUnderstood;
        }

        /// <summary>Writes a message.</summary>
        /// <param name="version">the version</param>
        /// <param name="message">the message</param>
        /// <param name="blocks">header blocks beside those of the message</param>
        /// <param name="parts">where binary content and attachments go</param>
        /// <param name="types">what the contract declares by name</param>
        internal static byte[] Write(
            SoapVersion version, SoapMessage message, IList<Action<XmlOutput>> blocks, OutgoingPackage parts, XmlTypes types)
        {
            Action<XmlOutput> headers = null;
            if (message.HasHeaders || blocks.Count > 0)
            {
                headers = output =>
                {
                    message.WriteHeaders(output);
                    foreach (Action<XmlOutput> block in blocks)
                    {
                        block(output);
                    }
                };
            }
            Action<XmlOutput> body = message.IsEncoded ? Encoded(message, types) : message.WriteBody;
            byte[] envelope = Write(version, types, headers, parts, body);
            message.WriteAttachments(parts);
            return envelope;
        }

        /// <summary>Values that stand in several places are written once: they are found out before anything is written.</summary>
        private static Action<XmlOutput> Encoded(SoapMessage message, XmlTypes types)
        {
            SharedValues shared = new SharedValues();
            XmlOutput trial = new XmlOutput(types);
            trial.Encode(shared, true);
            message.WriteBody(trial);
            return output =>
            {
                output.Encode(shared, false);
                message.WriteBody(output);
                output.WriteSharedValues();
            };
        }

        /// <summary>Says in a fault of SOAP 1.2 which header blocks were not understood (SOAP 1.2 Part 1, section 5.4.8).</summary>
        internal static IEnumerable<Action<XmlOutput>> NotUnderstood(IEnumerable<XName> names)
        {
            foreach (XName name in names)
            {
                yield return output =>
                {
                    output.Open(SoapVersion.Soap12.Namespace, "NotUnderstood");
                    output.Attribute("", "qname", output.Name(name));
                    output.Close();
                };
            }
        }

        /// <summary>Writes a fault; <paramref name="detail"/> may be null.</summary>
        internal static byte[] WriteFault(
            SoapVersion version,
            IList<XName> code,
            string reason,
            IList<Action<XmlOutput>> blocks,
            XmlTypes types,
            Action<XmlOutput> detail)
        {
            Action<XmlOutput> headers = null;
            if (blocks.Count > 0)
            {
                headers = output =>
                {
                    foreach (Action<XmlOutput> block in blocks)
                    {
                        block(output);
                    }
                };
            }
            return Write(version, types, headers, null, output => SoapFault.Write(output, version, code, reason, detail));
        }

        private static byte[] Write(
            SoapVersion version, XmlTypes types, Action<XmlOutput> headers, OutgoingPackage parts, Action<XmlOutput> body)
        {
            XmlOutput output = new XmlOutput(types);
            output.SetParts(parts == null ? null : parts.References);
            string space = version.Namespace;
            output.InEnvelope(space);
            output.Open(space, "Envelope");
            if (headers != null)
            {
                output.Open(space, "Header");
                headers(output);
                output.Close();
            }
            output.Open(space, "Body");
            body(output);
            output.Close();
            output.Close();
            return output.Finish();
        }
    }
}
