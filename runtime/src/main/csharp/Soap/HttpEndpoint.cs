namespace Protypos.Runtime
{
    using System;
    using System.Text;
    using System.Threading;
    using System.Threading.Tasks;

    /// <summary>An endpoint that speaks HTTP without SOAP (WSDL 1.1, sections 4 and 5). A generated class knows the operations.</summary>
    public abstract class HttpEndpoint : ContractEndpoint
    {
        private const string Form = "application/x-www-form-urlencoded";

        /// <summary>The locations of the operations, each beneath the path of the endpoint, in the order of <see cref="Input"/>; one may have several.</summary>
        protected abstract string[] Locations { get; }

        /// <summary>The HTTP methods by which the operations are called.</summary>
        protected abstract string[] Verbs { get; }

        /// <summary>An empty input message for the operation at a location.</summary>
        protected abstract SoapMessage Input(int operation);

        internal override bool IsAt(string path)
        {
            return path.Length == 0 || path[0] == '/';
        }

        internal override async Task<SoapAnswer> OperationAsync(SoapRequest request, CancellationToken cancellationToken)
        {
            int found = -1;
            int most = -1;
            for (int i = 0; i < this.Locations.Length; i++)
            {
                int told = this.Told(request, i);
                if (told > most)
                {
                    found = i;
                    most = told;
                }
            }
            return found < 0
                ? SoapAnswer.Plain(404, "no operation is at " + Printable(request.Path))
                : await this.Called(request, this.Input(found), found, cancellationToken).ConfigureAwait(false);
        }

        /// <summary>How much of a request's address is the location of an operation; negative when the request is for another place.</summary>
        private int Told(SoapRequest request, int number)
        {
            if (this.Input(number).Form == MessageForm.Replaced)
            {
                return this.Taken(request, number) == null ? -1 : 0;
            }
            string location = this.Location(number);
            int query = location.IndexOf('?');
            if (SoapRequest.Normal(query < 0 ? location : location.Substring(0, query)) != request.Path)
            {
                return -1;
            }
            Fields own = Fields.InQuery(location);
            return own.Count == 0 || Fields.Parse(request.Query).Without(own) != null ? 1 + own.Count : -1;
        }

        private string Location(int number)
        {
            string location = this.Locations[number];
            return location.Length == 0 || location[0] == '/' || location[0] == '?' ? location : "/" + location;
        }

        private Fields Taken(SoapRequest request, int number)
        {
            string location = this.Location(number);
            bool query = location.IndexOf('?') >= 0 && request.Query.Length > 0;
            return Fields.Taken(location, query ? request.Path + "?" + SoapRequest.Normal(request.Query) : request.Path);
        }

        private async Task<SoapAnswer> Called(
            SoapRequest request, SoapMessage input, int number, CancellationToken cancellationToken)
        {
            string allowed = string.Join(", ", this.Verbs);
            if (Array.IndexOf(this.Verbs, request.Method) < 0)
            {
                return SoapAnswer.NotAllowed(allowed, "the operation is called by " + allowed);
            }
            Incoming message = await request.MessageAsync(this, cancellationToken).ConfigureAwait(false);
            try
            {
                this.Read(request, message, input, number);
            }
            catch (XmlFormatException e)
            {
                return SoapAnswer.Plain(400, e.Message);
            }
            catch (Exception e) when (!(e is RequestRefusedException))
            {
                return SoapAnswer.Plain(500, this.FailedWith(e));
            }
            try
            {
                return this.Answer(this.Perform(input));
            }
            catch (DeclaredFaultException e)
            {
                return SoapAnswer.Plain(e.IsSenders ? 400 : 500, e.Message);
            }
            catch (CallRefusedException e)
            {
                return SoapAnswer.Plain(400, e.Message);
            }
            catch (NotImplementedException e)
            {
                return SoapAnswer.Plain(501, NotImplemented(e));
            }
            catch (Exception e)
            {
                return SoapAnswer.Plain(500, this.FailedWith(e));
            }
        }

        private void Read(SoapRequest request, Incoming message, SoapMessage input, int number)
        {
            switch (input.Form)
            {
                case MessageForm.Replaced:
                    this.Taken(request, number).ReadInto(input, this.Types, this.Reading);
                    break;
                case MessageForm.Fields:
                    bool inAddress = Fields.AreInAddress(request.Method);
                    Want(request, inAddress || request.Type.Name == Form, "the fields of a form (" + Form + ")");
                    Fields fields = inAddress
                        ? Fields.Parse(request.Query).Without(Fields.InQuery(this.Location(number)))
                        : Fields.Parse(Encoding.UTF8.GetString(message.Body));
                    fields.ReadInto(input, this.Types, this.Reading);
                    break;
                case MessageForm.Bytes:
                    AttachedParts.ReadOnly(Attachment.Of(message.Body, request.Header("Content-Type")), input);
                    break;
                case MessageForm.Text:
                    TextBody.Read(message, input, this.Types, this.Reading);
                    break;
                default:
                    Want(request, message.Body.Length == 0 || message.Type.IsXml, "an XML document (text/xml)");
                    message.ReadDocument(input, this.Types, this.Reading);
                    break;
            }
        }

        /// <summary>Refuses content of another kind; some senders do not say what they send, which is no reason.</summary>
        private static void Want(SoapRequest request, bool fits, string wanted)
        {
            string type = request.Header("Content-Type");
            if (!fits && type.Length > 0)
            {
                throw new RequestRefusedException(415, "the operation takes " + wanted + ", not " + Printable(type));
            }
        }

        private SoapAnswer Answer(SoapMessage output)
        {
            if (output == null)
            {
                return SoapAnswer.Of(202, "text/plain", new byte[0]);
            }
            switch (output.Form)
            {
                case MessageForm.Text:
                    return SoapAnswer.Of(
                        200, "text/plain; charset=utf-8", Encoding.UTF8.GetBytes(TextBody.Write(output, this.Types)));
                case MessageForm.Bytes:
                    OutgoingPackage parts = new OutgoingPackage(-1);
                    output.WriteAttachments(parts);
                    return parts.IsEmpty
                        ? SoapAnswer.Of(200, "application/octet-stream", new byte[0])
                        : SoapAnswer.Of(parts.First);
                default:
                    XmlOutput document = new XmlOutput(this.Types);
                    output.WriteBody(document);
                    return SoapAnswer.Of(200, "text/xml; charset=utf-8", document.Finish());
            }
        }
    }
}
