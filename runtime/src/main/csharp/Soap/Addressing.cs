namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Linq;
    using System.Xml.Linq;

    /// <summary>Header blocks that say where a message goes and what it answers (WS-Addressing 1.0 Core, section 3; SOAP Binding).</summary>
    internal static class Addressing
    {
        internal const string Namespace = "http://www.w3.org/2005/08/addressing";
        internal const string Anonymous = Namespace + "/anonymous";
        internal const string None = Namespace + "/none";

        /// <summary>The action of a fault that the contract does not declare.</summary>
        internal const string FaultAction = Namespace + "/soap/fault";

        /// <summary>The action of the faults that WS-Addressing itself defines (SOAP Binding, section 6).</summary>
        internal const string OwnFaultAction = Namespace + "/fault";

        internal static XName Name(string local)
        {
            return XName.Get(local, Namespace);
        }

        /// <summary>An identifier for a message.</summary>
        internal static string NewId()
        {
            return "urn:uuid:" + Guid.NewGuid();
        }

        internal static XElement Block(string name, object content)
        {
            return new XElement(Name(name), content);
        }

        /// <summary>The header blocks of a request; the answer is wanted on the same connection.</summary>
        internal static IEnumerable<XElement> OfRequest(string to, string action, string id)
        {
            yield return Block("To", to);
            yield return Block("Action", action);
            yield return Block("MessageID", id);
            yield return Block("ReplyTo", Block("Address", Anonymous));
        }

        /// <summary>
        /// Whether an answer says that it answers another message: one that names none is taken for the answer, as it came on the
        /// connection of the request (Core, section 3.4).
        /// </summary>
        internal static bool IsForAnother(Envelope answer, string id)
        {
            List<XElement> related = answer.Headers(Name("RelatesTo")).FindAll(block =>
            {
                XAttribute kind = block.Attribute("RelationshipType");
                return kind == null || kind.Value == Namespace + "/reply";
            });
            return related.Count > 0 && related.TrueForAll(block => block.Value.Trim() != id);
        }
    }

    /// <summary>What is wrong with the addressing of a request (SOAP Binding, section 6.4).</summary>
    internal sealed class AddressingProblem
    {
        private readonly string header;
        private readonly string action;

        internal AddressingProblem(string reason, string header, string action, params string[] codes)
        {
            this.Reason = reason;
            this.header = header;
            this.action = action;
            this.Codes = codes;
        }

        internal string Reason { get; private set; }

        /// <summary>The subcode, and the one below it if there is one.</summary>
        internal string[] Codes { get; private set; }

        internal static AddressingProblem Missing(string header)
        {
            return new AddressingProblem(
                "the header block wsa:" + header + " must be there and is not",
                header,
                null,
                "MessageAddressingHeaderRequired");
        }

        /// <summary>What the detail of the fault holds.</summary>
        internal XElement Detail()
        {
            if (this.action != null)
            {
                return Addressing.Block("ProblemAction", Addressing.Block("Action", this.action));
            }
            XElement about = Addressing.Block("ProblemHeaderQName", "wsa:" + this.header);
            about.SetAttributeValue(XNamespace.Xmlns + "wsa", Addressing.Namespace);
            return about;
        }
    }

    /// <summary>What a request says of itself.</summary>
    internal sealed class RequestAddressing
    {
        private static readonly string[] Once = { "To", "From", "ReplyTo", "FaultTo", "Action", "MessageID" };

        private readonly Envelope request;
        private readonly XElement replyTo;
        private readonly XElement faultTo;

        internal RequestAddressing(Envelope request)
        {
            this.request = request;
            this.replyTo = this.request.Headers(Addressing.Name("ReplyTo")).FirstOrDefault();
            this.faultTo = this.request.Headers(Addressing.Name("FaultTo")).FirstOrDefault();
        }

        private static string AddressOf(XElement endpoint)
        {
            XElement address = endpoint == null ? null : endpoint.Element(Addressing.Name("Address"));
            return address == null ? null : address.Value.Trim();
        }

        private string Text(string name)
        {
            XElement block = this.request.Headers(Addressing.Name(name)).FirstOrDefault();
            return block == null ? null : block.Value.Trim();
        }

        /// <summary>The action, or null.</summary>
        internal string Action
        {
            get { return this.Text("Action"); }
        }

        /// <summary>
        /// What is wrong, or null. Who need not address a message is not held to the rules of doing so, but for where the answer is to
        /// go: that cannot be passed over.
        /// </summary>
        /// <param name="required">whether the contract asks for addressing</param>
        /// <param name="answered">whether the operation has an answer</param>
        /// <param name="soapAction">the action that HTTP names, empty for none</param>
        /// <param name="wanted">the action of the operation, or null</param>
        internal AddressingProblem Problem(bool required, bool answered, string soapAction, string wanted)
        {
            foreach (string name in new[] { "ReplyTo", "FaultTo" })
            {
                XElement to = name == "ReplyTo" ? this.replyTo : this.faultTo;
                string address = AddressOf(to);
                if (to != null && address == null)
                {
                    return new AddressingProblem(
                        "wsa:" + name + " has no address", name, null, "InvalidAddressingHeader", "MissingAddressInEPR");
                }
                if (to != null && address != Addressing.Anonymous && address != Addressing.None)
                {
                    return new AddressingProblem(
                        "answers are given on the connection of the request only",
                        name,
                        null,
                        "InvalidAddressingHeader",
                        "OnlyAnonymousAddressSupported");
                }
            }
            return required ? this.Broken(answered, soapAction, wanted) : null;
        }

        private AddressingProblem Broken(bool answered, string soapAction, string wanted)
        {
            foreach (string name in Once)
            {
                if (this.request.Headers(Addressing.Name(name)).Count > 1)
                {
                    return new AddressingProblem(
                        "the header block wsa:" + name + " is there more than once",
                        name,
                        null,
                        "InvalidAddressingHeader",
                        "InvalidCardinality");
                }
            }
            string action = this.Action;
            if (action == null)
            {
                return AddressingProblem.Missing("Action");
            }
            if (answered && this.Text("MessageID") == null)
            {
                return AddressingProblem.Missing("MessageID");
            }
            if (soapAction.Length > 0 && soapAction != action)
            {
                return new AddressingProblem(
                    "wsa:Action and the SOAP action are two: " + action + " and " + soapAction,
                    "Action",
                    null,
                    "InvalidAddressingHeader",
                    "ActionMismatch");
            }
            return wanted == null || wanted == action
                ? null
                : new AddressingProblem(
                    "the action " + action + " is not that of the message, which is " + wanted, null, action, "ActionNotSupported");
        }

        /// <summary>Whether anybody wants to hear the answer.</summary>
        internal bool WantsAnswer
        {
            get { return AddressOf(this.replyTo) != Addressing.None; }
        }

        /// <summary>Whether anybody wants to hear a fault.</summary>
        internal bool WantsFault
        {
            get { return AddressOf(this.faultTo ?? this.replyTo) != Addressing.None; }
        }

        /// <summary>The header blocks of the answer; none when the request has no identifier to answer to.</summary>
        internal IEnumerable<XElement> OfAnswer(string action)
        {
            return this.Blocks(action ?? Answering(this.Action), this.replyTo);
        }

        /// <summary>The action of an answer of which the contract says nothing, in the form that the defaults have (Metadata, section 4.4.4).</summary>
        private static string Answering(string request)
        {
            const string Ending = "Request";
            bool ends = request != null && request.EndsWith(Ending, StringComparison.Ordinal);
            return request == null ? null : (ends ? request.Substring(0, request.Length - Ending.Length) : request) + "Response";
        }

        /// <summary>Those of a fault.</summary>
        internal IEnumerable<XElement> OfFault(string action)
        {
            return this.Blocks(action ?? Addressing.FaultAction, this.faultTo ?? this.replyTo);
        }

        private IEnumerable<XElement> Blocks(string action, XElement to)
        {
            string id = this.Text("MessageID");
            bool addressed = id != null || action == Addressing.OwnFaultAction;
            if (addressed && action != null)
            {
                yield return Addressing.Block("Action", action);
            }
            if (addressed)
            {
                yield return Addressing.Block("MessageID", Addressing.NewId());
            }
            if (id != null)
            {
                yield return Addressing.Block("RelatesTo", id);
            }
            // SOAP Binding, section 2.2: they come back as header blocks, marked as what they are.
            XElement parameters = to == null ? null : to.Element(Addressing.Name("ReferenceParameters"));
            foreach (XElement parameter in parameters == null ? Enumerable.Empty<XElement>() : parameters.Elements())
            {
                XElement block = new XElement(parameter);
                block.SetAttributeValue(Addressing.Name("IsReferenceParameter"), "true");
                yield return block;
            }
        }
    }
}
