using System;
using System.Reflection;
using Protypos.Runtime;

/// <summary>
/// Serves interfaces of a contract, and hands each call to a client of the same interface. Arguments: the assembly and the TCP port,
/// then for each interface its path, endpoint, client, the class and the field of its port, and the address to call.
/// </summary>
public static class Relay
{
    public static int Main(string[] arguments)
    {
        Assembly contract = Assembly.LoadFrom(arguments[0]);
        using (SoapServer server = SoapServer.Listen("http://127.0.0.1:" + arguments[1] + "/"))
        {
            for (int i = 2; i < arguments.Length; i += 6)
            {
                object port = contract.GetType(arguments[i + 3], true).GetField(arguments[i + 4]).GetValue(null);
                SoapSettings settings = new SoapSettings { Address = arguments[i + 5], Timeout = TimeSpan.FromSeconds(20) };
                object client = Activator.CreateInstance(contract.GetType(arguments[i + 2], true), port, settings);
                ContractEndpoint endpoint =
                    (ContractEndpoint)Activator.CreateInstance(contract.GetType(arguments[i + 1], true), client);
                endpoint.Failed = (reference, failure) => Console.Error.WriteLine(reference + " " + failure);
                server.Publish(arguments[i], endpoint);
            }
            Console.WriteLine("ready");
            Console.In.ReadToEnd();
        }
        return 0;
    }
}
