package org.protypos.message.check;

import java.util.Map;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;

/**
 * Checks messages against a contract and collects every deviation (XML Schema Part 1, chapter 5). It keeps nothing of a message.
 * The door.
 */
public final class MessageChecker {
    private final Vocabulary vocabulary;

    /** Makes a checker for one contract. */
    public MessageChecker(Vocabulary vocabulary) {
        this.vocabulary = vocabulary;
    }

    /** Checks a message of which the root is an element that the contract declares globally. */
    public CheckedMessage check(MessageElement root) {
        return new MessageCheck(vocabulary).root(root);
    }

    /** Checks an element against a type, whatever its name. */
    public CheckedMessage check(MessageElement element, TypeModel type) {
        return new MessageCheck(vocabulary).element(element, type);
    }

    /**
     * Checks the wrapper of a remote procedure call.
     *
     * @param parts the types of the elements in it, by their local names; they are in no namespace
     */
    public CheckedMessage check(MessageElement wrapper, Map<String, TypeModel> parts) {
        return new MessageCheck(vocabulary).wrapper(wrapper, parts);
    }
}
