namespace Protypos.Runtime
{
    using System.Collections.Generic;
    using System.Runtime.CompilerServices;

    /// <summary>
    /// The values of a message in the SOAP encoding that stand in several places: they are written once and referred to (SOAP
    /// 1.1, section 5.4.1), and are one value again for whoever reads the message.
    /// </summary>
    internal sealed class SharedValues
    {
        private readonly Dictionary<XmlObject, string> met = new Dictionary<XmlObject, string>(new ByIdentity());
        private readonly Dictionary<string, XmlObject> read = new Dictionary<string, XmlObject>();

        internal SharedValues()
        {
            this.All = new List<XmlObject>();
        }

        /// <summary>The values that stand in several places.</summary>
        internal List<XmlObject> All { get; private set; }

        /// <summary>Notes that a value is about to be written, and tells whether it was before.</summary>
        internal bool Meet(XmlObject value)
        {
            string id;
            if (!this.met.TryGetValue(value, out id))
            {
                this.met[value] = null;
                return false;
            }
            if (id == null)
            {
                this.All.Add(value);
                this.met[value] = "v" + this.All.Count;
            }
            return true;
        }

        /// <summary>The identifier of a value that stands in several places, or null.</summary>
        internal string Id(XmlObject value)
        {
            string id;
            return this.met.TryGetValue(value, out id) ? id : null;
        }

        /// <summary>The value that was read under an identifier, or null when none was.</summary>
        internal XmlObject Known(string id)
        {
            XmlObject value;
            return this.read.TryGetValue(id, out value) ? value : null;
        }

        /// <summary>Keeps a value that was read under an identifier.</summary>
        internal void Keep(string id, XmlObject value)
        {
            this.read[id] = value;
        }

        private sealed class ByIdentity : IEqualityComparer<XmlObject>
        {
            public bool Equals(XmlObject a, XmlObject b)
            {
                return ReferenceEquals(a, b);
            }

            public int GetHashCode(XmlObject value)
            {
                return RuntimeHelpers.GetHashCode(value);
            }
        }
    }
}
