namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Diagnostics;
    using System.IO;
    using System.Linq;
    using System.Text;
    using System.Text.RegularExpressions;
    using System.Threading;
    using System.Threading.Tasks;
    using System.Xml.Linq;

    /// <summary>
    /// The server's end of an interface: has operations carried out and shows the contract. It knows no server: whatever makes a
    /// <see cref="SoapRequest"/> and sends a <see cref="SoapAnswer"/> can serve it. Safe for use by several threads if the
    /// implementation is.
    /// </summary>
    public abstract class ContractEndpoint
    {
        private const int MostShown = 3000;

        private static readonly Regex Unprintable = new Regex("[^ -~]");

        /// <summary>For generated endpoints.</summary>
        protected ContractEndpoint()
        {
            this.Limits = XmlLimits.Default;
            this.AttachmentLimit = 2L << 30;
        }

        /// <summary>The bounds that messages are held to.</summary>
        public XmlLimits Limits { get; set; }

        /// <summary>Takes messages with attachments of at most so many bytes together.</summary>
        public long AttachmentLimit { get; set; }

        /// <summary>
        /// Reads requests leniently when it is set, rather than answering with a fault: what breaks the contract is told here.
        /// </summary>
        public Action<XmlFormatException> PassedOver { get; set; }

        /// <summary>
        /// Is told of failures that are none of the caller's affair, each with the reference that the caller gets instead.
        /// </summary>
        public Action<string, Exception> Failed { get; set; }

        /// <summary>What the contract declares by name.</summary>
        protected abstract XmlTypes Types { get; }

        /// <summary>The documents of the contract, to be shown on request.</summary>
        protected abstract ContractDocuments Documents { get; }

        /// <summary>The name under which the documents speak of the ports that this endpoint serves.</summary>
        protected abstract string PortType { get; }

        /// <summary>Carries an operation out; gives the message to answer with, or null for a one-way operation.</summary>
        protected abstract SoapMessage Perform(SoapMessage input);

        /// <summary>Whether documents of a contract speak of the ports that are served here by a name.</summary>
        public bool Serves(string name)
        {
            return name == this.PortType;
        }

        internal XmlTypes TypesOfContract
        {
            get { return this.Types; }
        }

        internal XmlReading Reading
        {
            get { return new XmlReading(this.Limits, this.PassedOver); }
        }

        internal SoapMessage DoPerform(SoapMessage input)
        {
            return this.Perform(input);
        }

        /// <summary>Whether there can be anything at a path beneath the endpoint's own.</summary>
        internal abstract bool IsAt(string path);

        internal abstract Task<SoapAnswer> OperationAsync(SoapRequest request, CancellationToken cancellationToken);

        /// <summary>Answers a request, whatever it is. Nothing but a broken connection makes it fail.</summary>
        public async Task<SoapAnswer> HandleAsync(SoapRequest request, CancellationToken cancellationToken)
        {
            try
            {
                if (!this.IsAt(request.Path))
                {
                    return SoapAnswer.Plain(404, "nothing is published here");
                }
                bool asksForContract = (request.Method == "GET" || request.Method == "HEAD") && request.Path.Length == 0;
                return asksForContract
                    ? this.Contract(request)
                    : await this.OperationAsync(request, cancellationToken).ConfigureAwait(false);
            }
            catch (RequestRefusedException e)
            {
                return SoapAnswer.Plain(e.Status, e.Message);
            }
        }

        private SoapAnswer Contract(SoapRequest request)
        {
            string text = this.Documents.Show(request.Query, request.Addresses);
            return text == null
                ? SoapAnswer.Plain(404, "the contract has no such document")
                : SoapAnswer.Of(200, "text/xml; charset=utf-8", Encoding.UTF8.GetBytes(text));
        }

        /// <summary>Tells of a failure that is none of the caller's affair; gives what the caller is told of it.</summary>
        internal string FailedWith(Exception failure)
        {
            string reference = Guid.NewGuid().ToString("N").Substring(0, 8);
            Action<string, Exception> told = this.Failed;
            if (told != null)
            {
                told(reference, failure);
            }
            else
            {
                Trace.TraceError("an operation failed (reference " + reference + "): " + failure);
            }
            return "the service failed (reference " + reference + ")";
        }

        internal static string NotImplemented(NotImplementedException e)
        {
            return string.IsNullOrEmpty(e.Message) ? "the operation is not implemented" : e.Message;
        }

        /// <summary>A text of others for a message: what is not printable in ASCII becomes a question mark, and no text is long.</summary>
        internal static string Printable(string text)
        {
            return Unprintable.Replace(Lexical.Shortened(text, MostShown), "?");
        }
    }

    /// <summary>
    /// An endpoint that speaks SOAP over HTTP (SOAP 1.1, section 6; SOAP 1.2 Part 2, section 7). A generated class knows the
    /// operations.
    /// </summary>
    public abstract class SoapEndpoint : ContractEndpoint
    {
        private const long Threshold = 1024;

        /// <summary>Finds the operation that a message is for; gives an empty input message, or null when no operation fits.</summary>
        /// <param name="space">the namespace of the first element in the body, empty when there is none</param>
        /// <param name="name">its local name, empty when there is none</param>
        /// <param name="action">the SOAP action of the request, empty when there is none</param>
        /// <param name="parts">gives the local names of the elements in the first element of the body</param>
        protected abstract SoapMessage Input(string space, string name, string action, Func<ISet<string>> parts);

        /// <summary>Whether messages come in the SOAP encoding (SOAP 1.1, section 5).</summary>
        protected virtual bool IsEncoded
        {
            get { return false; }
        }

        /// <summary>Whether the contract asks for binary content beside the message (MTOM).</summary>
        protected virtual bool IsOptimized
        {
            get { return false; }
        }

        /// <summary>Whether the contract asks that messages are addressed (WS-Addressing 1.0 Metadata, section 3.1).</summary>
        protected virtual bool IsAddressed
        {
            get { return false; }
        }

        internal override bool IsAt(string path)
        {
            return path.Length == 0;
        }

        internal override async Task<SoapAnswer> OperationAsync(SoapRequest request, CancellationToken cancellationToken)
        {
            if (request.Method != "POST")
            {
                return SoapAnswer.NotAllowed("GET, POST", "POST calls an operation, GET shows the contract");
            }
            MediaType type = request.Type;
            if (!type.IsMultipart && SoapVersion.OfMediaType(type.Name) == null)
            {
                return SoapAnswer.Plain(415, WrongType(request.Header("Content-Type")));
            }
            Incoming message = await request.MessageAsync(this, cancellationToken).ConfigureAwait(false);
            SoapVersion spoken = SoapVersion.OfMediaType(message.Type.Name);
            return spoken == null
                ? SoapAnswer.Plain(415, WrongType(message.Type.Name))
                : new Exchange(this, request, message, spoken).Reply();
        }

        private static string WrongType(string type)
        {
            return "a SOAP message is text/xml or application/soap+xml, not " + Printable(type);
        }

        /// <summary>The action of a request, by the HTTP header or by the content type; empty when neither has one.</summary>
        private static string ActionOf(SoapRequest request, MediaType inner)
        {
            string action = request.Header("SOAPAction");
            foreach (MediaType one in new[] { request.Type, inner })
            {
                action = action.Length == 0 ? one.Parameter("action") ?? "" : action;
            }
            return action.Replace("\"", "").Trim();
        }

        /// <summary>One message on its way to its answer.</summary>
        private sealed class Exchange
        {
            private readonly SoapEndpoint endpoint;
            private readonly SoapRequest request;
            private readonly Incoming message;
            private readonly XmlReading reading;
            private SoapVersion version;
            private RequestAddressing addressing;
            private SoapMessage input;

            internal Exchange(SoapEndpoint endpoint, SoapRequest request, Incoming message, SoapVersion spoken)
            {
                this.endpoint = endpoint;
                this.request = request;
                this.message = message;
                this.version = spoken;
                this.reading = endpoint.Reading;
            }

            internal SoapAnswer Reply()
            {
                try
                {
                    SoapAnswer refused = Envelope.Read(
                        this.message, this.endpoint.IsEncoded, this.endpoint.Types, this.reading, this.Take);
                    if (refused != null)
                    {
                        return refused;
                    }
                    AttachedParts.Read(this.message.Parts, this.input, this.reading);
                }
                catch (XmlFormatException e)
                {
                    return this.SenderFault(e.Message);
                }
                catch (NotAnEnvelopeException e)
                {
                    return this.Fault("VersionMismatch", e.Message, null);
                }
                catch (Exception e) when (!(e is RequestRefusedException))
                {
                    return this.Fault(this.version.ReceiverCode, this.endpoint.FailedWith(e), null);
                }
                return this.Performed();
            }

            /// <summary>What the implementation throws is its own affair: the caller is told of declared faults alone.</summary>
            private SoapAnswer Performed()
            {
                try
                {
                    return this.Answer(this.endpoint.Perform(this.input));
                }
                catch (DeclaredFaultException e)
                {
                    return this.Declared(e);
                }
                catch (CallRefusedException e)
                {
                    return this.SenderFault(e.Message);
                }
                catch (NotImplementedException e)
                {
                    return this.Fault(this.version.ReceiverCode, NotImplemented(e), null);
                }
                catch (Exception e)
                {
                    return this.Fault(this.version.ReceiverCode, this.endpoint.FailedWith(e), null);
                }
            }

            private SoapAnswer Declared(DeclaredFaultException fault)
            {
                try
                {
                    return this.Fault(this.version.ReceiverCode, fault.Message, fault);
                }
                catch (Exception e)
                {
                    return this.Fault(this.version.ReceiverCode, this.endpoint.FailedWith(e), null);
                }
            }

            /// <summary>Finds the operation and reads its input, or gives the answer that says why not.</summary>
            private SoapAnswer Take(Envelope came)
            {
                this.version = came.Version;
                this.addressing = new RequestAddressing(came);
                bool empty = !came.Content.AtElement();
                string space = empty ? "" : came.Content.Space;
                string name = empty ? "" : came.Content.LocalName;
                string own = ActionOf(this.request, this.message.Type);
                string action = own.Length == 0 ? this.addressing.Action ?? "" : own;
                this.input = this.endpoint.Input(space, name, action, this.Parts);
                if (this.input == null)
                {
                    return this.SenderFault(
                        "no operation takes "
                        + (name.Length == 0 ? "an empty body" : "the element {" + space + "}" + name)
                        + (action.Length == 0 ? "" : " with the action \"" + action + "\""));
                }
                AddressingProblem problem = this.addressing.Problem(
                    this.endpoint.IsAddressed, !this.input.IsOneWay, own, this.input.Action);
                if (problem != null)
                {
                    return this.Misaddressed(problem);
                }
                List<XName> notUnderstood = came.ReadInto(this.input, false);
                return notUnderstood.Count == 0 ? null : this.NotUnderstood(notUnderstood);
            }

            /// <summary>The names of what is in the first element of the body, found in the message apart from reading it.</summary>
            private ISet<string> Parts()
            {
                return Envelope.Read(
                    this.message, this.endpoint.IsEncoded, NoTypes.Instance, this.reading, envelope => envelope.PartNames());
            }

            private SoapAnswer Nothing()
            {
                return SoapAnswer.Of(202, this.version.ContentType(""), new byte[0]);
            }

            private SoapAnswer Answer(SoapMessage output)
            {
                if (output == null)
                {
                    return this.Nothing();
                }
                bool optimized = this.endpoint.IsOptimized
                    || this.message.Parts != null
                    || this.request.Header("Accept").IndexOf("application/xop+xml", StringComparison.OrdinalIgnoreCase) >= 0;
                OutgoingPackage parts = new OutgoingPackage(optimized && !output.IsEncoded ? Threshold : -1);
                byte[] written = Envelope.Write(
                    this.version, output, Blocks(this.addressing.OfAnswer(output.Action)), parts, this.endpoint.Types);
                return this.addressing.WantsAnswer
                    ? SoapAnswer.Of(200, this.version.ContentType(""), written, parts)
                    : this.Nothing();
            }

            private static List<Action<XmlOutput>> Blocks(IEnumerable<XElement> elements)
            {
                return elements.Select(element => (Action<XmlOutput>)(output => output.Element(element))).ToList();
            }

            private XName Own(string code)
            {
                return this.version.Name(code);
            }

            private SoapAnswer SenderFault(string reason)
            {
                return this.Fault(this.version.SenderCode, reason, null);
            }

            private SoapAnswer Misaddressed(AddressingProblem problem)
            {
                // SOAP 1.1 keeps the detail for what is wrong with a body (SOAP Binding, section 6.3).
                bool inDetail = this.version == SoapVersion.Soap12;
                List<XName> code = new List<XName> { this.Own(this.version.SenderCode) };
                code.AddRange(problem.Codes.Select(Addressing.Name));
                List<Action<XmlOutput>> blocks = inDetail
                    ? new List<Action<XmlOutput>>()
                    : Blocks(new[] { Addressing.Block("FaultDetail", problem.Detail()) });
                return this.Fault(
                    code,
                    problem.Reason,
                    Addressing.OwnFaultAction,
                    blocks,
                    inDetail ? output => output.Element(problem.Detail()) : (Action<XmlOutput>)null);
            }

            private SoapAnswer NotUnderstood(List<XName> names)
            {
                return this.Fault(
                    new List<XName> { this.Own("MustUnderstand") },
                    "the header block " + names[0] + " is not understood",
                    null,
                    this.version == SoapVersion.Soap12
                        ? Envelope.NotUnderstood(names).ToList()
                        : new List<Action<XmlOutput>>(),
                    null);
            }

            private SoapAnswer Fault(string code, string reason, DeclaredFaultException detail)
            {
                string action = detail == null || this.input == null ? null : this.input.FaultAction(detail);
                return this.Fault(
                    new List<XName> { this.Own(code) },
                    reason,
                    action,
                    new List<Action<XmlOutput>>(),
                    detail == null ? (Action<XmlOutput>)null : detail.DoWriteDetail);
            }

            /// <summary>SOAP 1.1, section 6.2 sends every fault with status 500; SOAP 1.2 Part 2, table 20 blames the sender with 400.</summary>
            private SoapAnswer Fault(
                List<XName> code, string reason, string action, List<Action<XmlOutput>> blocks, Action<XmlOutput> detail)
            {
                if (this.addressing != null)
                {
                    blocks.AddRange(Blocks(this.addressing.OfFault(action)));
                }
                bool blamesSender = this.version == SoapVersion.Soap12 && code[0].LocalName == this.version.SenderCode;
                byte[] sent = Envelope.WriteFault(this.version, code, reason, blocks, this.endpoint.Types, detail);
                return this.addressing == null || this.addressing.WantsFault
                    ? SoapAnswer.Of(blamesSender ? 400 : 500, this.version.ContentType(""), sent)
                    : this.Nothing();
            }
        }
    }

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
            for (int i = 0; i < this.Locations.Length; i++)
            {
                SoapMessage input = this.Input(i);
                Fields taken = input.Form == MessageForm.Replaced ? this.Taken(request, i) : null;
                if (input.Form == MessageForm.Replaced ? taken != null : SoapRequest.Escaped(this.Location(i)) == request.Path)
                {
                    return await this.Called(request, input, taken, cancellationToken).ConfigureAwait(false);
                }
            }
            return SoapAnswer.Plain(404, "no operation is at " + Printable(request.Path));
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
            return Fields.Taken(location, query ? request.Path + "?" + request.Query : request.Path);
        }

        private async Task<SoapAnswer> Called(
            SoapRequest request, SoapMessage input, Fields taken, CancellationToken cancellationToken)
        {
            string allowed = string.Join(", ", this.Verbs);
            if (Array.IndexOf(this.Verbs, request.Method) < 0)
            {
                return SoapAnswer.NotAllowed(allowed, "the operation is called by " + allowed);
            }
            Incoming message = await request.MessageAsync(this, cancellationToken).ConfigureAwait(false);
            try
            {
                this.Read(request, message, input, taken);
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
                return SoapAnswer.Plain(500, e.Message);
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

        private void Read(SoapRequest request, Incoming message, SoapMessage input, Fields taken)
        {
            switch (input.Form)
            {
                case MessageForm.Replaced:
                    taken.ReadInto(input, this.Types, this.Reading);
                    break;
                case MessageForm.Fields:
                    if (request.Method != "GET")
                    {
                        Want(request, request.Type.Name == Form, "the fields of a form (" + Form + ")");
                    }
                    string fields = request.Method == "GET" ? request.Query : Encoding.UTF8.GetString(message.Body);
                    Fields.Parse(fields).ReadInto(input, this.Types, this.Reading);
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
