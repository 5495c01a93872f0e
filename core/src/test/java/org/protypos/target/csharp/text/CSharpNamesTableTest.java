package org.protypos.target.csharp.text;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Names of contracts and what somebody who writes C# would call the same. */
class CSharpNamesTableTest {
    @ParameterizedTest
    @CsvSource({
        "requestBerth, RequestBerth, requestBerth, RequestBerth",
        "request_berth, RequestBerth, requestBerth, RequestBerth",
        "REQUEST_BERTH, RequestBerth, requestBerth, RequestBerth",
        "VALID-FROM, ValidFrom, validFrom, ValidFrom",
        "CALL.SIGN, CallSign, callSign, CallSign",
        "BERTH_NO, BerthNO, berthNO, BerthNO",
        "ADDRESS_LINE_1, AddressLine1, addressLine1, AddressLine1",
        "ÜBER_GRÖSSE, ÜberGrösse, überGrösse, ÜberGrösse",
        "USD, USD, usd, Usd",
        "IMONumber, IMONumber, imoNumber, ImoNumber",
        "_USD, USD, usd, Usd",
        "USD_, USD, usd, Usd",
        "ISO8601, ISO8601, iso8601, ISO8601",
        "DESK_MT000001, DeskMT000001, deskMT000001, DeskMT000001",
        "v1.2, V1_2, v1_2, V1_2",
        "DRAUGHT_V1_2, DraughtV1_2, draughtV1_2, DraughtV1_2",
        "int, Int, intValue, Int",
        "INT_VALUE, IntValue, intValue, IntValue",
    })
    void namesAreWordsWithACapitalEach(String name, String type, String parameter, String constant) {
        CSharpNames names = new CSharpNames();
        assertThat(names.typeName(name)).isEqualTo(type);
        assertThat(names.memberName(name)).isEqualTo(type);
        assertThat(names.parameterName(name)).isEqualTo(parameter);
        assertThat(names.constantName(name)).isEqualTo(constant);
    }
}
