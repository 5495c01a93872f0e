namespace Protypos.Runtime
{
    using System;
    using System.Numerics;

    /// <summary>What text of the built-in simple types looks like (XML Schema Part 2, section 3).</summary>
    internal static class BuiltinText
    {
        private static readonly PatternAutomaton Name = PatternAutomaton.Of(new[] { "\\i\\c*" });
        private static readonly PatternAutomaton NameToken = PatternAutomaton.Of(new[] { "\\c+" });
        private static readonly PatternAutomaton Language = PatternAutomaton.Of(new[] { "[a-zA-Z]{1,8}(-[a-zA-Z0-9]{1,8})*" });

        /// <summary>How a type treats white space (section 4.3.6).</summary>
        internal static string WhiteSpace(string builtin)
        {
            switch (builtin)
            {
                case "string":
                case "anySimpleType":
                    return "preserve";
                case "normalizedString":
                    return "replace";
                default:
                    return "collapse";
            }
        }

        /// <summary>The built-in type that a built-in list type lists, or null.</summary>
        internal static string Item(string builtin)
        {
            switch (builtin)
            {
                case "NMTOKENS":
                    return "NMTOKEN";
                case "IDREFS":
                    return "IDREF";
                case "ENTITIES":
                    return "ENTITY";
                default:
                    return null;
            }
        }

        /// <summary>The primitive type that a built-in type is derived from.</summary>
        internal static string Primitive(string builtin)
        {
            switch (builtin)
            {
                case "byte":
                case "short":
                case "int":
                case "long":
                case "unsignedByte":
                case "unsignedShort":
                case "unsignedInt":
                case "unsignedLong":
                case "integer":
                case "nonNegativeInteger":
                case "positiveInteger":
                case "nonPositiveInteger":
                case "negativeInteger":
                    return "decimal";
                case "normalizedString":
                case "token":
                case "language":
                case "Name":
                case "NCName":
                case "NMTOKEN":
                case "ID":
                case "IDREF":
                case "ENTITY":
                    return "string";
                default:
                    return builtin;
            }
        }

        /// <summary>Whether text, its white space already treated, is of a type.</summary>
        internal static bool Accepts(string builtin, string text)
        {
            try
            {
                switch (builtin)
                {
                    case "nonNegativeInteger":
                        return Lexical.ParseInteger(text).Sign >= 0;
                    case "positiveInteger":
                        return Lexical.ParseInteger(text).Sign > 0;
                    case "nonPositiveInteger":
                        return Lexical.ParseInteger(text).Sign <= 0;
                    case "negativeInteger":
                        return Lexical.ParseInteger(text).Sign < 0;
                    case "Name":
                        return Name.Matches(text);
                    case "NCName":
                    case "ID":
                    case "IDREF":
                    case "ENTITY":
                        return IsNCName(text);
                    case "NMTOKEN":
                        return NameToken.Matches(text);
                    case "language":
                        return Language.Matches(text);
                    case "QName":
                    case "NOTATION":
                        int colon = text.IndexOf(':');
                        return IsNCName(text.Substring(colon + 1)) && (colon < 0 || IsNCName(text.Substring(0, colon)));
                    case "NMTOKENS":
                    case "IDREFS":
                    case "ENTITIES":
                        return text.Length > 0 && Array.TrueForAll(Lexical.Items(text), one => Accepts(Item(builtin), one));
                    default:
                        Lexical.Parse(builtin, text);
                        return true;
                }
            }
            catch (FormatException)
            {
                return false;
            }
        }

        private static bool IsNCName(string text)
        {
            return text.IndexOf(':') < 0 && Name.Matches(text);
        }
    }
}
