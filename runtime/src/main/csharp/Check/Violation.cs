namespace Protypos.Runtime
{
    /// <summary>Where a value is not what the contract says.</summary>
    public sealed class Violation
    {
        internal Violation(string member, string message)
        {
            this.Member = member;
            this.Message = message;
        }

        /// <summary>
        /// The member, from the value that was asked: such as <c>Vessel.CallSign</c> or <c>Need[1]</c>; empty for the value
        /// itself.
        /// </summary>
        public string Member { get; private set; }

        /// <summary>What is wrong with it, as one sentence without a full stop.</summary>
        public string Message { get; private set; }

        /// <inheritdoc/>
        public override string ToString()
        {
            return this.Member.Length == 0 ? this.Message : this.Member + ": " + this.Message;
        }
    }
}
