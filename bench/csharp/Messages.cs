using System;
using System.Collections.Generic;
using System.Diagnostics;
using System.IO;
using System.Linq;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using Example.Lanternbay.Harbour.Desk;
using Example.Lanternbay.Harbour.Desk.Runtime;

/// <summary>Reads and writes a harbour message by generated code and by code written by hand, and prints what each takes.</summary>
public static class Messages
{
    private const string Namespace = "http://lanternbay.example/harbour/desk";

    /// <summary>A berth, as somebody would write it by hand.</summary>
    private sealed class HandBerth
    {
        internal int Number;
        internal string Quay;
        internal decimal DepthInMetres;
    }

    public static int Main()
    {
        Console.WriteLine("{0,-12}{1,12}{2,14}{3,11}", "berths", "by hand us", "generated us", "x by hand");
        foreach (int berths in new[] { 40, 40000 })
        {
            ListBerthsResponse response = new ListBerthsResponse();
            for (int i = 0; i < berths; i++)
            {
                response.Berth.Add(new Berth
                {
                    Number = i + 1,
                    Quay = i % 3 == 0 ? "Fish & ice quay" : "North quay " + i % 17,
                    DepthInMetres = 7m + i % 10 / 10m,
                });
            }
            XmlElement<ListBerthsResponse> generated = new XmlElement<ListBerthsResponse>(XName.Get("listBerthsResponse", Namespace), response);
            byte[] message = Documents.Instance.Write(generated);
            List<HandBerth> byHand = ReadByHand(message);
            if (byHand.Count != berths
                || !response.Equals(Read(message).Value)
                || ReadByHand(WriteByHand(byHand)).Count != berths)
            {
                Console.Error.WriteLine("the two do not read the same");
                return 1;
            }
            Compare("read " + berths, berths, () => ReadByHand(message), () => Read(message));
            Compare("write " + berths, berths, () => WriteByHand(byHand), () => Documents.Instance.Write(generated));
        }
        return 0;
    }

    private static void Compare(string what, int berths, Func<object> byHand, Func<object> generated)
    {
        int turns = Math.Max(4, 400000 / berths);
        List<double> hand = new List<double>();
        List<double> ours = new List<double>();
        for (int round = 0; round < 9; round++)
        {
            hand.Add(Time(byHand, turns));
            ours.Add(Time(generated, turns));
        }
        Console.WriteLine(
            "{0,-12}{1,12:0.0}{2,14:0.0}{3,11:0.00}", what, Median(hand), Median(ours), Median(ours) / Median(hand));
    }

    /// <summary>The first rounds are for the compiler.</summary>
    private static double Median(List<double> times)
    {
        return times.Skip(2).OrderBy(time => time).ElementAt((times.Count - 2) / 2);
    }

    private static double Time(Func<object> work, int turns)
    {
        GC.Collect();
        Stopwatch watch = Stopwatch.StartNew();
        for (int i = 0; i < turns; i++)
        {
            GC.KeepAlive(work());
        }
        return watch.Elapsed.TotalMilliseconds * 1000 / turns;
    }

    private static XmlElement<ListBerthsResponse> Read(byte[] message)
    {
        using (Stream stream = new MemoryStream(message))
        {
            return Documents.Instance.Read<ListBerthsResponse>(stream);
        }
    }

    private static List<HandBerth> ReadByHand(byte[] message)
    {
        XmlReaderSettings settings = new XmlReaderSettings
        {
            DtdProcessing = DtdProcessing.Prohibit, IgnoreWhitespace = true, IgnoreComments = true,
        };
        using (XmlReader reader = XmlReader.Create(new MemoryStream(message), settings))
        {
            List<HandBerth> berths = new List<HandBerth>();
            reader.MoveToContent();
            reader.ReadStartElement("listBerthsResponse", Namespace);
            while (reader.IsStartElement("berth", Namespace))
            {
                reader.ReadStartElement();
                HandBerth berth = new HandBerth();
                while (reader.IsStartElement())
                {
                    if (reader.NamespaceURI != Namespace)
                    {
                        throw new XmlException("unexpected " + reader.Name);
                    }
                    switch (reader.LocalName)
                    {
                        case "number":
                            berth.Number = XmlConvert.ToInt32(reader.ReadElementContentAsString());
                            break;
                        case "quay":
                            berth.Quay = reader.ReadElementContentAsString();
                            break;
                        case "depthInMetres":
                            berth.DepthInMetres = XmlConvert.ToDecimal(reader.ReadElementContentAsString());
                            break;
                        default:
                            throw new XmlException("unexpected " + reader.Name);
                    }
                }
                reader.ReadEndElement();
                berths.Add(berth);
            }
            reader.ReadEndElement();
            return berths;
        }
    }

    private static byte[] WriteByHand(List<HandBerth> berths)
    {
        using (MemoryStream bytes = new MemoryStream())
        {
            using (XmlWriter writer = XmlWriter.Create(bytes, new XmlWriterSettings { Encoding = new UTF8Encoding(false) }))
            {
                writer.WriteStartElement("d", "listBerthsResponse", Namespace);
                foreach (HandBerth berth in berths)
                {
                    writer.WriteStartElement("d", "berth", Namespace);
                    writer.WriteElementString("d", "number", Namespace, XmlConvert.ToString(berth.Number));
                    writer.WriteElementString("d", "quay", Namespace, berth.Quay);
                    writer.WriteElementString("d", "depthInMetres", Namespace, XmlConvert.ToString(berth.DepthInMetres));
                    writer.WriteEndElement();
                }
                writer.WriteEndElement();
            }
            return bytes.ToArray();
        }
    }
}
