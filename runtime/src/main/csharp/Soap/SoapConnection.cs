namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Text;
    using System.Xml.Linq;

    /// <summary>A connection that speaks SOAP over HTTP (SOAP 1.1, section 6; SOAP 1.2 Part 2, section 7).</summary>
    public sealed class SoapConnection : Connection
    {
        private const long Threshold = 1024;

        private readonly SoapPort port;

        /// <summary>A connection. Nothing is sent before the first call.</summary>
        /// <param name="port">the port of the contract</param>
        /// <param name="settings">what differs from the contract and the defaults; null for nothing</param>
        /// <param name="types">what the contract declares by name</param>
        public SoapConnection(SoapPort port, SoapSettings settings, XmlTypes types)
            : base(port, settings, types)
        {
            this.port = port;
        }

        internal override bool IsAddressed
        {
            get { return this.Settings.Addressed ?? (this.port.Features & SoapFeatures.Addressing) != 0; }
        }

        private long OptimizedFrom
        {
            get { return this.Settings.OptimizedFrom ?? ((this.port.Features & SoapFeatures.Mtom) != 0 ? Threshold : -1); }
        }

        internal override Outgoing Request(SoapCall call, string action, SoapMessage message)
        {
            SoapVersion version = this.port.Version;
            string alone = version.ContentType(action);
            call.Headers["Content-Type"] = alone;
            call.Headers["Accept"] = version.MediaType + ", multipart/related"
                + (this.OptimizedFrom < 0 ? "" : ", application/xop+xml") + ", */*;q=0.1";
            if (version == SoapVersion.Soap11)
            {
                call.Headers["SOAPAction"] = "\"" + action + "\"";
            }
            if (this.Settings.Compressed)
            {
                call.Headers["Accept-Encoding"] = "gzip";
            }
            List<Action<XmlOutput>> blocks = new List<Action<XmlOutput>>(this.Settings.HeaderBlocks);
            if (this.Settings.UserNameToken != null)
            {
                blocks.Add(output => this.Settings.UserNameToken.Write(output, version));
            }
            string addressed = message.Action ?? action;
            // An action is an address itself (WS-Addressing 1.0 Core, section 3.1): without one there is nothing to say.
            if (call.MessageId != null && addressed.Length > 0)
            {
                blocks.Add(output =>
                {
                    foreach (XElement block in
                        Addressing.OfRequest(this.Address, addressed, call.MessageId))
                    {
                        output.Element(block);
                    }
                });
            }
            OutgoingPackage parts = new OutgoingPackage(this.OptimizedFrom);
            byte[] envelope = this.Intercepted(call, Envelope.Write(version, message, blocks, parts, this.Types));
            Outgoing sent = new Outgoing { Target = this.Address, Body = envelope, ContentType = alone };
            if (!parts.IsEmpty)
            {
                call.Headers["Content-Type"] = parts.ContentType(alone);
                sent.Write = stream => parts.WriteAsync(envelope, alone, stream);
            }
            else if (this.Settings.Compressed)
            {
                call.Headers["Content-Encoding"] = "gzip";
                sent.Body = Incoming.Packed(envelope);
            }
            return sent;
        }

        private static CallFailedException Refused(string operation, int status, string why)
        {
            return new CallFailedException("the answer to " + operation + " (HTTP " + status + ") " + why, status, null);
        }

        internal override void Interpret(SoapCall call, Answer came, SoapMessage answer)
        {
            string operation = call.Operation;
            Incoming message = came.Message;
            if (answer == null && came.Status / 100 == 2)
            {
                return;
            }
            if (message.Body.Length == 0 || !message.Type.IsXml)
            {
                throw this.Unusable(operation, came, "is no SOAP message", null);
            }
            try
            {
                SoapFault fault = Envelope.Read(
                    message, answer != null && answer.IsEncoded, this.Types, this.Reading, envelope => this.Taken(envelope, call, answer));
                if (fault != null)
                {
                    DeclaredFaultException declared = answer == null ? null : answer.Declared(fault);
                    if (declared != null)
                    {
                        throw declared;
                    }
                    throw new UndeclaredFaultException(operation, fault, came.Status);
                }
                if (answer != null)
                {
                    AttachedParts.Read(message.Parts, answer, this.Reading);
                }
            }
            catch (XmlFormatException e)
            {
                throw new CallFailedException(
                    "the answer to " + operation + " (HTTP " + came.Status + ") cannot be read: " + e.Message, came.Status, e);
            }
            catch (NotAnEnvelopeException e)
            {
                throw this.Unusable(operation, came, "is no SOAP message: " + e.Message, e);
            }
        }

        private SoapFault Taken(Envelope envelope, SoapCall call, SoapMessage answer)
        {
            if (call.MessageId != null && Addressing.IsForAnother(envelope, call.MessageId))
            {
                throw Refused(call.Operation, call.Status, "is the answer to another message than was sent");
            }
            if (envelope.IsFault)
            {
                return SoapFault.Read(envelope.Content, this.Types);
            }
            if (answer != null)
            {
                List<XName> notUnderstood = envelope.ReadInto(answer, true);
                if (notUnderstood.Count > 0)
                {
                    throw Refused(
                        call.Operation,
                        call.Status,
                        "has the header block " + notUnderstood[0] + ", which must be understood and is not");
                }
            }
            return null;
        }
    }
}
