package org.protypos.wsdl;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/** A port type: a set of operations (WSDL 1.1, section 2.4). */
public record PortType(QName name, List<Operation> operations, String documentation, Place place) {}
