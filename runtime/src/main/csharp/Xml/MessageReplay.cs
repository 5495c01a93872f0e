namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Text;
    using System.Xml;

    /// <summary>
    /// A whole message that is handed out again as by a parser, with elements put off: they are passed over where they stand, and
    /// can be brought later among those beside them.
    /// </summary>
    internal sealed class MessageReplay : MessageReader
    {
        private const int MostNodes = 1000000;
        private static readonly string[] None = new string[0];

        private readonly HashSet<string> putOff;
        private readonly List<Frame> frames = new List<Frame>();
        private MessageEvent current = MessageEvent.EndOfDocument;
        private string text = "";
        private int line;
        private int column;

        /// <summary>Hands out a message from its start.</summary>
        /// <param name="message">the message</param>
        /// <param name="putOff">the keys of the elements to put off</param>
        internal MessageReplay(Message message, HashSet<string> putOff)
        {
            this.putOff = putOff;
            Node document = new Node { Space = "", Local = "", EndLine = message.Line, EndColumn = message.Column };
            document.Content.Add(message.Root);
            this.frames.Add(new Frame { Node = document, Path = "" });
        }

        /// <summary>The document and where it ends.</summary>
        internal sealed class Message
        {
            internal Node Root;
            internal int Line;
            internal int Column;
        }

        /// <summary>An element with what is in it: texts and elements.</summary>
        internal sealed class Node
        {
            internal readonly List<string[]> Attributes = new List<string[]>();
            internal readonly List<object> Content = new List<object>();
            internal string Space;
            internal string Local;
            internal string[] Declarations = None;
            internal Dictionary<string, string> Prefixes = new Dictionary<string, string>();
            internal int Line;
            internal int Column;
            internal int EndLine;
            internal int EndColumn;
        }

        private sealed class Run
        {
            internal readonly StringBuilder Characters = new StringBuilder();
            internal int Line;
            internal int Column;
        }

        /// <summary>An element being handed out.</summary>
        private sealed class Frame
        {
            internal readonly List<Node> Later = new List<Node>();
            internal Node Node;
            internal string Path;
            internal int Next;
        }

        /// <summary>Takes a whole message from a parser.</summary>
        internal static Message Keep(MessageReader reader, XmlLimits limits)
        {
            List<Node> open = new List<Node>();
            Node root = null;
            int nodes = 0;
            try
            {
                while (true)
                {
                    Node around = open.Count == 0 ? null : open[open.Count - 1];
                    switch (reader.Next())
                    {
                        case MessageEvent.Start:
                            if (++nodes > MostNodes || open.Count >= limits.Depth)
                            {
                                throw new XmlFormatException(
                                    "the message is too large to be read leniently", reader.Line, reader.Column, "", null);
                            }
                            Node node = ElementOf(reader, around);
                            root = root ?? node;
                            if (around != null)
                            {
                                around.Content.Add(node);
                            }
                            open.Add(node);
                            break;
                        case MessageEvent.End:
                            around.EndLine = reader.Line;
                            around.EndColumn = reader.Column;
                            open.RemoveAt(open.Count - 1);
                            break;
                        case MessageEvent.Text:
                            if (around != null)
                            {
                                AddText(around, reader);
                            }
                            break;
                        default:
                            return new Message { Root = root, Line = reader.Line, Column = reader.Column };
                    }
                }
            }
            catch (XmlException e)
            {
                throw new XmlFormatException(e.Message, Math.Max(1, e.LineNumber), Math.Max(1, e.LinePosition), "", e);
            }
        }

        private static Node ElementOf(MessageReader reader, Node around)
        {
            Node node = new Node
            {
                Space = reader.NamespaceUri,
                Local = reader.LocalName,
                Line = reader.Line,
                Column = reader.Column,
                Declarations = reader.Declarations,
                Prefixes = around == null ? new Dictionary<string, string>() : around.Prefixes
            };
            for (int i = 0; i < reader.AttributeCount; i++)
            {
                node.Attributes.Add(new[] { reader.AttributeNamespace(i), reader.AttributeName(i), reader.AttributeValue(i) });
            }
            if (node.Declarations.Length > 0)
            {
                node.Prefixes = new Dictionary<string, string>(node.Prefixes);
                for (int i = 0; i < node.Declarations.Length; i += 2)
                {
                    node.Prefixes[node.Declarations[i]] = node.Declarations[i + 1];
                }
            }
            return node;
        }

        private static void AddText(Node to, MessageReader reader)
        {
            Run run = to.Content.Count == 0 ? null : to.Content[to.Content.Count - 1] as Run;
            if (run == null)
            {
                run = new Run { Line = reader.Line, Column = reader.Column };
                to.Content.Add(run);
            }
            run.Characters.Append(reader.Text);
        }

        private Frame Top
        {
            get { return this.frames[this.frames.Count - 1]; }
        }

        private static string KeyOf(Frame around, Node node)
        {
            return around.Path + " {" + node.Space + "}" + node.Local;
        }

        /// <summary>Names the element that is presented, by its own name and those of the elements around it.</summary>
        internal string Key
        {
            get { return KeyOf(this.frames[this.frames.Count - 2], this.Top.Node); }
        }

        /// <summary>The element around; what is presented but not entered is none.</summary>
        private Frame Around
        {
            get { return this.current == MessageEvent.Start ? this.frames[this.frames.Count - 2] : this.Top; }
        }

        /// <summary>Whether an element of this local name is presented or comes after it beside it.</summary>
        internal bool IsToCome(string name)
        {
            Frame around = this.Around;
            for (int i = Math.Max(0, around.Next - 1); i < around.Node.Content.Count; i++)
            {
                Node node = around.Node.Content[i] as Node;
                if (node != null && node.Local == name && !this.putOff.Contains(KeyOf(around, node)))
                {
                    return true;
                }
            }
            return false;
        }

        /// <summary>Presents an element that was put off instead of what is presented now, which comes after it then.</summary>
        internal string Bring(string space, string name)
        {
            Frame around = this.Around;
            Node found = around.Later.Find(node => node.Local == name && node.Space == space)
                ?? around.Later.Find(node => node.Local == name);
            if (found == null)
            {
                return null;
            }
            around.Later.Remove(found);
            if (this.current == MessageEvent.Start)
            {
                this.frames.RemoveAt(this.frames.Count - 1);
                around.Next--;
            }
            this.Present(around, found);
            return found.Space;
        }

        /// <summary>What was put off in the element at whose end the replay stands, and was never brought.</summary>
        internal List<XmlFormatException> LeftOver(string path)
        {
            return this.Top.Later.ConvertAll(node => new XmlFormatException(
                "<" + node.Local + ">" + (node.Space.Length == 0 ? "" : " of namespace " + node.Space) + " is not expected here",
                node.Line,
                node.Column,
                path + "/" + node.Local,
                null));
        }

        private void Present(Frame around, Node node)
        {
            this.frames.Add(new Frame { Node = node, Path = around.Path + "/" + node.Local });
            this.line = node.Line;
            this.column = node.Column;
            this.current = MessageEvent.Start;
        }

        internal override MessageEvent Next()
        {
            if (this.current == MessageEvent.End)
            {
                this.frames.RemoveAt(this.frames.Count - 1);
            }
            Frame top = this.Top;
            while (top.Next < top.Node.Content.Count)
            {
                object item = top.Node.Content[top.Next++];
                Run run = item as Run;
                if (run != null)
                {
                    this.text = run.Characters.ToString();
                    this.line = run.Line;
                    this.column = run.Column;
                    this.current = MessageEvent.Text;
                    return this.current;
                }
                Node node = (Node)item;
                if (!this.putOff.Contains(KeyOf(top, node)))
                {
                    this.Present(top, node);
                    return this.current;
                }
                top.Later.Add(node);
            }
            this.line = top.Node.EndLine;
            this.column = top.Node.EndColumn;
            this.current = this.frames.Count == 1 ? MessageEvent.EndOfDocument : MessageEvent.End;
            return this.current;
        }

        internal override MessageEvent Event
        {
            get { return this.current; }
        }

        internal override string LocalName
        {
            get { return this.Top.Node.Local; }
        }

        internal override string NamespaceUri
        {
            get { return this.Top.Node.Space; }
        }

        internal override string Text
        {
            get { return this.text; }
        }

        internal override int AttributeCount
        {
            get { return this.Top.Node.Attributes.Count; }
        }

        internal override string AttributeNamespace(int index)
        {
            return this.Top.Node.Attributes[index][0];
        }

        internal override string AttributeName(int index)
        {
            return this.Top.Node.Attributes[index][1];
        }

        internal override string AttributeValue(int index)
        {
            return this.Top.Node.Attributes[index][2];
        }

        internal override string[] Declarations
        {
            get { return this.Top.Node.Declarations; }
        }

        internal override string Lookup(string prefix)
        {
            string uri;
            return this.Top.Node.Prefixes.TryGetValue(prefix, out uri) ? uri : prefix == "xml" ? XmlNames.Xml : null;
        }

        internal override int Line
        {
            get { return this.line; }
        }

        internal override int Column
        {
            get { return this.column; }
        }
    }
}
