package org.protypos.message.check;

import java.util.List;
import java.util.Map;
import org.protypos.message.model.TypeModel;
import org.protypos.message.tree.MessageElement;

/**
 * What a check found out about a message.
 *
 * @param deviations where the message is not what the contract says; empty when it is valid
 * @param types the type of each element that has one; elements that the contract leaves open have none
 */
public record CheckedMessage(List<Deviation> deviations, Map<MessageElement, TypeModel> types) {}
