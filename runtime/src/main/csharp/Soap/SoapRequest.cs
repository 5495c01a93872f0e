namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Globalization;
    using System.IO;
    using System.Linq;
    using System.Text;
    using System.Text.RegularExpressions;
    using System.Threading;
    using System.Threading.Tasks;

    /// <summary>A request as an endpoint sees it, whatever host took it.</summary>
    public sealed class SoapRequest
    {
        private static readonly Regex Escape = new Regex("%([0-9A-Fa-f]{2})?");
        private static readonly Regex Unreserved = new Regex("^[A-Za-z0-9._~-]$");
        private readonly Func<string, string> header;

        /// <summary>A request.</summary>
        /// <param name="method">the HTTP method</param>
        /// <param name="path">the path beneath that of the endpoint, empty for the endpoint itself</param>
        /// <param name="query">the query as it came, without the question mark; null or empty for none</param>
        /// <param name="header">gives a header field by name, or null; those of one name with a comma between</param>
        /// <param name="body">the body, not read yet</param>
        /// <param name="addresses">
        /// gives the address at which an endpoint is served, as the caller knows it: that of this one for an empty name, that of
        /// another by the name under which documents speak of its ports, and null for one that is not served here
        /// </param>
        public SoapRequest(
            string method,
            string path,
            string query,
            Func<string, string> header,
            Stream body,
            Func<string, string> addresses)
        {
            this.Method = method;
            this.Path = Normal(path ?? "");
            this.Query = query ?? "";
            this.header = header;
            this.Body = body;
            this.Addresses = addresses;
        }

        /// <summary>The HTTP method.</summary>
        public string Method { get; private set; }

        /// <summary>The path beneath that of the endpoint, empty for the endpoint itself.</summary>
        public string Path { get; private set; }

        /// <summary>The query as it came, empty for none.</summary>
        public string Query { get; private set; }

        /// <summary>
        /// The one form of a path, or a query, that callers write in several (RFC 3986, section 6.2.2; RFC 3987, section 3.1).
        /// </summary>
        internal static string Normal(string path)
        {
            if (path.All(c => c < 0x7F && c != '%' && IsOfUri(c)))
            {
                return path;
            }
            StringBuilder escaped = new StringBuilder();
            foreach (byte one in Encoding.UTF8.GetBytes(path))
            {
                if (one < 0x7F && IsOfUri((char)one))
                {
                    escaped.Append((char)one);
                }
                else
                {
                    escaped.Append('%').Append(one.ToString("X2", CultureInfo.InvariantCulture));
                }
            }
            return Escape.Replace(escaped.ToString(), found =>
            {
                if (found.Length == 1)
                {
                    return "%25";
                }
                string meant = ((char)Convert.ToInt32(found.Value.Substring(1), 16)).ToString();
                return Unreserved.IsMatch(meant) ? meant : found.Value.ToUpperInvariant();
            });
        }

        private static bool IsOfUri(char c)
        {
            return c > ' ' && "\"<>\\^`{|}".IndexOf(c) < 0;
        }

        internal Stream Body { get; private set; }

        internal Func<string, string> Addresses { get; private set; }

        /// <summary>A header field, empty when it is absent.</summary>
        public string Header(string name)
        {
            return this.header(name) ?? "";
        }

        internal MediaType Type
        {
            get { return new MediaType(this.Header("Content-Type")); }
        }

        /// <summary>Reads the body.</summary>
        internal async Task<Incoming> MessageAsync(ContractEndpoint endpoint, CancellationToken cancellationToken)
        {
            MediaType type = this.Type;
            Spool spool = Incoming.SpoolFor(type, endpoint.Limits, endpoint.AttachmentLimit, "the message");
            try
            {
                await this.Body.CopyToAsync(spool, 64 * 1024, cancellationToken).ConfigureAwait(false);
                return Incoming.Of(
                    spool, type, this.Header("Content-Encoding"), endpoint.Limits, endpoint.AttachmentLimit, "the message");
            }
            catch (TooLongException e)
            {
                throw new RequestRefusedException(413, e.Message);
            }
            catch (IOException e)
            {
                throw new RequestRefusedException(400, "the message cannot be unpacked: " + e.Message);
            }
        }
    }

    /// <summary>An answer as an endpoint gives it, whatever host sends it.</summary>
    public sealed class SoapAnswer
    {
        private readonly Func<Stream, Task> write;

        private SoapAnswer(int status, string contentType, long length, Func<Stream, Task> write)
        {
            this.Status = status;
            this.ContentType = contentType;
            this.Length = length;
            this.write = write;
            this.Headers = new Dictionary<string, string>();
        }

        /// <summary>The HTTP status.</summary>
        public int Status { get; private set; }

        /// <summary>The content type.</summary>
        public string ContentType { get; private set; }

        /// <summary>The number of bytes of the body, or -1 when it is not known.</summary>
        public long Length { get; private set; }

        /// <summary>Other header fields.</summary>
        public IDictionary<string, string> Headers { get; private set; }

        /// <summary>Writes all of the body.</summary>
        public Task WriteAsync(Stream output)
        {
            return this.write(output);
        }

        internal static SoapAnswer Of(int status, string contentType, byte[] body)
        {
            return new SoapAnswer(status, contentType, body.Length, output => output.WriteAsync(body, 0, body.Length));
        }

        /// <summary>An answer with parts beside it, if there are any.</summary>
        internal static SoapAnswer Of(int status, string contentType, byte[] message, OutgoingPackage parts)
        {
            return parts.IsEmpty
                ? Of(status, contentType, message)
                : new SoapAnswer(
                    status, parts.ContentType(contentType), -1, output => parts.WriteAsync(message, contentType, output));
        }

        /// <summary>An answer that is some content as it is.</summary>
        internal static SoapAnswer Of(Attachment content)
        {
            return new SoapAnswer(
                200,
                OutgoingPackage.OneLine(content.ContentType ?? "application/octet-stream"),
                content.Length,
                output => Copied(content, output));
        }

        private static async Task Copied(Attachment content, Stream to)
        {
            using (Stream from = content.OpenRead())
            {
                await from.CopyToAsync(to).ConfigureAwait(false);
            }
        }

        /// <summary>An answer in words.</summary>
        internal static SoapAnswer Plain(int status, string text)
        {
            return Of(status, "text/plain; charset=utf-8", Encoding.UTF8.GetBytes(text + "\n"));
        }

        /// <summary>What to say to a method that is none of those allowed here (RFC 9110, section 15.5.6).</summary>
        internal static SoapAnswer NotAllowed(string allowed, string text)
        {
            SoapAnswer answer = Plain(405, text);
            answer.Headers["Allow"] = allowed;
            return answer;
        }
    }

    /// <summary>
    /// The documents of a contract as a server shows them. The first is the one to start from; the others are asked for by their
    /// number. Where a document gives the address of a port, it is marked with the port type it belongs to, so that the address can be
    /// replaced by the one that really answers. The marks are characters that no XML document can hold.
    /// </summary>
    public sealed class ContractDocuments
    {
        private const char PortType = '\u0001';
        private const char Address = '\u0002';
        private const char End = '\u0003';

        private readonly string[] documents;

        /// <summary>Takes the documents.</summary>
        public ContractDocuments(params string[] documents)
        {
            this.documents = documents;
        }

        /// <summary>Gives a document, or null when there is no such one.</summary>
        internal string Show(string query, Func<string, string> addresses)
        {
            const string Asked = "document=";
            int number = 0;
            bool asked = query.StartsWith(Asked, StringComparison.Ordinal);
            if (asked && !int.TryParse(
                query.Substring(Asked.Length),
                NumberStyles.None,
                CultureInfo.InvariantCulture,
                out number))
            {
                return null;
            }
            return number >= this.documents.Length ? null : WithAddresses(this.documents[number], addresses);
        }

        private static string WithAddresses(string text, Func<string, string> addresses)
        {
            StringBuilder shown = new StringBuilder(text.Length);
            int from = 0;
            for (int mark = text.IndexOf(PortType); mark >= 0; mark = text.IndexOf(PortType, from))
            {
                int name = text.IndexOf(Address, mark);
                int end = text.IndexOf(End, name);
                shown.Append(text, from, mark - from);
                shown.Append(addresses(text.Substring(mark + 1, name - mark - 1)) ?? text.Substring(name + 1, end - name - 1));
                from = end + 1;
            }
            return shown.Append(text, from, text.Length - from).ToString();
        }
    }
}
