namespace Protypos.Runtime
{
    /// <summary>The namespaces that XML, XML Schema and the formats of messages fix.</summary>
    internal static class XmlNames
    {
        /// <summary>XML Schema Part 1, section 1.2.</summary>
        internal const string Schema = "http://www.w3.org/2001/XMLSchema";

        /// <summary>XML Schema Part 1, section 2.6.</summary>
        internal const string Instance = "http://www.w3.org/2001/XMLSchema-instance";

        /// <summary>Namespaces in XML, section 3.</summary>
        internal const string Xml = "http://www.w3.org/XML/1998/namespace";

        /// <summary>Namespaces in XML, section 3.</summary>
        internal const string Declarations = "http://www.w3.org/2000/xmlns/";

        /// <summary>SOAP 1.1, section 5.</summary>
        internal const string SoapEncoding = "http://schemas.xmlsoap.org/soap/encoding/";

        /// <summary>Marks elements that are copies of one that the message refers to; never on the wire.</summary>
        internal const string Shared = "urn:shared-value";

        /// <summary>XML-binary Optimized Packaging, section 2.1.</summary>
        internal const string Xop = "http://www.w3.org/2004/08/xop/include";
    }
}
