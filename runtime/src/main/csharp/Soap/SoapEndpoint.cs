namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Linq;
    using System.Threading;
    using System.Threading.Tasks;
    using System.Xml.Linq;

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
                    return this.Fault("VersionMismatch", e.Message);
                }
                catch (Exception e) when (!(e is RequestRefusedException))
                {
                    return this.Fault(this.version.ReceiverCode, this.endpoint.FailedWith(e));
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
                    return this.Fault(this.version.ReceiverCode, NotImplemented(e));
                }
                catch (Exception e)
                {
                    return this.Fault(this.version.ReceiverCode, this.endpoint.FailedWith(e));
                }
            }

            private SoapAnswer Declared(DeclaredFaultException fault)
            {
                try
                {
                    return this.Fault(
                        fault.Codes(this.version),
                        fault.Message,
                        this.input.FaultAction(fault),
                        new List<Action<XmlOutput>>(),
                        fault.DoWriteDetail);
                }
                catch (Exception e)
                {
                    return this.Fault(this.version.ReceiverCode, this.endpoint.FailedWith(e));
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
                return this.Fault(this.version.SenderCode, reason);
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

            private SoapAnswer Fault(string code, string reason)
            {
                return this.Fault(new List<XName> { this.Own(code) }, reason, null, new List<Action<XmlOutput>>(), null);
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
}
