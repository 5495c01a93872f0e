package org.protypos.exchange.standin;

import java.util.function.UnaryOperator;
import org.protypos.runtime.soap.SoapSettings;

/**
 * Where a stand-in hands requests on to.
 *
 * @param with the settings of the connection to the real service, its address among them
 * @param recording keeps what the service answers, or null
 */
public record Relay(UnaryOperator<SoapSettings> with, Recording recording) {}
