using System;
using System.Collections.Concurrent;
using System.Collections.Generic;
using System.Linq;
using Example.Lanternbay.Harbour.Desk;
using Example.Lanternbay.Harbour.Desk.Runtime;
using Example.Lanternbay.Harbour.Vessels;

namespace LanternBay.Office
{
    /// <summary>The harbour office of Lantern Bay, written by hand against the generated interface.</summary>
    public sealed class LanternBayDesk : IHarbourDesk
    {
        private const decimal DuesPerMetre = 4.50m;

        private readonly SortedDictionary<int, Berth> free = new SortedDictionary<int, Berth>();
        private readonly ConcurrentDictionary<string, Vessel> vessels = new ConcurrentDictionary<string, Vessel>();

        /// <summary>An office with three berths and three vessels.</summary>
        public LanternBayDesk()
        {
            this.AddBerth(1, "North Quay", 4.2m);
            this.AddBerth(2, "North Quay", 6.0m);
            this.AddBerth(7, "Lighthouse Quay", 11.5m);
            this.Register(new Ferry { Passengers = 180, Line = "Lantern Bay - Gull Island" }, "Aurora", 38.5m, 2.9m, "LB4F");
            this.Register(new Tanker { Cargo = "rape oil", CubicMetres = 5400 }, "Mellow Drop", 96.0m, 7.8m, "LB9T");
            this.Register(new Yacht { Club = "Lantern Bay Sailing Club" }, "Plover", 11.2m, 1.9m, "LB2Y");
        }

        private void AddBerth(int number, string quay, decimal depth)
        {
            this.free[number] = new Berth { Number = number, Quay = quay, DepthInMetres = depth };
        }

        private void Register(Vessel vessel, string name, decimal length, decimal draught, string callSign)
        {
            vessel.Name = name;
            vessel.LengthInMetres = length;
            vessel.DraughtInMetres = draught;
            vessel.Flag = Flag.LanternCoast;
            vessel.CallSign = callSign;
            this.vessels[callSign] = vessel;
        }

        /// <inheritdoc/>
        public BerthOffer RequestBerth(Vessel vessel, XmlDateTime arrival, XmlDuration stay, List<Need> need)
        {
            lock (this.free)
            {
                Berth berth = this.free.Values.FirstOrDefault(one => one.DepthInMetres.CompareTo(vessel.DraughtInMetres) > 0);
                if (berth == null)
                {
                    throw new NoBerthFreeFaultException(
                        "no berth is free for a draught of " + vessel.DraughtInMetres + " m",
                        new NoBerthFree { Waiting = 2, NextFree = XmlDateTime.Parse("2027-05-11T06:00:00Z") });
                }
                this.free.Remove(berth.Number);
                decimal dues = (decimal)vessel.LengthInMetres * DuesPerMetre;
                return new BerthOffer { Berth = berth, From = arrival, Dues = new Money { Value = dues } };
            }
        }

        /// <inheritdoc/>
        public List<Berth> ListBerths(XmlDecimal? deepEnoughFor)
        {
            lock (this.free)
            {
                return this.free.Values
                    .Where(berth => deepEnoughFor == null || berth.DepthInMetres.CompareTo(deepEnoughFor.Value) > 0)
                    .ToList();
            }
        }

        /// <inheritdoc/>
        public Vessel FindVessel(string callSign)
        {
            Vessel found;
            return this.vessels.TryGetValue(callSign, out found) ? found : null;
        }

        /// <inheritdoc/>
        public PayDuesResult PayDues(string callSign, Money amount, Pass pass)
        {
            if (pass == null)
            {
                throw new CallRefusedException("dues are paid with a harbour pass");
            }
            return new PayDuesResult(270451, new DateTime(2027, 5, 9));
        }

        /// <inheritdoc/>
        public void CastOff(int berthNumber)
        {
            lock (this.free)
            {
                this.AddBerth(berthNumber, "North Quay", 4.2m);
            }
        }
    }
}
