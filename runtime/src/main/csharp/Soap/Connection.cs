namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.IO;
    using System.Linq;
    using System.Net;
    using System.Net.Http;
    using System.Net.Http.Headers;
    using System.Text;
    using System.Text.RegularExpressions;
    using System.Threading;
    using System.Threading.Tasks;

    /// <summary>The client's end of a port: sends the message of a call and reads the answer. Safe for use by several threads.</summary>
    public abstract class Connection
    {
        private const int MostHops = 5;

        /// <summary>It keeps connections open and has nothing of any one caller: no cookies, no credentials.</summary>
        private static readonly HttpClient Shared = new HttpClient(
            new HttpClientHandler { AllowAutoRedirect = false, UseCookies = false, AutomaticDecompression = DecompressionMethods.None })
        {
            Timeout = Timeout.InfiniteTimeSpan
        };

        private static readonly Regex User = new Regex("^([A-Za-z+.-]+://)[^/@]*@");
        private static readonly Regex Spaces = new Regex("\\s+");

        private readonly ServicePort port;
        private readonly string address;
        private readonly XmlReading reading;

        internal Connection(ServicePort port, SoapSettings settings, XmlTypes types)
        {
            this.port = port;
            this.Settings = settings == null ? new SoapSettings() : settings.Copy();
            this.Types = types;
            this.address = this.Settings.AddressOf(port);
            this.reading = new XmlReading(this.Settings.Limits, this.Settings.PassedOver);
        }

        internal SoapSettings Settings { get; private set; }

        internal XmlTypes Types { get; private set; }

        internal string Address
        {
            get { return this.address; }
        }

        internal XmlReading Reading
        {
            get { return this.reading; }
        }

        internal virtual bool IsAddressed
        {
            get { return false; }
        }

        /// <summary>What is to be sent: to where, by which method, and the body.</summary>
        internal sealed class Outgoing
        {
            internal string Target;
            internal string Method = "POST";
            internal byte[] Body = new byte[0];
            internal string ContentType;

            /// <summary>Writes the body when it does not lie in memory, or null.</summary>
            internal Func<Stream, Task> Write;
        }

        /// <summary>An answer.</summary>
        internal sealed class Answer
        {
            internal int Status;
            internal string ContentType;
            internal Incoming Message;
        }

        /// <summary>Makes the request of a call.</summary>
        /// <param name="call">the call</param>
        /// <param name="target">what the contract says of the operation: its SOAP action, or its location</param>
        /// <param name="message">the message</param>
        internal abstract Outgoing Request(SoapCall call, string target, SoapMessage message);

        /// <summary>Reads an answer, or throws what it means.</summary>
        internal abstract void Interpret(SoapCall call, Answer came, SoapMessage answer);

        /// <summary>Calls an operation and waits for the answer.</summary>
        /// <param name="operation">the operation's name</param>
        /// <param name="target">the SOAP action or the location of the operation at the default port</param>
        /// <param name="request">the message to send</param>
        /// <param name="answer">the message to fill, or null for a one-way operation</param>
        /// <exception cref="DeclaredFaultException">The service answers with a fault that the contract declares.</exception>
        /// <exception cref="CallFailedException">Anything else than the answer comes.</exception>
        public void Call(string operation, string target, SoapMessage request, SoapMessage answer)
        {
            // On a thread of the pool nothing waits for the caller's, whatever that has to do.
            Task.Run(() => this.CallAsync(operation, target, request, answer, CancellationToken.None)).GetAwaiter().GetResult();
        }

        /// <summary>Calls an operation and does not wait; fails as <see cref="Call"/> does.</summary>
        public async Task CallAsync(
            string operation, string target, SoapMessage request, SoapMessage answer, CancellationToken cancellationToken)
        {
            SoapCall call = new SoapCall(this.port, operation, this.address, this.IsAddressed ? Addressing.NewId() : null);
            Outgoing sent = this.Request(call, this.port.Target(operation, target), request);
            using (CancellationTokenSource limit = CancellationTokenSource.CreateLinkedTokenSource(cancellationToken))
            {
                limit.CancelAfter(this.Settings.Timeout);
                Answer came;
                try
                {
                    came = await this.Exchange(call, sent, limit.Token).ConfigureAwait(false);
                }
                catch (OperationCanceledException e)
                {
                    cancellationToken.ThrowIfCancellationRequested();
                    throw this.NotReached(operation, "no answer within " + (long)this.Settings.Timeout.TotalMilliseconds + " ms", e);
                }
                catch (Exception e) when (e is HttpRequestException || e is IOException || e is WebException || e is ObjectDisposedException)
                {
                    if (limit.IsCancellationRequested)
                    {
                        cancellationToken.ThrowIfCancellationRequested();
                        throw this.NotReached(
                            operation, "no answer within " + (long)this.Settings.Timeout.TotalMilliseconds + " ms", e);
                    }
                    throw this.NotReached(operation, Innermost(e), e);
                }
                this.Interpret(call, came, answer);
            }
        }

        private static string Innermost(Exception failure)
        {
            Exception at = failure;
            while (at.InnerException != null)
            {
                at = at.InnerException;
            }
            return at.Message;
        }

        private CallFailedException NotReached(string operation, string why, Exception cause)
        {
            return new CallFailedException(operation + " at " + this.Shown + ": " + why, 0, cause);
        }

        /// <summary>The address for messages, without what may say who calls.</summary>
        private string Shown
        {
            get { return ShownAddress(this.address ?? ""); }
        }

        private static string ShownAddress(string address)
        {
            int query = address.IndexOf('?');
            return User.Replace(query < 0 ? address : address.Substring(0, query) + "?...", "$1");
        }

        private static Uri Parsed(string target, string address)
        {
            Uri uri;
            if (!Uri.TryCreate(target, UriKind.Absolute, out uri) || (uri.Scheme != "http" && uri.Scheme != "https"))
            {
                throw new CallFailedException(
                    "\"" + ShownAddress(address ?? "") + "\" is no address to send to: set one by Address", 0, null);
            }
            return uri;
        }

        private async Task<Answer> Exchange(SoapCall call, Outgoing sent, CancellationToken limit)
        {
            HttpClient client = this.Settings.HttpClient ?? Shared;
            Uri target = Parsed(sent.Target, sent.Target);
            Uri first = target;
            for (int hop = 0; ; hop++)
            {
                using (HttpRequestMessage request = this.MessageTo(target, call, sent, SameOrigin(first, target)))
                using (HttpResponseMessage response =
                    await client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, limit).ConfigureAwait(false))
                {
                    Uri next = hop < MostHops ? this.Next(call.Operation, target, sent.Method, response) : null;
                    if (next == null)
                    {
                        return await this.Received(call, response, limit).ConfigureAwait(false);
                    }
                    target = next;
                }
            }
        }

        private static bool SameOrigin(Uri a, Uri b)
        {
            return a.Scheme == b.Scheme && a.Host == b.Host && a.Port == b.Port;
        }

        /// <summary>Where a redirection leads that is followed; null for an answer that is none.</summary>
        private Uri Next(string operation, Uri from, string method, HttpResponseMessage response)
        {
            int status = (int)response.StatusCode;
            if (status != 301 && status != 302 && status != 303 && status != 307 && status != 308)
            {
                return null;
            }
            Uri to = response.Headers.Location;
            to = to == null ? null : to.IsAbsoluteUri ? to : new Uri(from, to);
            string start = operation + " at " + this.Shown + " is redirected to ";
            if (to == null || (to.Scheme != "http" && to.Scheme != "https"))
            {
                throw new CallFailedException(start + "what is no address", status, null);
            }
            string why = status == 303 && method != "GET"
                ? ", where an answer waits that is none to this call"
                : this.Settings.Redirects == Redirects.None
                    ? "; set that address, or Redirects"
                    : !SameOrigin(from, to) && this.Settings.Redirects == Redirects.SameOrigin
                        ? ", another server than it was meant for; set that address if it is right"
                        : from.Scheme == "https" && to.Scheme != "https" ? ", which is not secured" : null;
            if (why != null)
            {
                throw new CallFailedException(start + ShownAddress(to.ToString()) + why, status, null);
            }
            return to;
        }

        private HttpRequestMessage MessageTo(Uri target, SoapCall call, Outgoing sent, bool same)
        {
            HttpRequestMessage request = new HttpRequestMessage(new HttpMethod(sent.Method), target);
            if (sent.Write != null)
            {
                request.Content = new Streamed(sent.Write);
            }
            else if (sent.Body.Length > 0 || sent.ContentType != null)
            {
                request.Content = new ByteArrayContent(sent.Body);
            }
            Dictionary<string, string> headers = new Dictionary<string, string>(call.Headers, StringComparer.OrdinalIgnoreCase);
            foreach (KeyValuePair<string, string> header in this.Settings.HttpHeaders)
            {
                headers[header.Key] = header.Value;
            }
            foreach (KeyValuePair<string, string> header in headers.Where(one => same || !Secrets.IsSecret(one.Key)))
            {
                bool ofContent = header.Key.StartsWith("Content-", StringComparison.OrdinalIgnoreCase);
                bool added = ofContent
                    ? request.Content != null && request.Content.Headers.TryAddWithoutValidation(header.Key, header.Value)
                    : request.Headers.TryAddWithoutValidation(header.Key, header.Value);
                if (!added && !ofContent)
                {
                    throw new CallFailedException("the HTTP header " + header.Key + " cannot be sent", 0, null);
                }
            }
            // Who has to be asked first whether he takes the body would make each call two.
            request.Headers.ExpectContinue = false;
            return request;
        }

        /// <summary>A body that is written as it is sent.</summary>
        private sealed class Streamed : HttpContent
        {
            private readonly Func<Stream, Task> write;

            internal Streamed(Func<Stream, Task> write)
            {
                this.write = write;
            }

            protected override Task SerializeToStreamAsync(Stream stream, TransportContext context)
            {
                return this.write(stream);
            }

            protected override bool TryComputeLength(out long length)
            {
                length = 0;
                return false;
            }
        }

        /// <summary>What came, unpacked and seen by the interceptors.</summary>
        private async Task<Answer> Received(SoapCall call, HttpResponseMessage response, CancellationToken limit)
        {
            int status = (int)response.StatusCode;
            call.Status = status;
            foreach (KeyValuePair<string, IEnumerable<string>> header in response.Headers.Concat(response.Content.Headers))
            {
                call.AnswerHeaders[header.Key] = string.Join(", ", header.Value);
            }
            string contentType = Header(call, "Content-Type");
            MediaType type = new MediaType(contentType);
            Spool spool = Incoming.SpoolFor(type, this.Settings.Limits, this.Settings.AttachmentLimit, "the answer");
            using (limit.Register(response.Dispose))
            using (Stream stream = await response.Content.ReadAsStreamAsync().ConfigureAwait(false))
            {
                await stream.CopyToAsync(spool, 64 * 1024, limit).ConfigureAwait(false);
            }
            Incoming message;
            try
            {
                message = Incoming.Of(
                    spool, type, Header(call, "Content-Encoding"), this.Settings.Limits, this.Settings.AttachmentLimit, "the answer");
            }
            catch (IOException e)
            {
                throw new CallFailedException(
                    "the answer to " + call.Operation + " cannot be unpacked: " + e.Message, status, e);
            }
            byte[] body = message.Body;
            this.Tell("answer to " + call.Operation + " (HTTP " + status + ")", message.Text);
            try
            {
                foreach (SoapInterceptor interceptor in this.Settings.Interceptors)
                {
                    body = interceptor.Answer(call, body);
                }
            }
            catch (CallRefusedException e)
            {
                throw new CallFailedException("the answer to " + call.Operation + " is refused: " + e.Message, status, e);
            }
            return new Answer
            {
                Status = status,
                ContentType = contentType,
                Message = new Incoming(body, message.Type, message.Parts)
            };
        }

        private static string Header(SoapCall call, string name)
        {
            string value;
            return call.AnswerHeaders.TryGetValue(name, out value) ? value : "";
        }

        /// <summary>Has the interceptors see a request, and tells of it.</summary>
        internal byte[] Intercepted(SoapCall call, byte[] message)
        {
            byte[] sent = message;
            foreach (SoapInterceptor interceptor in this.Settings.Interceptors)
            {
                sent = interceptor.Request(call, sent);
            }
            this.Tell("request of " + call.Operation + " to " + this.Shown, Encoding.UTF8.GetString(sent));
            return sent;
        }

        private void Tell(string what, string message)
        {
            if (this.Settings.Log != null)
            {
                this.Settings.Log(what + "\n" + Secrets.Blanked(message));
            }
        }

        /// <summary>The failure for an answer that is not of the kind expected: with its status, its type and how it starts.</summary>
        internal CallFailedException Unusable(string operation, Answer came, string what, Exception cause)
        {
            string text = Spaces.Replace(came.Message.Text, " ").Trim();
            string start = text.Length > 200 ? text.Substring(0, 200) : text;
            return new CallFailedException(
                "the answer to " + operation + " from " + this.Shown + " " + what + " (HTTP " + came.Status + ", "
                + (came.ContentType.Length == 0 ? "no content type" : came.ContentType) + ", "
                + (start.Length == 0 ? "empty" : "starts with: " + start) + ")",
                came.Status,
                cause);
        }
    }
}
