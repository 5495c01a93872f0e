/**
 * How messages look on the wire: decided once for each port and operation, in no language's terms. Whatever writes, reads,
 * recognises or checks a message of a contract asks here, in generated code and without it.
 */
package org.protypos.wire;
