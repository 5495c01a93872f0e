using System;
using System.Collections.Generic;
using System.Net;
using System.Net.Sockets;
using System.Threading.Tasks;
using Example.Lanternbay.Harbour.Desk;
using Example.Lanternbay.Harbour.Desk.Runtime;
using Example.Lanternbay.Harbour.Vessels;

namespace LanternBay.Office
{
    /// <summary>A day at the harbour office: a server on a free port, and a client that calls it over HTTP.</summary>
    public static class Visit
    {
        /// <summary>Runs the day.</summary>
        public static void Main()
        {
            int port = FreePort();
            using (SoapServer server = SoapServer.Listen(port))
            {
                server.Publish("/desk", new HarbourDeskEndpoint(new LanternBayDesk()));
                string address = "http://localhost:" + port + "/desk";
                Console.WriteLine("server at " + address + " (SOAP 1.1 and 1.2; GET shows the contract)");
                SoapSettings settings = new SoapSettings { Address = address, Timeout = TimeSpan.FromSeconds(30) };
                HarbourDeskClient desk = new HarbourDeskClient(HarbourOffice.Soap12Desk, settings);

                Console.WriteLine("a list");
                foreach (Berth berth in desk.ListBerths(null))
                {
                    Console.WriteLine("  berth " + berth.Number + " at " + berth.Quay + ", " + berth.DepthInMetres + " m deep");
                }

                Console.WriteLine("a vessel whose type the answer chooses");
                Vessel vessel = desk.FindVessel("LB9T");
                Console.WriteLine("  " + vessel);

                Console.WriteLine("an answer");
                XmlDateTime arrival = new DateTimeOffset(2027, 5, 9, 14, 30, 0, TimeSpan.FromHours(2));
                XmlDuration stay = TimeSpan.FromDays(2);
                BerthOffer offer = desk.RequestBerth(vessel, arrival, stay, new List<Need> { Need.Water, Need.Pilot });
                Console.WriteLine("  berth " + offer.Berth.Number + " from " + offer.From + " for " + offer.Dues.Value + " "
                    + offer.Dues.Currency);

                Console.WriteLine("a declared fault, caught by its type");
                Tanker deep = new Tanker
                {
                    Cargo = "water",
                    CubicMetres = 90000,
                    Name = "Deep Well",
                    LengthInMetres = 210,
                    DraughtInMetres = 15.0m,
                    CallSign = "NI7T"
                };
                try
                {
                    desk.RequestBerth(deep, arrival, stay, new List<Need>());
                }
                catch (NoBerthFreeFaultException fault)
                {
                    Console.WriteLine("  " + fault.Message + "; waiting: " + fault.Detail.Waiting + ", next free: "
                        + fault.Detail.NextFree);
                }

                Console.WriteLine("a call with a header");
                Pass pass = new Pass { Holder = "Ada Quill", ValidUntil = new DateTime(2027, 12, 31) };
                Console.WriteLine("  " + desk.PayDues("LB9T", new Money { Value = 432.00m }, pass));

                Console.WriteLine("calls that do not wait");
                Later(desk).GetAwaiter().GetResult();
            }
        }

        private static async Task Later(HarbourDeskClient desk)
        {
            await desk.CastOffAsync(1);
            List<Berth> berths = await desk.ListBerthsAsync(null);
            Console.WriteLine("  " + berths.Count + " berths are free");
        }

        private static int FreePort()
        {
            TcpListener any = new TcpListener(IPAddress.Loopback, 0);
            any.Start();
            int port = ((IPEndPoint)any.LocalEndpoint).Port;
            any.Stop();
            return port;
        }
    }
}
