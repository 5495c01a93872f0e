namespace Protypos.Runtime
{
    using System;
    using System.Collections;
    using System.Collections.Generic;

    /// <summary>Collects where a value and all in it are not what the contract says.</summary>
    public sealed class XmlCheck
    {
        private const int MostDepth = 400;

        private readonly List<Violation> found = new List<Violation>();

        /// <summary>A restriction looks again at what its base has looked at: what both find is told once.</summary>
        private readonly HashSet<string> told = new HashSet<string>();

        private readonly Stack<int> choices = new Stack<int>();
        private string path = "";
        private int depth;

        internal XmlCheck()
        {
        }

        internal IReadOnlyList<Violation> Of(XmlObject value)
        {
            this.Inside(value);
            return this.found;
        }

        private void Add(string member, string message)
        {
            Violation violation = new Violation(this.path + member, message);
            if (this.told.Add(violation.ToString()))
            {
                this.found.Add(violation);
            }
        }

        private void Inside(XmlObject value)
        {
            if (value.IsXmlNil)
            {
                return;
            }
            if (this.depth > MostDepth)
            {
                this.Add("", "values are nested deeper than " + MostDepth + " levels");
                return;
            }
            this.depth++;
            value.DoCheckXml(this);
            this.depth--;
        }

        /// <summary>Checks a member that must be there.</summary>
        public void Required(string member, object value)
        {
            if (value == null)
            {
                this.Add(member, "is missing");
            }
            else
            {
                this.Member(member, value);
            }
        }

        /// <summary>Checks that a member is not there.</summary>
        public void Absent(string member, object value)
        {
            if (value != null)
            {
                this.Add(member, "may not be there");
            }
        }

        /// <summary>Checks what is in a member, if it is there.</summary>
        public void Member(string member, object value)
        {
            XmlObject inner = value as XmlObject ?? (value is IXmlElement ? ((IXmlElement)value).Content : null);
            IList list = value as IList;
            if (inner != null)
            {
                string around = this.path;
                this.path = this.path + member + ".";
                this.Inside(inner);
                this.path = around;
            }
            else if (list != null && !(value is byte[]))
            {
                for (int i = 0; i < list.Count; i++)
                {
                    this.Member(member + "[" + i + "]", list[i]);
                }
            }
        }

        /// <summary>Checks how many values a member has.</summary>
        public void Count(string member, ICollection values, int least, int most)
        {
            int size = values == null ? 0 : values.Count;
            if (size < least)
            {
                this.Add(member, size == 0 ? "is missing" : "is there " + size + " times, not at least " + least);
            }
            else if (size > most)
            {
                this.Add(member, "is there " + size + " times, not at most " + most);
            }
        }

        /// <summary>Checks a value of a simple type, given as it is written; null for none.</summary>
        public void Value(string member, string text, ValueRule rule)
        {
            string complaint = text == null ? null : rule.Complaint(text);
            if (complaint != null)
            {
                this.Add(member, complaint);
            }
        }

        /// <summary>Checks each value of a member.</summary>
        public void Values<T>(string member, IList<T> values, Func<T, string> printer, ValueRule rule)
        {
            this.Values(member, values, (value, place) => printer(value), rule);
        }

        /// <summary>Checks each value of a list of which the place, from 0, says how it is written.</summary>
        public void Values<T>(string member, IList<T> values, Func<T, int, string> printer, ValueRule rule)
        {
            for (int i = 0; values != null && i < values.Count; i++)
            {
                if (values[i] != null)
                {
                    this.Value(member + "[" + i + "]", printer(values[i], i), rule);
                }
            }
        }

        /// <summary>Begins a choice.</summary>
        public void Choose()
        {
            this.choices.Push(0);
        }

        /// <summary>Notes whether a branch of the choice begun last is taken, and gives that back.</summary>
        public bool Branch(bool taken)
        {
            this.choices.Push(this.choices.Pop() + (taken ? 1 : 0));
            return taken;
        }

        /// <summary>Ends the choice begun last.</summary>
        /// <param name="names">the branches, for the message</param>
        /// <param name="required">whether one of them must be taken</param>
        public void Chosen(string names, bool required)
        {
            int taken = this.choices.Pop();
            if (taken > 1)
            {
                this.Add("", "only one of " + names + " may be there, not " + taken);
            }
            else if (taken == 0 && required)
            {
                this.Add("", "one of " + names + " is missing");
            }
        }
    }
}
