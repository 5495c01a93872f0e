namespace Protypos.Runtime
{
    using System;
    using System.Collections;
    using System.Collections.Generic;
    using System.Globalization;
    using System.Text;
    using System.Xml.Linq;

    /// <summary>What generated types do with their members alike.</summary>
    public static class Members
    {
        /// <summary>Whether a list has anything in it.</summary>
        public static bool IsThere(ICollection values)
        {
            return values != null && values.Count > 0;
        }

        /// <summary>
        /// Whether two members are equal: lists when their items are, also arrays of bytes, and XML when its content is. A list
        /// that nobody has asked for yet is as good as an empty one.
        /// </summary>
        public static bool AreEqual(object a, object b)
        {
            if (IsEmpty(a) || IsEmpty(b))
            {
                return IsEmpty(a) && IsEmpty(b);
            }
            IDictionary map = a as IDictionary;
            if (map != null)
            {
                IDictionary other = b as IDictionary;
                bool same = other != null && other.Count == map.Count;
                foreach (object key in map.Keys)
                {
                    same = same && other.Contains(key) && AreEqual(map[key], other[key]);
                }
                return same;
            }
            IList left = a as IList;
            IList right = b as IList;
            if (left != null && right != null)
            {
                bool same = left.Count == right.Count;
                for (int i = 0; same && i < left.Count; i++)
                {
                    same = AreEqual(left[i], right[i]);
                }
                return same;
            }
            XNode node = a as XNode;
            return node != null ? XmlTrees.AreEqual(node, b as XNode) : a.Equals(b);
        }

        private static bool IsEmpty(object value)
        {
            ICollection many = value as ICollection;
            return value == null || (many != null && !(value is byte[]) && many.Count == 0);
        }

        /// <summary>The hash code of a member, in line with <see cref="AreEqual"/>.</summary>
        public static int Hash(object value)
        {
            if (IsEmpty(value))
            {
                return 0;
            }
            IDictionary map = value as IDictionary;
            if (map != null)
            {
                return map.Count;
            }
            IList list = value as IList;
            if (list != null)
            {
                int hash = 0;
                foreach (object item in list)
                {
                    hash = unchecked(31 * hash + Hash(item));
                }
                return hash;
            }
            XNode node = value as XNode;
            return node != null ? XmlTrees.Hash(node) : value.GetHashCode();
        }
    }

    /// <summary>Collects the members of a value for its <c>ToString()</c>: names and values, absent ones left out.</summary>
    public sealed class XmlDescription
    {
        private const int ShownBytes = 8;
        private readonly StringBuilder text = new StringBuilder();

        /// <summary>Begins with the name of the type.</summary>
        public XmlDescription(string typeName)
        {
            this.text.Append(typeName).Append(" {");
        }

        /// <summary>How many members there are, absent ones among them.</summary>
        internal int Count { get; private set; }

        /// <summary>Adds a member unless it is absent.</summary>
        public void Add(string name, object value)
        {
            ICollection many = value as ICollection;
            bool first = this.Count++ == 0 || this.text[this.text.Length - 1] == '{';
            if (value == null || (many != null && many.Count == 0 && !(value is byte[])))
            {
                return;
            }
            this.text.Append(first ? " " : ", ").Append(name).Append(" = ");
            this.Append(value);
        }

        private void Append(object value)
        {
            byte[] bytes = value as byte[];
            IList list = value as IList;
            if (bytes != null)
            {
                this.text.Append(bytes.Length).Append(" bytes");
                for (int i = 0; i < bytes.Length && i < ShownBytes; i++)
                {
                    this.text.Append(i == 0 ? " " : "").Append(bytes[i].ToString("x2", CultureInfo.InvariantCulture));
                }
            }
            else if (list != null)
            {
                this.text.Append('[');
                for (int i = 0; i < list.Count; i++)
                {
                    this.text.Append(i == 0 ? "" : ", ");
                    if (list[i] != null)
                    {
                        this.Append(list[i]);
                    }
                }
                this.text.Append(']');
            }
            else if (value is XNode)
            {
                XmlTrees.Show((XNode)value, this.text);
            }
            else if (value is IDictionary)
            {
                this.text.Append(((IDictionary)value).Count).Append(" entries");
            }
            else
            {
                this.text.Append(Convert.ToString(value, CultureInfo.InvariantCulture));
            }
        }

        /// <summary>All of it.</summary>
        public string Finish()
        {
            return this.text.Append(" }").ToString();
        }
    }
}
