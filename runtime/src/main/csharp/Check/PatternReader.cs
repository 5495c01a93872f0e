namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Globalization;

    /// <summary>
    /// Reads the pattern language of XML Schema (Part 2, appendix F) and makes an automaton of it. Blocks of characters have
    /// been written out as ranges before.
    /// </summary>
    internal sealed class PatternReader
    {
        private readonly string pattern;
        private readonly PatternAutomaton automaton;
        private int at;
        private int atoms;

        internal PatternReader(string pattern, PatternAutomaton automaton)
        {
            this.pattern = pattern;
            this.automaton = automaton;
        }

        /// <summary>Adds the states for the whole pattern; gives where they begin.</summary>
        internal int Read(int end)
        {
            int start = this.Branches(end);
            if (this.at < this.pattern.Length)
            {
                throw this.Wrong();
            }
            return start;
        }

        private FormatException Wrong()
        {
            return new FormatException("not understood from character " + (this.at + 1) + ": " + this.pattern);
        }

        private bool Comes(char c)
        {
            return this.at < this.pattern.Length && this.pattern[this.at] == c;
        }

        private int Branches(int after)
        {
            int start = this.Pieces(after);
            while (this.Comes('|'))
            {
                this.at++;
                start = this.automaton.Fork(start, this.Pieces(after));
            }
            return start;
        }

        /// <summary>What follows a state must be there before the state, so pieces are built from the last to the first.</summary>
        private int Pieces(int after)
        {
            List<int[]> pieces = new List<int[]>();
            while (this.at < this.pattern.Length && !this.Comes('|') && !this.Comes(')'))
            {
                int from = this.at;
                this.PassAtom();
                int least = 1;
                int most = 1;
                this.Quantifier(ref least, ref most);
                pieces.Add(new[] { from, least, most });
            }
            int end = this.at;
            int start = after;
            for (int i = pieces.Count - 1; i >= 0; i--)
            {
                start = this.Piece(pieces[i][0], pieces[i][1], pieces[i][2], start);
            }
            this.at = end;
            return start;
        }

        private int Piece(int place, int least, int most, int after)
        {
            int start = after;
            if (most == int.MaxValue)
            {
                int loop = this.automaton.Fork(after, after);
                this.automaton.Lead(loop, this.Atom(place, loop));
                start = loop;
            }
            else
            {
                for (int i = least; i < most; i++)
                {
                    start = this.automaton.Fork(this.Atom(place, start), after);
                }
            }
            for (int i = 0; i < least; i++)
            {
                start = this.Atom(place, start);
            }
            return start;
        }

        private int Atom(int place, int after)
        {
            // What takes no character makes no state, however often it is repeated.
            if (++this.atoms > 2 * PatternAutomaton.MostStates)
            {
                throw new PatternAutomaton.TooLargeException();
            }
            this.at = place;
            if (this.Comes('('))
            {
                this.at++;
                return this.Branches(after);
            }
            int from = this.at;
            this.PassAtom();
            string text = this.pattern.Substring(from, this.at - from);
            return this.automaton.Taking(text, () => new SetReader(text).Read(), after);
        }

        private void PassAtom()
        {
            int open = 0;
            do
            {
                char c = this.pattern[this.at];
                if (c == '[')
                {
                    this.PassClass();
                    continue;
                }
                open += c == '(' ? 1 : c == ')' ? -1 : 0;
                this.PassCharacter();
            }
            while (open > 0 && this.at < this.pattern.Length);
            if (open > 0)
            {
                throw this.Wrong();
            }
        }

        private void PassClass()
        {
            int open = 0;
            do
            {
                char c = this.pattern[this.at];
                open += c == '[' ? 1 : c == ']' ? -1 : 0;
                this.PassCharacter();
            }
            while (open > 0 && this.at < this.pattern.Length);
        }

        /// <summary>Passes over a character, or an escape with what belongs to it.</summary>
        private void PassCharacter()
        {
            if (!this.Comes('\\'))
            {
                this.at += char.IsHighSurrogate(this.pattern, this.at) ? 2 : 1;
                return;
            }
            bool property = this.at + 2 < this.pattern.Length
                && (this.pattern[this.at + 1] == 'p' || this.pattern[this.at + 1] == 'P')
                && this.pattern[this.at + 2] == '{';
            this.at = property ? this.pattern.IndexOf('}', this.at) + 1 : this.at + 2;
        }

        private void Quantifier(ref int least, ref int most)
        {
            if (this.Comes('?'))
            {
                least = 0;
                this.at++;
            }
            else if (this.Comes('*') || this.Comes('+'))
            {
                least = this.Comes('+') ? 1 : 0;
                most = int.MaxValue;
                this.at++;
            }
            else if (this.Comes('{'))
            {
                int end = this.pattern.IndexOf('}', this.at);
                string[] counts = this.pattern.Substring(this.at + 1, end - this.at - 1).Split(',');
                least = Count(counts[0], 0);
                most = counts.Length == 1 ? least : Count(counts[1], int.MaxValue);
                this.at = end + 1;
            }
        }

        private static int Count(string digits, int otherwise)
        {
            return digits.Length == 0 ? otherwise : int.Parse(digits, CultureInfo.InvariantCulture);
        }
    }

    /// <summary>Reads one set of characters of a pattern.</summary>
    internal sealed class SetReader
    {
        private static readonly CharacterSet Space = CharacterSet.Of(
            false, One(' '), One('\t'), One('\n'), One('\r'));

        private static readonly CharacterSet Word = CharacterSet.Of(true, new CharacterSet.Category("P", "Z", "C"));

        private static readonly CharacterSet NameStart = CharacterSet.Of(
            false, new CharacterSet.Category("L", "Nl"), One('_'), One(':'));

        private static readonly CharacterSet NameRest = CharacterSet.Of(
            false, NameStart, new CharacterSet.Category("M", "Nd"), One('.'), One('-'), One(0xb7), One(0x387), One(0x203f), One(0x2040));

        private readonly string text;
        private int at;

        internal SetReader(string text)
        {
            this.text = text;
        }

        internal CharacterSet Read()
        {
            char c = this.text[0];
            if (c == '.')
            {
                return CharacterSet.Of(true, One('\n'), One('\r'));
            }
            if (c == '[')
            {
                return this.Class();
            }
            return this.Member();
        }

        private static CharacterSet One(int codePoint)
        {
            return new CharacterSet.Range(codePoint, codePoint);
        }

        private CharacterSet Class()
        {
            this.at++;
            bool negated = this.text[this.at] == '^';
            this.at += negated ? 1 : 0;
            List<CharacterSet> sets = new List<CharacterSet>();
            CharacterSet without = null;
            int start = this.at;
            while (this.text[this.at] != ']' || this.at == start)
            {
                if (this.text[this.at] == '-' && this.text[this.at + 1] == '[')
                {
                    this.at++;
                    without = this.Class();
                }
                else
                {
                    sets.Add(this.Member());
                }
            }
            this.at++;
            return new CharacterSet.Union(negated, without, sets);
        }

        private CharacterSet Member()
        {
            if (this.text[this.at] == '\\' && "sSdDwWiIcCpP".IndexOf(this.text[this.at + 1]) >= 0)
            {
                this.at += 2;
                return this.Escape(this.text[this.at - 1]);
            }
            int from = this.Single();
            bool range = this.at + 1 < this.text.Length
                && this.text[this.at] == '-'
                && this.text[this.at + 1] != ']'
                && this.text[this.at + 1] != '[';
            if (!range)
            {
                return One(from);
            }
            this.at++;
            return new CharacterSet.Range(from, this.Single());
        }

        private int Single()
        {
            if (this.text[this.at] == '\\')
            {
                this.at += 2;
                switch (this.text[this.at - 1])
                {
                    case 'n':
                        return '\n';
                    case 'r':
                        return '\r';
                    case 't':
                        return '\t';
                    default:
                        return this.text[this.at - 1];
                }
            }
            int codePoint = char.ConvertToUtf32(this.text, this.at);
            this.at += codePoint > char.MaxValue ? 2 : 1;
            return codePoint;
        }

        private CharacterSet Escape(char kind)
        {
            switch (kind)
            {
                case 's':
                    return Space;
                case 'S':
                    return CharacterSet.Of(true, Space);
                case 'd':
                    return new CharacterSet.Category("Nd");
                case 'D':
                    return CharacterSet.Of(true, new CharacterSet.Category("Nd"));
                case 'w':
                    return Word;
                case 'W':
                    return CharacterSet.Of(true, Word);
                case 'i':
                    return NameStart;
                case 'I':
                    return CharacterSet.Of(true, NameStart);
                case 'c':
                    return NameRest;
                case 'C':
                    return CharacterSet.Of(true, NameRest);
                default:
                    int end = this.text.IndexOf('}', this.at);
                    string name = this.text.Substring(this.at + 1, end - this.at - 1);
                    this.at = end + 1;
                    CharacterSet category = new CharacterSet.Category(name);
                    return kind == 'p' ? category : CharacterSet.Of(true, category);
            }
        }
    }
}
