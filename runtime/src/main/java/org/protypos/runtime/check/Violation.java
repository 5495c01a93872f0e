package org.protypos.runtime.check;

/**
 * Where a value is not what the contract says.
 *
 * @param member the member, from the value that was asked: such as {@code vessel.callSign} or {@code need[1]}; empty for
 *     the value itself
 * @param message what is wrong with it, as one sentence without a full stop
 */
public record Violation(String member, String message) {
    @Override
    public String toString() {
        return member.isEmpty() ? message : member + ": " + message;
    }
}
