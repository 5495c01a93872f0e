namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;

    /// <summary>The parts that came beside a message, to be handed to the message parts that the contract binds to them.</summary>
    public sealed class AttachedParts
    {
        private readonly List<MimePackage.Part> left;
        private readonly XmlReading reading;

        private AttachedParts(List<MimePackage.Part> parts, XmlReading reading)
        {
            this.left = parts;
            this.reading = reading;
        }

        /// <summary>Hands a message its only content.</summary>
        internal static void ReadOnly(Attachment content, SoapMessage into)
        {
            MimePackage.Part only = new MimePackage.Part { Id = "", Content = content };
            into.ReadAttachments(new AttachedParts(
                new List<MimePackage.Part> { only }, new XmlReading(XmlLimits.Default, null)));
        }

        internal static void Read(MimePackage parts, SoapMessage into, XmlReading reading)
        {
            into.ReadAttachments(new AttachedParts(
                parts == null ? new List<MimePackage.Part>() : parts.Attached, reading));
        }

        /// <summary>
        /// Takes the attachment of a message part: the one whose identifier names it (WS-I Attachments Profile 1.0, section 3.8), or
        /// else the next one that names none, for many senders go by the order alone. Null when none came and a lenient reading
        /// passes that over.
        /// </summary>
        /// <exception cref="XmlFormatException">None came: a message has all its parts (WSDL 1.1, section 2.3.1).</exception>
        public Attachment Take(string part)
        {
            string named = OutgoingPackage.Escaped(part) + "=";
            MimePackage.Part found =
                this.left.Find(one => one.Id.StartsWith(named, StringComparison.Ordinal) || one.Id == part)
                ?? this.left.Find(one => one.Id.IndexOf('=') < 0);
            if (found != null)
            {
                this.left.Remove(found);
                return found.Content;
            }
            XmlFormatException missing = new XmlFormatException(
                "the part " + part + ", which travels beside the message, is missing");
            if (this.reading.PassesOver(missing))
            {
                return null;
            }
            throw missing;
        }
    }
}
