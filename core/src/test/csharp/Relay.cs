using System;
using System.Collections.Generic;
using System.Reflection;
using System.Runtime.Remoting.Messaging;
using System.Runtime.Remoting.Proxies;
using Protypos.Runtime;

/// <summary>
/// Serves interfaces of a contract, and hands each call to a client of the same interface. Arguments: the assembly and the TCP port,
/// then for each interface its path, endpoint, interface, client, the class and the field of its port, and the address to call.
/// </summary>
public static class Relay
{
    public static int Main(string[] arguments)
    {
        Assembly contract = Assembly.LoadFrom(arguments[0]);
        using (SoapServer server = SoapServer.Listen("http://127.0.0.1:" + arguments[1] + "/"))
        {
            for (int i = 2; i < arguments.Length; i += 7)
            {
                Type api = contract.GetType(arguments[i + 2], true);
                object port = contract.GetType(arguments[i + 4], true).GetField(arguments[i + 5]).GetValue(null);
                SoapSettings settings = new SoapSettings { Address = arguments[i + 6], Timeout = TimeSpan.FromSeconds(20) };
                object client = Activator.CreateInstance(contract.GetType(arguments[i + 3], true), port, settings);
                object implementation = new Handing(api, client).GetTransparentProxy();
                ContractEndpoint endpoint =
                    (ContractEndpoint)Activator.CreateInstance(contract.GetType(arguments[i + 1], true), implementation);
                endpoint.Failed = (reference, failure) => Console.Error.WriteLine(reference + " " + failure);
                server.Publish(arguments[i], endpoint);
            }
            Console.WriteLine("ready");
            Console.In.ReadToEnd();
        }
        return 0;
    }

    /// <summary>Looks like an interface and has another object do what is asked.</summary>
    private sealed class Handing : RealProxy
    {
        private readonly object target;

        internal Handing(Type api, object target)
            : base(api)
        {
            this.target = target;
        }

        public override IMessage Invoke(IMessage message)
        {
            IMethodCallMessage call = (IMethodCallMessage)message;
            try
            {
                object result = call.MethodBase.Invoke(this.target, call.Args);
                return new ReturnMessage(result, null, 0, call.LogicalCallContext, call);
            }
            catch (TargetInvocationException e)
            {
                return new ReturnMessage(e.InnerException, call);
            }
        }
    }
}
