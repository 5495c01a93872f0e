package org.protypos.contract;

import java.util.ArrayDeque;
import java.util.Collection;
import java.util.Deque;
import java.util.IdentityHashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.function.Function;

/**
 * What leads to what: finds the circles and the longest ways in a time that grows with the number of steps there are (the
 * strongly connected components of a graph, after Tarjan), without a stack as deep as they are long.
 *
 * @param <N> what leads to another, known by its identity
 */
final class Chains<N> {
    private final Function<N, List<N>> next;
    private final Map<N, Node<N>> nodes = new IdentityHashMap<>();
    private final Deque<Node<N>> open = new ArrayDeque<>();
    private int count;

    private static final class Node<N> {
        private final List<N> next;
        private final Iterator<N> left;
        private final int number;
        private int lowest;
        private boolean onStack = true;
        private Node<N> circle;
        private boolean circular;
        private int length;

        Node(List<N> next, int number) {
            this.next = next;
            this.left = next.iterator();
            this.number = number;
            lowest = number;
        }
    }

    /**
     * Follows all steps.
     *
     * @param starts where to begin
     * @param next what something leads to
     */
    Chains(Collection<? extends N> starts, Function<N, List<N>> next) {
        this.next = next;
        for (N start : starts) {
            if (!nodes.containsKey(start)) {
                follow(start);
            }
        }
    }

    /** Whether something leads back to itself. */
    boolean isCircular(N of) {
        return nodes.get(of).circle.circular;
    }

    /** What all have in common that lead to each other, and nothing else has. */
    Object circle(N of) {
        return nodes.get(of).circle;
    }

    /** The steps of the longest way from something; a circle counts as one step. */
    int length(N of) {
        return nodes.get(of).circle.length;
    }

    private Node<N> enter(N of) {
        Node<N> node = new Node<>(next.apply(of), count++);
        nodes.put(of, node);
        open.push(node);
        return node;
    }

    private void follow(N start) {
        Deque<Node<N>> way = new ArrayDeque<>();
        way.push(enter(start));
        while (!way.isEmpty()) {
            Node<N> node = way.peek();
            if (node.left.hasNext()) {
                N step = node.left.next();
                Node<N> known = nodes.get(step);
                if (known == null) {
                    way.push(enter(step));
                } else if (known.onStack) {
                    node.lowest = Math.min(node.lowest, known.number);
                    node.circular |= known == node;
                }
            } else {
                way.pop();
                if (!way.isEmpty()) {
                    way.peek().lowest = Math.min(way.peek().lowest, node.lowest);
                }
                if (node.lowest == node.number) {
                    close(node);
                }
            }
        }
    }

    /** All that is open behind a node leads back to it. */
    private void close(Node<N> first) {
        int longest = 0;
        boolean circular = false;
        int size = 0;
        Iterator<Node<N>> members = open.iterator();
        Node<N> member;
        do {
            member = members.next();
            members.remove();
            member.onStack = false;
            member.circle = first;
            circular |= member.circular;
            size++;
            for (N step : member.next) {
                Node<N> known = nodes.get(step);
                if (known.circle != null && known.circle != first) {
                    longest = Math.max(longest, known.circle.length + 1);
                }
            }
        } while (member != first);
        first.circular = circular || size > 1;
        first.length = longest;
    }
}
