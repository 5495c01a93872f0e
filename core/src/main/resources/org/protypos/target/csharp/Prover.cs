using System;
using System.IO;
using System.Net;
using System.Reflection;
using System.Text;
using Protypos.Runtime;

/// <summary>
/// Reads messages by generated types and writes them again, until standard input ends. Each message comes as its length and its bytes; the
/// answer is 0 with the message as it was written, or 1 with the line, the column, the path and the reason of a refusal.
/// </summary>
public static class Prover
{
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
                byte[] written = types.Write(types.Read(new MemoryStream(message)));
                output.Write((byte)0);
                Write(output, written);
            }
            catch (XmlFormatException e)
            {
                output.Write((byte)1);
                output.Write(IPAddress.HostToNetworkOrder(e.Line));
                output.Write(IPAddress.HostToNetworkOrder(e.Column));
                Write(output, Encoding.UTF8.GetBytes(e.Path));
                Write(output, Encoding.UTF8.GetBytes(e.Message));
            }
            output.Flush();
        }
        return 0;
    }

    private static void Write(BinaryWriter output, byte[] bytes)
    {
        output.Write(IPAddress.HostToNetworkOrder(bytes.Length));
        output.Write(bytes);
    }
}
