namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.IO;
    using System.Linq;
    using System.Text;
    using System.Xml;
    using System.Xml.Linq;

    /// <summary>A fault as it stands in a message (SOAP 1.1, section 4.4; SOAP 1.2 Part 1, section 5.4).</summary>
    public sealed class SoapFault
    {
        private static readonly HashSet<string> General = new HashSet<string>(
            "Client Server Sender Receiver MustUnderstand VersionMismatch DataEncodingUnknown".Split(' '),
            StringComparer.Ordinal);

        private readonly XmlTypes types;

        private SoapFault(List<XName> code, string reason, string actor, List<XElement> detail, string detailText, XmlTypes types)
        {
            this.Code = code;
            this.Reason = reason;
            this.Actor = actor;
            this.Detail = detail;
            this.DetailText = detailText;
            this.types = types;
        }

        /// <summary>The code, with the subcodes of SOAP 1.2 behind it.</summary>
        public IReadOnlyList<XName> Code { get; private set; }

        /// <summary>
        /// Whether it is the request that is at fault. SOAP 1.1, section 4.4.1 puts more precise codes behind a point.
        /// </summary>
        public bool IsSenders
        {
            get
            {
                string name = this.Code.Count == 0 || !IsSoap(this.Code[0]) ? "" : this.Code[0].LocalName.Split('.')[0];
                return name == "Client" || name == "Sender";
            }
        }

        /// <summary>The codes that say more than those that a version of SOAP has for everything.</summary>
        public IEnumerable<XName> OwnCodes
        {
            get { return this.Code.Where(code => !IsSoap(code) || !General.Contains(code.LocalName)); }
        }

        /// <summary>What went wrong, for a person.</summary>
        public string Reason { get; private set; }

        /// <summary>Who found it, or null when the message does not say.</summary>
        public string Actor { get; private set; }

        /// <summary>The elements of the detail.</summary>
        public IReadOnlyList<XElement> Detail { get; private set; }

        /// <summary>Text that stands in the detail beside elements, which neither version provides for; empty for none.</summary>
        public string DetailText { get; private set; }

        /// <summary>Whether a code is of a version of SOAP itself, as far as one can tell of codes without a namespace.</summary>
        private static bool IsSoap(XName code)
        {
            return code.NamespaceName.Length == 0 || SoapVersion.OfNamespace(code.NamespaceName) != null;
        }

        /// <summary>
        /// The content of the detail element of a name, or null when there is none or it is not what the contract says of it.
        /// </summary>
        public T DetailOf<T>(string space, string name)
            where T : XmlObject
        {
            return this.Detail.Where(one => one.Name == XName.Get(name, space))
                .Select(this.Typed)
                .FirstOrDefault(value => value != null) as T;
        }

        /// <summary>
        /// Reads a fault, whatever is wrong with it: who sends one seldom tests it, and what it says is wanted all the more.
        /// </summary>
        internal static SoapFault Read(XmlInput input, XmlTypes types)
        {
            XElement fault = input.Tree();
            List<XName> code = new List<XName>();
            string reason = null;
            string actor = null;
            XElement detail = new XElement("detail");
            foreach (XElement part in fault.Elements())
            {
                switch (part.Name.LocalName)
                {
                    case "faultcode":
                        code.Add(NameIn(part));
                        break;
                    case "Code":
                        AddCode(part, code);
                        break;
                    case "faultstring":
                        reason = part.Value;
                        break;
                    case "Reason":
                        // Several texts may say the same in several languages: the first is taken.
                        reason = (part.Elements().FirstOrDefault() ?? part).Value;
                        break;
                    case "faultactor":
                    case "Node":
                        actor = part.Value.Trim();
                        break;
                    case "detail":
                    case "Detail":
                        detail = part;
                        break;
                    default:
                        break;
                }
            }
            return new SoapFault(
                code,
                reason ?? "",
                actor,
                detail.Elements().ToList(),
                string.Concat(detail.Nodes().OfType<XText>().Select(text => text.Value)).Trim(),
                types);
        }

        /// <summary>What the contract says of a detail; null when it is not that, and so stays a tree.</summary>
        private XmlObject Typed(XElement element)
        {
            try
            {
                using (MemoryStream written = new MemoryStream(NoTypes.Instance.WriteTree(element)))
                {
                    return this.types.Read(written).Value;
                }
            }
            catch (XmlFormatException)
            {
                return null;
            }
        }

        /// <summary>A code with its subcodes behind it (SOAP 1.2 Part 1, section 5.4.1).</summary>
        private static void AddCode(XElement tree, List<XName> code)
        {
            foreach (XElement part in tree.Elements())
            {
                if (part.Name.LocalName == "Value")
                {
                    code.Add(NameIn(part));
                }
                else
                {
                    AddCode(part, code);
                }
            }
        }

        /// <summary>A qualified name; one whose prefix nobody has declared is all we know of it.</summary>
        private static XName NameIn(XElement tree)
        {
            string text = tree.Value.Trim();
            int colon = text.IndexOf(':');
            try
            {
                XNamespace space = colon < 0 ? tree.GetDefaultNamespace() : tree.GetNamespaceOfPrefix(text.Substring(0, colon));
                return space == null ? XName.Get(text.Replace(':', '.')) : space + text.Substring(colon + 1);
            }
            catch (Exception e) when (e is XmlException || e is ArgumentException)
            {
                return XName.Get("unknown");
            }
        }

        /// <summary>Writes a fault. SOAP 1.1 has room for one code: the first below the general one.</summary>
        internal static void Write(
            XmlOutput output, SoapVersion version, IList<XName> code, string reason, Action<XmlOutput> detail)
        {
            string space = version.Namespace;
            output.Open(space, "Fault");
            if (version == SoapVersion.Soap11)
            {
                WriteName(output, "", "faultcode", code[Math.Min(1, code.Count - 1)]);
                output.Element("", "faultstring", Printable(reason));
                WriteDetail(output, "", "detail", detail);
            }
            else
            {
                for (int i = 0; i < code.Count; i++)
                {
                    output.Open(space, i == 0 ? "Code" : "Subcode");
                    WriteName(output, space, "Value", code[i]);
                }
                for (int i = 0; i < code.Count; i++)
                {
                    output.Close();
                }
                output.Open(space, "Reason");
                output.Open(space, "Text");
                output.Attribute(XmlNames.Xml, "lang", "en");
                output.Text(Printable(reason));
                output.Close();
                output.Close();
                WriteDetail(output, space, "Detail", detail);
            }
            output.Close();
        }

        /// <summary>What an exception says may hold characters that have no place in XML.</summary>
        private static string Printable(string text)
        {
            StringBuilder printable = new StringBuilder(text.Length);
            for (int i = 0; i < text.Length; i++)
            {
                bool pair = char.IsHighSurrogate(text[i]) && i + 1 < text.Length && char.IsLowSurrogate(text[i + 1]);
                bool fits = pair || (XmlConvert.IsXmlChar(text[i]) && !char.IsSurrogate(text[i]));
                printable.Append(fits ? text[i] : '?');
                if (pair)
                {
                    printable.Append(text[++i]);
                }
            }
            return printable.ToString();
        }

        private static void WriteName(XmlOutput output, string space, string element, XName value)
        {
            output.Open(space, element);
            output.Text(output.Name(value));
            output.Close();
        }

        private static void WriteDetail(XmlOutput output, string space, string element, Action<XmlOutput> content)
        {
            if (content != null)
            {
                output.Open(space, element);
                content(output);
                output.Close();
            }
        }
    }

    /// <summary>A contract that declares nothing: all content is trees.</summary>
    internal sealed class NoTypes : XmlTypes
    {
        internal static readonly NoTypes Instance = new NoTypes();

        private NoTypes()
        {
        }

        internal byte[] WriteTree(XElement element)
        {
            XmlOutput output = new XmlOutput(this);
            output.Element(element);
            return output.Finish();
        }
    }
}
