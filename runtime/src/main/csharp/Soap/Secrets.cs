namespace Protypos.Runtime
{
    using System;
    using System.IO;
    using System.Linq;
    using System.Text.RegularExpressions;
    using System.Xml;
    using System.Xml.Linq;

    /// <summary>
    /// Blanks what looks like a secret in messages for people: the values of elements, attributes and fields whose names suggest one,
    /// and all of security header blocks and assertions. Of what cannot be read nothing is shown.
    /// </summary>
    internal static class Secrets
    {
        private const string Blank = "***";
        private const int Longest = 100000;

        /// <summary>Parts of names, in small letters and without what joins words.</summary>
        private static readonly string[] Words =
        {
            "passw", "passphrase", "passcode", "pwd", "secret", "token", "credential", "apikey", "accesskey", "privatekey",
            "authorization", "authorisation", "kennwort", "geheim", "motdepasse", "contrase", "senha", "wachtwoord", "parola",
            "l\u00f6senord", "has\u0142o", "\u043f\u0430\u0440\u043e\u043b", "\u5bc6\u7801", "\u5bc6\u78bc"
        };

        /// <summary>Whole words of names.</summary>
        private static readonly string[] Whole = { "pin", "pins", "cvv", "cvc", "otp", "tan", "sid", "cookie", "auth" };

        /// <summary>Blocks that say who somebody is (Web Services Security, SAML).</summary>
        private static readonly string[] Blocks =
        {
            "Security", "Assertion", "EncryptedAssertion", "UsernameToken", "BinarySecurityToken"
        };

        /// <summary>Attributes that name what the element around them holds.</summary>
        private static readonly string[] Naming = { "name", "key", "id", "field", "param", "parameter", "n", "k" };

        private static readonly Regex Joins = new Regex("[-_.\\s]+");
        private static readonly Regex Humps = new Regex("([\\p{Ll}0-9])(\\p{Lu})");

        /// <summary>Whether a name suggests that what it names is a secret.</summary>
        internal static bool IsSecret(string name)
        {
            string small = Joins.Replace(name.ToLowerInvariant(), "");
            return Words.Any(word => small.Contains(word))
                || Joins.Split(Humps.Replace(name, "$1 $2")).Any(word => Whole.Contains(word.ToLowerInvariant()));
        }

        /// <summary>A message with its secrets blanked: XML, or fields of a form. Of anything else its size.</summary>
        internal static string Blanked(string message)
        {
            string start = message.TrimStart('\ufeff', ' ', '\t', '\r', '\n');
            string found = null;
            if (start.Length == 0)
            {
                return message;
            }
            if (start[0] == '<')
            {
                found = Xml(start);
            }
            else if (start.IndexOf('\n') < 0 && start.IndexOf('=') > 0 && start[0] != '{' && start[0] != '[')
            {
                found = string.Join("&", start.Split('&').Select(pair =>
                {
                    int equals = pair.IndexOf('=');
                    return equals > 0 && IsSecret(pair.Substring(0, equals)) ? pair.Substring(0, equals + 1) + Blank : pair;
                }));
            }
            found = found ?? "(a message of " + message.Length + " characters that cannot be read)";
            return found.Length > Longest ? found.Substring(0, Longest) + "..." : found;
        }

        private static string Xml(string message)
        {
            try
            {
                XmlReaderSettings settings = new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null };
                // Trees of the platform are slow when they are deep.
                using (XmlReader reader = XmlReader.Create(new StringReader(message), settings))
                {
                    while (reader.Read())
                    {
                        if (reader.Depth > XmlLimits.Default.Depth)
                        {
                            return null;
                        }
                    }
                }
                using (XmlReader reader = XmlReader.Create(new StringReader(message), settings))
                {
                    XElement root = XElement.Load(reader, LoadOptions.PreserveWhitespace);
                    foreach (XElement element in root.DescendantsAndSelf().ToList())
                    {
                        BlankIn(element);
                    }
                    return root.ToString(SaveOptions.DisableFormatting);
                }
            }
            catch (XmlException)
            {
                return null;
            }
        }

        private static void BlankIn(XElement element)
        {
            bool named = element.Attributes().Any(attribute =>
                Naming.Contains(attribute.Name.LocalName.ToLowerInvariant()) && IsSecret(attribute.Value));
            bool secret = IsSecret(element.Name.LocalName) || Blocks.Contains(element.Name.LocalName);
            foreach (XAttribute attribute in element.Attributes().Where(one => !one.IsNamespaceDeclaration).ToList())
            {
                bool names = Naming.Contains(attribute.Name.LocalName.ToLowerInvariant()) && IsSecret(attribute.Value);
                if (!names && (secret || named || IsSecret(attribute.Name.LocalName)))
                {
                    attribute.Value = Blank;
                }
            }
            if ((secret || named) && !element.IsEmpty)
            {
                element.RemoveNodes();
                element.Add(new XText(Blank));
            }
        }
    }
}
