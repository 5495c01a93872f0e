namespace Protypos.Runtime
{
    using System;
    using System.IO;
    using System.Text;
    using System.Threading.Tasks;

    /// <summary>A connection that speaks HTTP without SOAP (WSDL 1.1, sections 4 and 5).</summary>
    public sealed class HttpConnection : Connection
    {
        private readonly HttpPort port;

        /// <summary>A connection. Nothing is sent before the first call.</summary>
        /// <param name="port">the port of the contract</param>
        /// <param name="settings">what differs from the contract and the defaults; null for nothing</param>
        /// <param name="types">what the contract declares by name</param>
        public HttpConnection(HttpPort port, SoapSettings settings, XmlTypes types)
            : base(port, settings, types)
        {
            this.port = port;
        }

        internal override Outgoing Request(SoapCall call, string location, SoapMessage message)
        {
            Outgoing sent = new Outgoing { Target = Beneath(this.Address ?? "", location), Method = this.port.Verb };
            switch (message.Form)
            {
                case MessageForm.Fields:
                    string fields = Fields.Of(message, this.Types).InForm();
                    if (!Fields.AreInAddress(sent.Method))
                    {
                        sent.Body = Encoding.UTF8.GetBytes(fields);
                        sent.ContentType = "application/x-www-form-urlencoded";
                    }
                    else if (fields.Length > 0)
                    {
                        sent.Target += (sent.Target.IndexOf('?') >= 0 ? "&" : "?") + fields;
                    }
                    break;
                case MessageForm.Replaced:
                    sent.Target = Beneath(this.Address ?? "", Fields.Of(message, this.Types).ReplacedIn(location));
                    break;
                case MessageForm.Bytes:
                    OutgoingPackage parts = new OutgoingPackage(-1);
                    message.WriteAttachments(parts);
                    Attachment content = parts.IsEmpty ? Attachment.Of(new byte[0]) : parts.First;
                    sent.ContentType = OutgoingPackage.OneLine(content.ContentType ?? "application/octet-stream");
                    sent.Write = stream => Copied(content, stream);
                    break;
                case MessageForm.Text:
                    sent.Body = Encoding.UTF8.GetBytes(TextBody.Write(message, this.Types));
                    sent.ContentType = "text/plain; charset=utf-8";
                    break;
                default:
                    XmlOutput output = new XmlOutput(this.Types);
                    message.WriteBody(output);
                    sent.Body = output.Finish();
                    sent.ContentType = "text/xml; charset=utf-8";
                    break;
            }
            call.Address = sent.Target;
            sent.Body = sent.Write != null ? sent.Body : this.Intercepted(call, sent.Body);
            if (sent.ContentType != null)
            {
                call.Headers["Content-Type"] = sent.ContentType;
            }
            if (this.Settings.Compressed)
            {
                call.Headers["Accept-Encoding"] = "gzip";
            }
            return sent;
        }

        private static async Task Copied(Attachment content, Stream to)
        {
            using (Stream from = content.OpenRead())
            {
                await from.CopyToAsync(to).ConfigureAwait(false);
            }
        }

        /// <summary>A location beneath an address, with one slash between them (WSDL 1.1, section 4.4).</summary>
        private static string Beneath(string address, string location)
        {
            return location.Length == 0 || location[0] == '?'
                ? address + location
                : address.TrimEnd('/') + (location[0] == '/' ? "" : "/") + location;
        }

        internal override void Interpret(SoapCall call, Answer came, SoapMessage answer)
        {
            if (came.Status / 100 != 2)
            {
                throw this.Unusable(call.Operation, came, "is a failure", null);
            }
            if (answer == null)
            {
                return;
            }
            try
            {
                came.Message.ReadInto(answer, came.ContentType, this.Types, this.Reading);
            }
            catch (XmlFormatException e)
            {
                if (!came.Message.Type.IsXml)
                {
                    bool page = came.Message.Type.Name == "text/html";
                    throw this.Unusable(call.Operation, came, page ? "is a web page" : "is no XML document", e);
                }
                throw new CallFailedException(
                    "the answer to " + call.Operation + " (HTTP " + came.Status + ", " + came.ContentType + ") cannot be read: "
                    + e.Message,
                    came.Status,
                    e);
            }
        }
    }
}
