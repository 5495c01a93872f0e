package org.protypos.api;

import javax.xml.namespace.QName;

/**
 * A global element.
 *
 * @param value what it holds
 * @param isAbstract whether only members of its substitution group occur
 * @param nillable whether it may be nil
 * @param head the head of the substitution group that it names, or null
 */
public record ApiElement(ApiValue value, boolean isAbstract, boolean nillable, QName head) {}
