namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;

    /// <summary>
    /// Matches texts against a pattern in a time that grows with the text and not with its ways through the pattern: all ways
    /// are gone at once.
    /// </summary>
    internal sealed class PatternAutomaton
    {
        /// <summary>An automaton of more states than that is not made.</summary>
        internal const int MostStates = 120000;

        private const long MostSteps = 100000000;
        private const int ForkState = -1;
        private const int EndState = -2;

        private readonly List<CharacterSet> sets = new List<CharacterSet>();
        private readonly Dictionary<string, int> known = new Dictionary<string, int>(StringComparer.Ordinal);
        private readonly List<int> kinds = new List<int>();
        private readonly List<int> next = new List<int>();
        private readonly List<int> other = new List<int>();
        private int start;

        private PatternAutomaton()
        {
        }

        /// <summary>A pattern has more states than are made.</summary>
        internal sealed class TooLargeException : Exception
        {
        }

        /// <summary>The automaton of some patterns, of which a text has to match one; null when it would be too large.</summary>
        internal static PatternAutomaton Of(string[] patterns)
        {
            PatternAutomaton automaton = new PatternAutomaton();
            int end = automaton.State(EndState, 0, 0);
            try
            {
                automaton.start = -1;
                foreach (string pattern in patterns)
                {
                    int begin = new PatternReader(pattern, automaton).Read(end);
                    automaton.start = automaton.start < 0 ? begin : automaton.Fork(automaton.start, begin);
                }
                return automaton;
            }
            catch (TooLargeException)
            {
                return null;
            }
        }

        private int State(int kind, int first, int second)
        {
            if (this.kinds.Count == MostStates)
            {
                throw new TooLargeException();
            }
            this.kinds.Add(kind);
            this.next.Add(first);
            this.other.Add(second);
            return this.kinds.Count - 1;
        }

        /// <summary>A state that goes on in two places.</summary>
        internal int Fork(int first, int second)
        {
            return this.State(ForkState, first, second);
        }

        /// <summary>Leads a state to another place.</summary>
        internal void Lead(int state, int to)
        {
            this.next[state] = to;
        }

        /// <summary>A state that takes a character of a set.</summary>
        internal int Taking(string text, Func<CharacterSet> set, int after)
        {
            int number;
            if (!this.known.TryGetValue(text, out number))
            {
                number = this.sets.Count;
                this.sets.Add(set());
                this.known[text] = number;
            }
            return this.State(number, after, after);
        }

        /// <summary>Whether the whole of a text matches; what cannot be told within reason is not held against it.</summary>
        internal bool Matches(string text)
        {
            States now = new States(this.kinds.Count);
            States then = new States(this.kinds.Count);
            Stack<int> open = new Stack<int>();
            long steps = this.Enter(this.start, now, open);
            for (int i = 0; i < text.Length;)
            {
                bool pair = char.IsHighSurrogate(text[i]) && i + 1 < text.Length && char.IsLowSurrogate(text[i + 1]);
                int codePoint = pair ? char.ConvertToUtf32(text[i], text[i + 1]) : text[i];
                then.Count = 0;
                for (int j = 0; j < now.Count; j++)
                {
                    int state = now.List[j];
                    if (this.kinds[state] >= 0 && this.sets[this.kinds[state]].Has(text, i, codePoint))
                    {
                        steps += this.Enter(this.next[state], then, open);
                    }
                }
                i += pair ? 2 : 1;
                steps += now.Count;
                if (then.Count == 0)
                {
                    return false;
                }
                if (steps > MostSteps)
                {
                    return true;
                }
                States before = now;
                now = then;
                then = before;
            }
            for (int j = 0; j < now.Count; j++)
            {
                if (this.kinds[now.List[j]] == EndState)
                {
                    return true;
                }
            }
            return false;
        }

        /// <summary>Adds a state and all that it leads to without a character.</summary>
        private int Enter(int first, States to, Stack<int> open)
        {
            int before = to.Count;
            open.Push(first);
            while (open.Count > 0)
            {
                int state = open.Pop();
                if (to.Add(state) && this.kinds[state] == ForkState)
                {
                    open.Push(this.other[state]);
                    open.Push(this.next[state]);
                }
            }
            return to.Count - before + 1;
        }

        /// <summary>A set of states that is emptied at once.</summary>
        private sealed class States
        {
            internal readonly int[] List;
            internal int Count;
            private readonly int[] places;

            internal States(int size)
            {
                this.List = new int[size];
                this.places = new int[size];
            }

            internal bool Add(int state)
            {
                int place = this.places[state];
                if (place < this.Count && this.List[place] == state)
                {
                    return false;
                }
                this.places[state] = this.Count;
                this.List[this.Count++] = state;
                return true;
            }
        }
    }
}
