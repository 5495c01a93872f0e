using System;
using System.Threading;
using Example.Lanternbay.Harbour.Desk;
using Example.Lanternbay.Harbour.Desk.Runtime;
using LanternBay.Office;

/// <summary>
/// Serves the harbour office on a TCP port, and calls the address on each line that comes in, by turns waiting and not: says how many berths there are, or the status
/// and what is wrong. It calls as a program with one thread for everything does: what has to go on there never does while a call waits.
/// </summary>
public static class Office
{
    private static int calls;

    public static int Main(string[] arguments)
    {
        using (SoapServer server = SoapServer.Listen("http://127.0.0.1:" + arguments[0] + "/"))
        {
            server.Publish("/desk", new HarbourDeskEndpoint(new LanternBayDesk()));
            SynchronizationContext.SetSynchronizationContext(new Busy());
            Console.WriteLine("ready");
            for (string address = Console.ReadLine(); address != null; address = Console.ReadLine())
            {
                Console.WriteLine(Call(address).Replace("\n", " "));
            }
        }
        return 0;
    }

    private static string Call(string address)
    {
        SoapSettings settings = new SoapSettings { Address = address, Timeout = TimeSpan.FromMinutes(1) };
        HarbourDeskClient desk = new HarbourDeskClient(settings);
        try
        {
            calls++;
            return (calls % 2 == 0 ? desk.ListBerths(null) : desk.ListBerthsAsync(null).GetAwaiter().GetResult()).Count + " berths";
        }
        catch (CallFailedException e)
        {
            return e.Status + ": " + e.Message;
        }
    }

    /// <summary>Runs nothing that is to go on later.</summary>
    private sealed class Busy : SynchronizationContext
    {
        public override void Post(SendOrPostCallback callback, object state)
        {
            Console.Error.WriteLine("something waits for the thread that waits for it");
        }

        public override void Send(SendOrPostCallback callback, object state)
        {
            this.Post(callback, state);
        }
    }
}
