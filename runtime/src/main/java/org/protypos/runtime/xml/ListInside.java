package org.protypos.runtime.xml;

import java.util.AbstractList;
import java.util.List;
import java.util.function.Supplier;

/**
 * The list inside an element that holds nothing else, seen as if it stood in its place: the element comes into being
 * with the first item that is added.
 */
public final class ListInside<T> extends AbstractList<T> {
    private final Supplier<List<T>> there;
    private final Supplier<List<T>> made;

    /**
     * A view.
     *
     * @param there gives the list, or null when the element is absent
     * @param made gives the list and makes the element if it is absent
     */
    public ListInside(Supplier<List<T>> there, Supplier<List<T>> made) {
        this.there = there;
        this.made = made;
    }

    @Override
    public int size() {
        List<T> list = there.get();
        return list == null ? 0 : list.size();
    }

    @Override
    public T get(int index) {
        List<T> list = there.get();
        return (list == null ? List.<T>of() : list).get(index);
    }

    @Override
    public T set(int index, T value) {
        return made.get().set(index, value);
    }

    @Override
    public void add(int index, T value) {
        made.get().add(index, value);
    }

    @Override
    public T remove(int index) {
        return made.get().remove(index);
    }
}
