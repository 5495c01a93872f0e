namespace Protypos.Runtime
{
    using System;
    using System.Collections.Generic;

    /// <summary>What the policies of a port ask for beyond SOAP itself.</summary>
    [Flags]
    public enum SoapFeatures
    {
        /// <summary>Nothing.</summary>
        None = 0,

        /// <summary>Binary content travels beside the message (SOAP Message Transmission Optimization Mechanism).</summary>
        Mtom = 1,

        /// <summary>Messages say where they go and what they answer (WS-Addressing 1.0).</summary>
        Addressing = 2
    }

    /// <summary>A port of a service (WSDL 1.1, section 2.6): where and how an interface can be called.</summary>
    public abstract class ServicePort
    {
        private readonly IReadOnlyDictionary<string, string> targets;

        internal ServicePort(string service, string name, string address, IReadOnlyDictionary<string, string> targets)
        {
            this.Service = service;
            this.Name = name;
            this.Address = address;
            this.targets = targets ?? new Dictionary<string, string>();
        }

        /// <summary>The local name of the service.</summary>
        public string Service { get; private set; }

        /// <summary>The local name of the port.</summary>
        public string Name { get; private set; }

        /// <summary>The address in the contract.</summary>
        public string Address { get; private set; }

        /// <summary>The SOAP action or the location of an operation, where it differs from that of the default port.</summary>
        internal string Target(string operation, string standard)
        {
            string target;
            return this.targets.TryGetValue(operation, out target) ? target : standard;
        }
    }

    /// <summary>A port that is called by SOAP.</summary>
    public abstract class SoapPort : ServicePort
    {
        internal SoapPort(
            string service,
            string name,
            string address,
            SoapVersion version,
            SoapFeatures features,
            IReadOnlyDictionary<string, string> actions)
            : base(service, name, address, actions)
        {
            this.Version = version;
            this.Features = features;
        }

        /// <summary>The protocol version of its binding.</summary>
        public SoapVersion Version { get; private set; }

        /// <summary>What its policies ask for.</summary>
        public SoapFeatures Features { get; private set; }
    }

    /// <summary>A port that is called by SOAP.</summary>
    /// <typeparam name="T">the interface that can be called there</typeparam>
    public sealed class SoapPort<T> : SoapPort
    {
        /// <summary>A port.</summary>
        /// <param name="service">the local name of the service</param>
        /// <param name="name">the local name of the port</param>
        /// <param name="address">the address in the contract</param>
        /// <param name="version">the protocol version of its binding</param>
        /// <param name="features">what its policies ask for</param>
        /// <param name="actions">the SOAP actions of its operations where they differ from those of the default port</param>
        public SoapPort(
            string service,
            string name,
            string address,
            SoapVersion version,
            SoapFeatures features = SoapFeatures.None,
            IReadOnlyDictionary<string, string> actions = null)
            : base(service, name, address, version, features, actions)
        {
        }
    }

    /// <summary>A port that is called by HTTP alone (WSDL 1.1, section 4).</summary>
    public abstract class HttpPort : ServicePort
    {
        internal HttpPort(
            string service, string name, string address, string verb, IReadOnlyDictionary<string, string> locations)
            : base(service, name, address, locations)
        {
            this.Verb = verb;
        }

        /// <summary>The HTTP method.</summary>
        public string Verb { get; private set; }
    }

    /// <summary>A port that is called by HTTP alone (WSDL 1.1, section 4).</summary>
    /// <typeparam name="T">the interface that can be called there</typeparam>
    public sealed class HttpPort<T> : HttpPort
    {
        /// <summary>A port.</summary>
        /// <param name="service">the local name of the service</param>
        /// <param name="name">the local name of the port</param>
        /// <param name="address">the address in the contract</param>
        /// <param name="verb">the HTTP method</param>
        /// <param name="locations">the locations of its operations where they differ from those of the default port</param>
        public HttpPort(
            string service,
            string name,
            string address,
            string verb,
            IReadOnlyDictionary<string, string> locations = null)
            : base(service, name, address, verb, locations)
        {
        }
    }
}
