using System;
using System.Collections.Generic;
using System.IO;
using System.Reflection;
using System.Text;
using Protypos.Runtime;

/// <summary>
/// Reads each message in a folder by generated types and writes it again: beside NAME.xml it leaves NAME.copy or, when the message is
/// refused, NAME.refused; NAME.violations; NAME.changed, the value of another message that was made this one by its members; and
/// NAME.lenient, what a lenient reading tells and makes of it.
/// </summary>
public static class RoundTrip
{
    public static int Main(string[] arguments)
    {
        Type registry = Assembly.LoadFrom(arguments[0]).GetType(arguments[1], true);
        XmlTypes types = (XmlTypes)registry.GetField("Instance").GetValue(null);
        Dictionary<string, byte[]> others = new Dictionary<string, byte[]>();
        foreach (string file in Directory.GetFiles(arguments[2], "*.xml"))
        {
            byte[] message = File.ReadAllBytes(file);
            try
            {
                XmlElement<XmlObject> value = types.Read(new MemoryStream(message));
                byte[] copy = types.Write(value);
                XmlElement<XmlObject> again = types.Read(new MemoryStream(copy));
                File.WriteAllBytes(Path.ChangeExtension(file, ".copy"), copy);
                File.WriteAllText(Path.ChangeExtension(file, ".violations"), string.Join("\n", value.Value.Violations()));
                if (!value.Equals(again) || value.GetHashCode() != again.GetHashCode() || value.ToString() != again.ToString())
                {
                    File.WriteAllText(Path.ChangeExtension(file, ".unequal"), value + "\n" + again);
                }
                string kind = value.Name + " " + value.Value.GetType();
                if (others.ContainsKey(kind))
                {
                    Changed(types, file, types.Read(new MemoryStream(others[kind])), again);
                }
                others[kind] = message;
            }
            catch (XmlFormatException e)
            {
                File.WriteAllText(Path.ChangeExtension(file, ".refused"), e.Message);
            }
            Lenient(types, file, message);
        }
        return 0;
    }

    private static void Changed(XmlTypes types, string file, XmlElement<XmlObject> other, XmlElement<XmlObject> value)
    {
        string wanted = value.ToString();
        byte[] changed = types.Write((XmlElement<XmlObject>)Overlay.Of(other, value));
        File.WriteAllBytes(Path.ChangeExtension(file, ".changed"), changed);
        string came = types.Read(new MemoryStream(changed)).ToString();
        if (came != wanted)
        {
            File.WriteAllText(Path.ChangeExtension(file, ".unequal"), wanted + "\n" + came);
        }
    }

    private static void Lenient(XmlTypes types, string file, byte[] message)
    {
        List<string> told = new List<string>();
        try
        {
            XmlElement<XmlObject> value = types.Read(new MemoryStream(message), deviation => told.Add(deviation.Message));
            told.Add(Encoding.UTF8.GetString(types.Write(value)));
        }
        catch (XmlFormatException e)
        {
            told.Add("refused: " + e.Message);
        }
        File.WriteAllText(Path.ChangeExtension(file, ".lenient"), string.Join("\n", told));
    }
}
