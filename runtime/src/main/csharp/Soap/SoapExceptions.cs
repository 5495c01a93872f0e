namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Linq;
    using System.Xml.Linq;

    /// <summary>
    /// A call ended without the answer that the contract promises: nothing came in time, or what came was no SOAP message or not the
    /// one declared. The message says what came back.
    /// </summary>
    public class CallFailedException : Exception
    {
        internal CallFailedException(string message, int status, Exception cause)
            : base(message, cause)
        {
            this.Status = status;
        }

        /// <summary>The HTTP status of the answer, or 0 when none came.</summary>
        public int Status { get; private set; }
    }

    /// <summary>The service answered with a fault that the contract does not declare for the operation.</summary>
    public sealed class UndeclaredFaultException : CallFailedException
    {
        internal UndeclaredFaultException(string operation, SoapFault fault, int status)
            : base(
                "the service answered " + operation + " with the fault "
                + (fault.Code.Count == 0 ? "" : fault.Code[0].LocalName + ": ") + fault.Reason
                + (fault.DetailText.Length == 0 ? "" : " (" + fault.DetailText + ")"),
                status,
                null)
        {
            this.Fault = fault;
        }

        /// <summary>The fault as it came.</summary>
        public SoapFault Fault { get; private set; }
    }

    /// <summary>
    /// What an implementation throws to tell the caller that it is the request that is at fault: the message becomes a fault of the
    /// sender. Of anything else that it throws, and the contract does not declare, the caller is told nothing but a reference.
    /// </summary>
    public sealed class CallRefusedException : Exception
    {
        /// <summary>Refuses a call.</summary>
        /// <param name="message">why, for the caller</param>
        public CallRefusedException(string message)
            : base(message)
        {
        }
    }

    /// <summary>
    /// A fault that the contract declares for an operation. Each declared fault is a generated exception. What a server throws
    /// blames the server, unless <see cref="IsSenders"/> says otherwise; what a client received and a server throws on keeps its
    /// codes.
    /// </summary>
    public abstract class DeclaredFaultException : Exception
    {
        /// <summary>A fault that a server is to send.</summary>
        /// <param name="reason">what went wrong, for a person</param>
        protected DeclaredFaultException(string reason)
            : base(reason)
        {
            this.Subcodes = new List<XName>();
        }

        /// <summary>A fault that a client received.</summary>
        protected DeclaredFaultException(SoapFault fault)
            : base(fault.Reason)
        {
            this.Fault = fault;
            this.IsSenders = fault.IsSenders;
            this.Subcodes = fault.OwnCodes.ToList();
        }

        /// <summary>The fault as it came, or null when it has not come over the wire.</summary>
        public SoapFault Fault { get; private set; }

        /// <summary>The fault's code, or null when this fault has not come over the wire.</summary>
        public XName Code
        {
            get { return this.Fault == null || this.Fault.Code.Count == 0 ? null : this.Fault.Code[0]; }
        }

        /// <summary>Whether it is the request that is at fault, for a server to say.</summary>
        public bool IsSenders { get; set; }

        /// <summary>
        /// What says more precisely who is at fault: subcodes, the widest first (SOAP 1.2 Part 1, section 5.4.1.3); SOAP 1.1 has
        /// room for the first, in the place of its own code.
        /// </summary>
        public IList<XName> Subcodes { get; private set; }

        /// <summary>The codes to send, the general one first.</summary>
        internal List<XName> Codes(SoapVersion version)
        {
            List<XName> codes = new List<XName>
            {
                version.Name(this.IsSenders ? version.SenderCode : version.ReceiverCode),
            };
            codes.AddRange(this.Subcodes);
            return codes;
        }

        /// <summary>Writes the element that stands in the fault's detail.</summary>
        protected abstract void WriteDetail(XmlOutput output);

        internal void DoWriteDetail(XmlOutput output)
        {
            this.WriteDetail(output);
        }
    }

    /// <summary>A request makes no sense before anybody has looked into its message.</summary>
    internal sealed class RequestRefusedException : Exception
    {
        internal RequestRefusedException(int status, string message)
            : base(message)
        {
            this.Status = status;
        }

        internal int Status { get; private set; }
    }

    /// <summary>The message is XML but no SOAP envelope of a known version.</summary>
    internal sealed class NotAnEnvelopeException : Exception
    {
        internal NotAnEnvelopeException(string message)
            : base(message)
        {
        }
    }
}
