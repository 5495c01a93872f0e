namespace Protypos.Runtime
{
    using System;
    using System.Diagnostics;
    using System.IO;
    using System.Text;
    using System.Text.RegularExpressions;
    using System.Threading;
    using System.Threading.Tasks;

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
}
