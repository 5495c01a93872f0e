namespace Protypos.Runtime
{
    using System;
    using System.Collections;
    using System.Collections.Generic;

    /// <summary>
    /// The list inside an element that holds nothing else, seen as if it stood in its place: the element comes into
    /// being with the first item that is added.
    /// </summary>
    /// <typeparam name="T">What the list holds.</typeparam>
    public sealed class ListInside<T> : IList<T>
    {
        private static readonly List<T> Nothing = new List<T>(0);

        private readonly Func<List<T>> there;
        private readonly Func<List<T>> made;

        /// <summary>Makes a view.</summary>
        /// <param name="there">Gives the list, or null when the element is absent.</param>
        /// <param name="made">Gives the list, and makes the element if it is absent.</param>
        public ListInside(Func<List<T>> there, Func<List<T>> made)
        {
            this.there = there;
            this.made = made;
        }

        /// <inheritdoc/>
        public int Count
        {
            get { return this.Now.Count; }
        }

        /// <inheritdoc/>
        public bool IsReadOnly
        {
            get { return false; }
        }

        private List<T> Now
        {
            get { return this.there() ?? Nothing; }
        }

        /// <inheritdoc/>
        public T this[int index]
        {
            get { return this.Now[index]; }
            set { this.Now[index] = value; }
        }

        /// <inheritdoc/>
        public int IndexOf(T item)
        {
            return this.Now.IndexOf(item);
        }

        /// <inheritdoc/>
        public bool Contains(T item)
        {
            return this.Now.Contains(item);
        }

        /// <inheritdoc/>
        public void CopyTo(T[] array, int arrayIndex)
        {
            this.Now.CopyTo(array, arrayIndex);
        }

        /// <inheritdoc/>
        public void Add(T item)
        {
            this.made().Add(item);
        }

        /// <inheritdoc/>
        public void Insert(int index, T item)
        {
            if (index < 0 || index > this.Count)
            {
                throw new ArgumentOutOfRangeException(nameof(index));
            }

            this.made().Insert(index, item);
        }

        /// <inheritdoc/>
        public bool Remove(T item)
        {
            return this.Now.Remove(item);
        }

        /// <inheritdoc/>
        public void RemoveAt(int index)
        {
            this.Now.RemoveAt(index);
        }

        /// <inheritdoc/>
        public void Clear()
        {
            this.Now.Clear();
        }

        /// <inheritdoc/>
        public IEnumerator<T> GetEnumerator()
        {
            return this.Now.GetEnumerator();
        }

        IEnumerator IEnumerable.GetEnumerator()
        {
            return this.GetEnumerator();
        }
    }
}
