package org.protypos.target.classes;

import javax.xml.namespace.QName;

/**
 * A declared fault: an exception.
 *
 * @param element the element in the fault's detail
 * @param detail the part that holds it
 */
public record PlannedFault(String packageName, String name, QName element, Property detail, String documentation) {}
