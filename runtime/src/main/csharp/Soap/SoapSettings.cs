namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;
    using System.Globalization;
    using System.IO;
    using System.Net.Http;
    using System.Security.Cryptography;
    using System.Text;
    using System.Xml.Linq;

    /// <summary>Where a client goes when a service redirects it (RFC 9110, section 15.4). A request keeps its method and its body.</summary>
    public enum Redirects
    {
        /// <summary>Nowhere: the call fails and says where it would lead.</summary>
        None,

        /// <summary>To another address of the same scheme, host and port; what the request holds was meant for that server.</summary>
        SameOrigin,

        /// <summary>Anywhere but from a secured address to one that is not; headers that say who calls stay behind.</summary>
        Anywhere
    }

    /// <summary>
    /// How a client talks to a service. A client takes a copy when it is made. The address is, in this order: the one set here; what
    /// <see cref="AppDomain.GetData"/> gives for <c>address.SERVICE.PORT</c>; the environment variable <c>ADDRESS_SERVICE_PORT</c>, in
    /// capitals with an underscore for every other character; the entry <c>SERVICE.PORT</c> in <c>addresses.properties</c> beside the
    /// program; the one in the contract. SERVICE and PORT are the names in the contract.
    /// </summary>
    public sealed class SoapSettings
    {
        private readonly List<Action<XmlOutput>> blocks = new List<Action<XmlOutput>>();

        /// <summary>The defaults: the contract's address, one minute, strict reading.</summary>
        public SoapSettings()
        {
            this.Timeout = TimeSpan.FromMinutes(1);
            this.HttpHeaders = new Dictionary<string, string>();
            this.Interceptors = new List<SoapInterceptor>();
            this.Limits = XmlLimits.Default;
            this.AttachmentLimit = 2L << 30;
        }

        private SoapSettings(SoapSettings other)
        {
            this.Address = other.Address;
            this.Timeout = other.Timeout;
            this.HttpHeaders = new Dictionary<string, string>(other.HttpHeaders);
            this.Interceptors = new List<SoapInterceptor>(other.Interceptors);
            this.HttpClient = other.HttpClient;
            this.Compressed = other.Compressed;
            this.OptimizedFrom = other.OptimizedFrom;
            this.AttachmentLimit = other.AttachmentLimit;
            this.Addressed = other.Addressed;
            this.Redirects = other.Redirects;
            this.Limits = other.Limits;
            this.PassedOver = other.PassedOver;
            this.UserNameToken = other.UserNameToken;
            this.Log = other.Log;
            this.blocks.AddRange(other.blocks);
        }

        /// <summary>Sends to another address than the contract's.</summary>
        public string Address { get; set; }

        /// <summary>Gives up when no whole answer has come in this time.</summary>
        public TimeSpan Timeout { get; set; }

        /// <summary>HTTP headers of every request.</summary>
        public IDictionary<string, string> HttpHeaders { get; private set; }

        /// <summary>Who sees and may change messages before they are sent and after they came.</summary>
        public IList<SoapInterceptor> Interceptors { get; private set; }

        /// <summary>
        /// An HTTP client of the caller's, with a handler of his choice: proxy, certificates and cookies are its affair. It must not
        /// follow redirections by itself; null for one of ours.
        /// </summary>
        public HttpClient HttpClient { get; set; }

        /// <summary>Sends requests compressed with gzip, and asks for answers that are.</summary>
        public bool Compressed { get; set; }

        /// <summary>
        /// Sends binary content of at least so many bytes beside the message rather than in it (MTOM); -1 for never. Null for what
        /// the policies of the port ask for: from 1,024 bytes on, or never.
        /// </summary>
        public long? OptimizedFrom { get; set; }

        /// <summary>Takes answers with attachments of at most so many bytes together.</summary>
        public long AttachmentLimit { get; set; }

        /// <summary>
        /// Whether header blocks say where a message goes (WS-Addressing 1.0); null for what the policies of the port ask for.
        /// An operation for which the contract has no action goes without.
        /// </summary>
        public bool? Addressed { get; set; }

        /// <summary>Where to go when the service redirects.</summary>
        public Redirects Redirects { get; set; }

        /// <summary>The bounds that answers are held to.</summary>
        public XmlLimits Limits { get; set; }

        /// <summary>Reads answers leniently when it is set: what breaks the contract is passed over and told here.</summary>
        public Action<XmlFormatException> PassedOver { get; set; }

        /// <summary>Who calls, in every message (Web Services Security UsernameToken Profile 1.1); null for nobody.</summary>
        public UserNameToken UserNameToken { get; set; }

        /// <summary>Is told of each message as it travels, with what looks like a secret blanked; null for nobody.</summary>
        public Action<string> Log { get; set; }

        /// <summary>Adds a header block to every message.</summary>
        public SoapSettings AddHeaderBlock(XElement block)
        {
            this.blocks.Add(output => output.Element(block));
            return this;
        }

        /// <summary>Adds a header block to every message.</summary>
        public SoapSettings AddHeaderBlock<T>(XmlElement<T> block)
            where T : XmlObject
        {
            this.blocks.Add(output => output.Element(block));
            return this;
        }

        /// <summary>Adds a header block to every message, made anew for each.</summary>
        public SoapSettings AddHeaderBlock(Func<XElement> block)
        {
            this.blocks.Add(output => output.Element(block()));
            return this;
        }

        /// <summary>Shows who calls by name and password (RFC 7617). Only a secured transport keeps them secret.</summary>
        public SoapSettings SetBasicAuthorization(string user, string password)
        {
            this.HttpHeaders["Authorization"] = "Basic " + Convert.ToBase64String(Encoding.UTF8.GetBytes(user + ":" + password));
            return this;
        }

        /// <summary>Shows who calls by a token (RFC 6750).</summary>
        public SoapSettings SetBearerToken(string token)
        {
            this.HttpHeaders["Authorization"] = "Bearer " + token;
            return this;
        }

        internal IReadOnlyList<Action<XmlOutput>> HeaderBlocks
        {
            get { return this.blocks; }
        }

        internal SoapSettings Copy()
        {
            return new SoapSettings(this);
        }

        /// <summary>The address to send to.</summary>
        internal string AddressOf(ServicePort port)
        {
            return this.Address ?? OutsideAddress(port.Service, port.Name) ?? port.Address;
        }

        private static string OutsideAddress(string service, string port)
        {
            string key = service + "." + port;
            string data = AppDomain.CurrentDomain.GetData("address." + key) as string;
            if (data != null)
            {
                return data.Trim();
            }
            StringBuilder variable = new StringBuilder("ADDRESS_");
            foreach (char c in key.ToUpperInvariant())
            {
                variable.Append((c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') ? c : '_');
            }
            string value = Environment.GetEnvironmentVariable(variable.ToString());
            if (value != null)
            {
                return value.Trim();
            }
            string file = Path.Combine(AppDomain.CurrentDomain.BaseDirectory, "addresses.properties");
            if (File.Exists(file))
            {
                foreach (string line in File.ReadAllLines(file))
                {
                    int equals = line.IndexOf('=');
                    if (equals > 0 && line.Substring(0, equals).Trim() == key)
                    {
                        return line.Substring(equals + 1).Trim();
                    }
                }
            }
            return null;
        }
    }

    /// <summary>Who calls, by name and password in a security header block (Web Services Security UsernameToken Profile 1.1).</summary>
    public sealed class UserNameToken
    {
        private const string Security = "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-secext-1.0.xsd";
        private const string Utility = "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-utility-1.0.xsd";
        private const string Profile = "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-username-token-profile-1.0#";
        private const string Base64 = "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-soap-message-security-1.0#Base64Binary";

        private readonly string user;
        private readonly string password;

        /// <summary>A name and a password.</summary>
        public UserNameToken(string user, string password)
        {
            this.user = user ?? throw new ArgumentNullException("user");
            this.password = password ?? throw new ArgumentNullException("password");
        }

        /// <summary>Whether a digest goes over the wire instead of the password (section 3.1).</summary>
        public bool Digest { get; set; }

        internal void Write(XmlOutput output, SoapVersion version)
        {
            string created = DateTime.UtcNow.ToString("yyyy-MM-dd'T'HH:mm:ss.fff'Z'", CultureInfo.InvariantCulture);
            byte[] nonce = new byte[16];
            using (RandomNumberGenerator random = RandomNumberGenerator.Create())
            {
                random.GetBytes(nonce);
            }
            output.Open(Security, "Security");
            output.Attribute(version.Namespace, "mustUnderstand", "1");
            output.Open(Security, "UsernameToken");
            output.Element(Security, "Username", this.user);
            output.Open(Security, "Password");
            output.Attribute("", "Type", Profile + (this.Digest ? "PasswordDigest" : "PasswordText"));
            output.Text(this.Digest ? this.DigestOf(nonce, created) : this.password);
            output.Close();
            if (this.Digest)
            {
                output.Open(Security, "Nonce");
                output.Attribute("", "EncodingType", Base64);
                output.Text(Convert.ToBase64String(nonce));
                output.Close();
                output.Element(Utility, "Created", created);
            }
            output.Close();
            output.Close();
        }

        private string DigestOf(byte[] nonce, string created)
        {
            List<byte> all = new List<byte>(nonce);
            all.AddRange(Encoding.UTF8.GetBytes(created + this.password));
            using (SHA1 hash = SHA1.Create())
            {
                return Convert.ToBase64String(hash.ComputeHash(all.ToArray()));
            }
        }
    }

    /// <summary>A call on its way.</summary>
    public sealed class SoapCall
    {
        internal SoapCall(ServicePort port, string operation, string address, string messageId)
        {
            this.Service = port.Service;
            this.Port = port.Name;
            this.Operation = operation;
            this.Address = address;
            this.MessageId = messageId;
            this.Headers = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
            this.AnswerHeaders = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        }

        /// <summary>The local name of the service.</summary>
        public string Service { get; private set; }

        /// <summary>The local name of the port.</summary>
        public string Port { get; private set; }

        /// <summary>The name of the operation's method.</summary>
        public string Operation { get; private set; }

        /// <summary>Where the message goes; without SOAP with what the call puts into it.</summary>
        public string Address { get; internal set; }

        /// <summary>The identifier that addresses the request, or null when it is not addressed (WS-Addressing 1.0 Core, section 3.1).</summary>
        public string MessageId { get; private set; }

        /// <summary>The HTTP headers of the request, which may be changed before it is sent.</summary>
        public IDictionary<string, string> Headers { get; private set; }

        /// <summary>The HTTP status of the answer, 0 while there is none.</summary>
        public int Status { get; internal set; }

        /// <summary>The HTTP headers of the answer, once there is one.</summary>
        public IDictionary<string, string> AnswerHeaders { get; private set; }
    }

    /// <summary>Sees the messages of a client as they travel, and may change them: to sign what is sent, to keep what came.</summary>
    public abstract class SoapInterceptor
    {
        /// <summary>Sees a request, in UTF-8, before it is sent; gives what is sent.</summary>
        public virtual byte[] Request(SoapCall call, byte[] envelope)
        {
            return envelope;
        }

        /// <summary>
        /// Sees an answer before it is read, whatever it is and no longer compressed; gives what is read. Throws
        /// <see cref="CallRefusedException"/> when it must not be read: the call fails and says why.
        /// </summary>
        public virtual byte[] Answer(SoapCall call, byte[] body)
        {
            return body;
        }
    }
}
