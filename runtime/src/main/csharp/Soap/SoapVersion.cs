namespace Protypos.Runtime
{
    using System.Xml.Linq;

    /// <summary>The versions of SOAP: what differs between them on the wire.</summary>
    public sealed class SoapVersion
    {
        /// <summary>Simple Object Access Protocol 1.1, W3C Note of 8 May 2000.</summary>
        public static readonly SoapVersion Soap11 =
            new SoapVersion("http://schemas.xmlsoap.org/soap/envelope/", "text/xml", "Client", "Server");

        /// <summary>SOAP Version 1.2, W3C Recommendation of 27 April 2007.</summary>
        public static readonly SoapVersion Soap12 =
            new SoapVersion("http://www.w3.org/2003/05/soap-envelope", "application/soap+xml", "Sender", "Receiver");

        private SoapVersion(string space, string mediaType, string senderCode, string receiverCode)
        {
            this.Namespace = space;
            this.MediaType = mediaType;
            this.SenderCode = senderCode;
            this.ReceiverCode = receiverCode;
        }

        /// <summary>The namespace of the envelope.</summary>
        public string Namespace { get; private set; }

        /// <summary>The media type of a message over HTTP.</summary>
        public string MediaType { get; private set; }

        /// <summary>The fault code that puts the fault at the sender's side.</summary>
        internal string SenderCode { get; private set; }

        /// <summary>The fault code that puts the fault at the receiver's side.</summary>
        internal string ReceiverCode { get; private set; }

        internal XName Name(string local)
        {
            return XName.Get(local, this.Namespace);
        }

        /// <summary>The content type of a message, with the action where this version carries it there.</summary>
        internal string ContentType(string action)
        {
            string type = this.MediaType + "; charset=utf-8";
            return this == Soap12 && action.Length > 0 ? type + "; action=\"" + action + "\"" : type;
        }

        internal static SoapVersion OfNamespace(string space)
        {
            return space == Soap11.Namespace ? Soap11 : space == Soap12.Namespace ? Soap12 : null;
        }

        internal static SoapVersion OfMediaType(string name)
        {
            return name == Soap11.MediaType ? Soap11 : name == Soap12.MediaType ? Soap12 : null;
        }
    }
}
