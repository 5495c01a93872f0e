namespace Protypos.Runtime
{
    /// <summary>What a message of an HTTP binding is put into (WSDL 1.1, sections 4 and 5).</summary>
    public enum MessageForm
    {
        /// <summary>A SOAP envelope, or no message at all.</summary>
        Envelope,

        /// <summary>Names and values as in an HTML form.</summary>
        Fields,

        /// <summary>Values that replace their names in the location.</summary>
        Replaced,

        /// <summary>An XML document.</summary>
        Document,

        /// <summary>Plain text.</summary>
        Text,

        /// <summary>Bytes of any media type.</summary>
        Bytes
    }

    /// <summary>The input or output of one operation: its header blocks and its body. Generated code has one for each message.</summary>
    public abstract class SoapMessage
    {
        /// <summary>Whether the body is in the SOAP encoding (SOAP 1.1, section 5).</summary>
        public virtual bool IsEncoded
        {
            get { return false; }
        }

        /// <summary>What the message is put into.</summary>
        public virtual MessageForm Form
        {
            get { return MessageForm.Envelope; }
        }

        /// <summary>The part that a text is, for messages that are put into plain text.</summary>
        public virtual string TextPart
        {
            get { return ""; }
        }

        /// <summary>The action that addresses the message, or null when the contract asks for no addressing.</summary>
        public virtual string Action
        {
            get { return null; }
        }

        /// <summary>Whether no answer follows it; only asked where messages are addressed.</summary>
        public virtual bool IsOneWay
        {
            get { return false; }
        }

        /// <summary>Whether any header block will be written.</summary>
        public virtual bool HasHeaders
        {
            get { return false; }
        }

        /// <summary>The action that addresses a fault of the operation of which this is the input, or null.</summary>
        public virtual string FaultAction(DeclaredFaultException fault)
        {
            return null;
        }

        /// <summary>Adds the parts that travel beside the message.</summary>
        public virtual void WriteAttachments(OutgoingPackage output)
        {
        }

        /// <summary>Takes the parts that came beside the message.</summary>
        public virtual void ReadAttachments(AttachedParts input)
        {
        }

        /// <summary>Writes the header blocks.</summary>
        public virtual void WriteHeaders(XmlOutput output)
        {
        }

        /// <summary>Writes what stands in the body.</summary>
        public virtual void WriteBody(XmlOutput output)
        {
        }

        /// <summary>Takes a header block that came, and tells whether the operation knows it.</summary>
        public virtual bool TakeHeader(XmlElement<XmlObject> block)
        {
            return false;
        }

        /// <summary>Reads what stands in the body.</summary>
        public virtual void ReadBody(XmlInput input)
        {
        }

        /// <summary>Turns a fault into the exception that the contract declares for it, or gives null when it declares none.</summary>
        public virtual DeclaredFaultException Declared(SoapFault fault)
        {
            return null;
        }
    }
}
