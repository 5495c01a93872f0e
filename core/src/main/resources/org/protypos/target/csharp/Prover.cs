using System;
using System.Collections.Generic;
using System.IO;
using System.Linq;
using System.Net;
using System.Reflection;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using Protypos.Runtime;

/// <summary>
/// Reads messages by generated types and writes them again, until standard input ends. Each message comes as its length and its bytes; the
/// answer is 0 with the message as it was written, or 1 with the line, the column, the path and the reason of a refusal.
/// </summary>
public static class Prover
{
    private const string Within = "within";

    /// <summary>Takes the registry of the types by its name.</summary>
    public static int Main(string[] arguments)
    {
        Type registry = Assembly.GetExecutingAssembly().GetType(arguments[0], true);
        XmlTypes types = (XmlTypes)registry.GetField("Instance").GetValue(null);
        BinaryReader input = new BinaryReader(Console.OpenStandardInput());
        BinaryWriter output = new BinaryWriter(Console.OpenStandardOutput());
        for (byte[] length = input.ReadBytes(4); length.Length == 4; length = input.ReadBytes(4))
        {
            byte[] message = input.ReadBytes(IPAddress.NetworkToHostOrder(BitConverter.ToInt32(length, 0)));
            try
            {
                byte[] written = Again(types, message);
                output.Write((byte)0);
                Write(output, written);
            }
            catch (XmlFormatException e)
            {
                output.Write((byte)1);
                output.Write(IPAddress.HostToNetworkOrder(e.Line));
                output.Write(IPAddress.HostToNetworkOrder(e.Column));
                Write(output, Encoding.UTF8.GetBytes(e.Data[Within] + e.Path));
                Write(output, Encoding.UTF8.GetBytes(e.Reason));
            }
            output.Flush();
        }
        return 0;
    }

    /// <summary>Reads and writes a message; of an envelope, which no contract declares, what it carries, each by its type.</summary>
    private static byte[] Again(XmlTypes types, byte[] message)
    {
        XElement root;
        using (XmlReader reader = XmlReader.Create(new MemoryStream(message)))
        {
            root = XElement.Load(reader, LoadOptions.PreserveWhitespace | LoadOptions.SetLineInfo);
        }
        if (!IsOfSoap(root, "Envelope") || types.ElementContent(root.Name) != null)
        {
            return types.Write(types.Read(new MemoryStream(message)));
        }
        foreach (XElement part in new List<XElement>(Parts(root)))
        {
            foreach (XAttribute declared in part.Ancestors().SelectMany(outer => outer.Attributes()))
            {
                if (declared.IsNamespaceDeclaration && part.Attribute(declared.Name) == null)
                {
                    part.Add(new XAttribute(declared));
                }
            }
            using (XmlReader reader = part.CreateReader())
            {
                XmlInput input = new XmlInput(new XmlCursor(new ParserReader(reader), XmlLimits.Default, null), types);
                try
                {
                    XmlElement<XmlObject> typed = IsOfSoap(part.Parent, "Header") ? input.Block() : input.TypedElement();
                    part.ReplaceWith(types.ToElement(typed.Name, typed.Value));
                }
                catch (XmlFormatException e)
                {
                    e.Data[Within] = string.Concat(part.Ancestors().Reverse().Select(outer => "/" + outer.Name.LocalName));
                    throw;
                }
            }
        }
        using (MemoryStream written = new MemoryStream())
        {
            using (XmlWriter writer = XmlWriter.Create(written, new XmlWriterSettings { Encoding = new UTF8Encoding(false) }))
            {
                root.WriteTo(writer);
            }
            return written.ToArray();
        }
    }

    private static bool IsOfSoap(XElement element, string name)
    {
        return element.Name.LocalName == name
            && (element.Name.NamespaceName == "http://schemas.xmlsoap.org/soap/envelope/"
                || element.Name.NamespaceName == "http://www.w3.org/2003/05/soap-envelope");
    }

    /// <summary>What an envelope carries: header blocks, what stands in the body, the body itself when it is of a type, details.</summary>
    private static IEnumerable<XElement> Parts(XElement outer)
    {
        foreach (XElement element in outer.Elements())
        {
            bool typed = element.Attribute(XName.Get("type", XmlNames.Instance)) != null;
            bool section = IsOfSoap(element, "Header")
                || IsOfSoap(element, "Body")
                || IsOfSoap(element, "Fault")
                || IsOfSoap(element, "Detail")
                || (IsOfSoap(outer, "Fault") && element.Name == "detail");
            if (!section || typed)
            {
                if (!IsOfSoap(outer, "Fault") && !IsOfSoap(outer, "Envelope") || typed)
                {
                    yield return element;
                }
            }
            else
            {
                foreach (XElement part in Parts(element))
                {
                    yield return part;
                }
            }
        }
    }

    private static void Write(BinaryWriter output, byte[] bytes)
    {
        output.Write(IPAddress.HostToNetworkOrder(bytes.Length));
        output.Write(bytes);
    }
}
