namespace Protypos.Runtime
{
    using System;
    using System.Collections.Concurrent;
    using System.Collections.Generic;
    using System.Diagnostics;
    using System.Globalization;
    using System.IO;
    using System.Linq;
    using System.Net;
    using System.Net.Sockets;
    using System.Threading;
    using System.Threading.Tasks;

    /// <summary>
    /// A small server for endpoints, on the platform's own listener. It answers POST with the operation's output and GET with the
    /// contract. For more than a small one mount endpoints in the host of your choice: they take a <see cref="SoapRequest"/> and give a
    /// <see cref="SoapAnswer"/>.
    /// </summary>
    public sealed class SoapServer : IDisposable
    {
        private readonly HttpListener listener = new HttpListener();
        private readonly ConcurrentDictionary<string, ContractEndpoint> endpoints =
            new ConcurrentDictionary<string, ContractEndpoint>(StringComparer.Ordinal);

        private readonly SemaphoreSlim room = new SemaphoreSlim(256);
        private readonly CancellationTokenSource stopping = new CancellationTokenSource();

        private SoapServer(string prefix)
        {
            this.RequestTime = TimeSpan.FromMinutes(1);
            this.listener.Prefixes.Add(prefix);
            this.listener.Start();
            Task.Run(this.Accept);
        }

        /// <summary>Breaks off requests of which not all has come in this time.</summary>
        public TimeSpan RequestTime { get; set; }

        /// <summary>Starts listening on this machine's loopback address.</summary>
        /// <param name="port">the TCP port</param>
        public static SoapServer Listen(int port)
        {
            return new SoapServer("http://localhost:" + port.ToString(CultureInfo.InvariantCulture) + "/");
        }

        /// <summary>Starts listening.</summary>
        /// <param name="prefix">what the listener of the platform is to take, such as <c>http://+:8480/</c></param>
        public static SoapServer Listen(string prefix)
        {
            return new SoapServer(prefix);
        }

        /// <summary>Serves an endpoint at a path, which starts with a slash.</summary>
        public SoapServer Publish(string path, ContractEndpoint endpoint)
        {
            this.endpoints[SoapRequest.Normal(path)] = endpoint;
            return this;
        }

        private async Task Accept()
        {
            while (!this.stopping.IsCancellationRequested)
            {
                HttpListenerContext context;
                try
                {
                    await this.room.WaitAsync(this.stopping.Token).ConfigureAwait(false);
                    context = await this.listener.GetContextAsync().ConfigureAwait(false);
                }
                catch (Exception e) when (e is HttpListenerException || e is ObjectDisposedException
                    || e is InvalidOperationException || e is OperationCanceledException)
                {
                    return;
                }
                this.Begin(context);
            }
        }

        private void Begin(HttpListenerContext context)
        {
            Task.Run(() => this.Answer(context)).ContinueWith(done => this.room.Release());
        }

        private async Task Answer(HttpListenerContext context)
        {
            try
            {
                using (CancellationTokenSource limit = CancellationTokenSource.CreateLinkedTokenSource(this.stopping.Token))
                {
                    limit.CancelAfter(this.RequestTime);
                    // Reading ends when the connection does: not all streams of the platform listen to cancellation.
                    using (limit.Token.Register(context.Response.Abort))
                    {
                        SoapAnswer answer = await this.AnswerTo(context.Request, limit.Token).ConfigureAwait(false);
                        await Send(context, answer).ConfigureAwait(false);
                    }
                }
            }
            catch (Exception e) when (e is HttpListenerException || e is IOException || e is ObjectDisposedException
                || e is InvalidOperationException || e is OperationCanceledException || e is SocketException)
            {
                // Whoever asked has gone, or was too slow.
                context.Response.Abort();
            }
            catch (Exception e)
            {
                Trace.TraceError("a request could not be answered: " + e);
                context.Response.Abort();
            }
        }

        private async Task<SoapAnswer> AnswerTo(HttpListenerRequest request, CancellationToken limit)
        {
            string asked = SoapRequest.Normal(PathOf(request));
            string path = this.endpoints.Keys
                .Where(one => asked.StartsWith(one, StringComparison.Ordinal))
                .OrderByDescending(one => one.Length)
                .FirstOrDefault();
            if (path == null)
            {
                return SoapAnswer.Plain(404, "nothing is published here");
            }
            string host = request.Url.Scheme + "://" + request.Url.Authority;
            SoapRequest taken = new SoapRequest(
                request.HttpMethod,
                asked.Substring(path == "/" ? 0 : path.Length),
                request.Url.Query.TrimStart('?'),
                name => request.Headers[name],
                request.InputStream,
                name => this.AddressOf(host, path, name));
            return await this.endpoints[path].HandleAsync(taken, limit).ConfigureAwait(false);
        }

        /// <summary>The path as it was sent: a URI of some platforms takes away escapes that keep values together.</summary>
        private static string PathOf(HttpListenerRequest request)
        {
            string sent = request.RawUrl;
            int query = sent.IndexOf('?');
            return sent.Length == 0 || sent[0] != '/'
                ? request.Url.AbsolutePath
                : query < 0 ? sent : sent.Substring(0, query);
        }

        /// <summary>Where an endpoint is served: this one, if documents speak of its ports by that name, or else the first at a path.</summary>
        private string AddressOf(string host, string path, string name)
        {
            string at = name.Length == 0 || this.endpoints[path].Serves(name)
                ? path
                : this.endpoints
                    .Where(one => one.Value.Serves(name))
                    .Select(one => one.Key)
                    .OrderBy(one => one, StringComparer.Ordinal)
                    .FirstOrDefault();
            return at == null ? null : host + at;
        }

        private static async Task Send(HttpListenerContext context, SoapAnswer answer)
        {
            HttpListenerResponse response = context.Response;
            response.StatusCode = answer.Status;
            response.ContentType = answer.ContentType;
            foreach (KeyValuePair<string, string> header in answer.Headers)
            {
                response.AddHeader(header.Key, header.Value);
            }
            if (answer.Length >= 0)
            {
                response.ContentLength64 = answer.Length;
            }
            else
            {
                response.SendChunked = true;
            }
            if (context.Request.HttpMethod != "HEAD")
            {
                await answer.WriteAsync(response.OutputStream).ConfigureAwait(false);
            }
            response.Close();
        }

        /// <summary>Stops: nothing is answered any more.</summary>
        public void Dispose()
        {
            this.stopping.Cancel();
            this.listener.Close();
        }
    }
}
