package org.protypos.api;

import javax.xml.namespace.QName;
import org.protypos.api.type.Member;
import org.protypos.naming.Subject;

/**
 * A declared fault.
 *
 * @param subject how rules speak of it
 * @param message the message that it is made of
 * @param detail the part in the fault's detail
 */
public record ApiFault(Subject subject, QName message, Member detail, String documentation) {}
