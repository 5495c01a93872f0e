package org.protypos.runtime.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.time.Month;
import java.time.MonthDay;
import java.time.Year;
import java.time.YearMonth;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The tests run where numbers are written with other digits: messages have those of the standard all the same. */
class ConversionsTest {
    @Test
    void partsOfDatesAreWrittenAsTheStandardHasThem() {
        assertThat(String.format("%d", 7)).as("digits of this place").isNotEqualTo("7");
        assertThat(Conversions.print(Year.of(987))).isEqualTo("0987");
        assertThat(Conversions.print(Year.of(-44))).isEqualTo("-0044");
        assertThat(Conversions.print(YearMonth.of(12026, 3))).isEqualTo("12026-03");
        assertThat(Conversions.print(Month.JULY)).isEqualTo("--07");
        assertThat(Conversions.print(MonthDay.of(2, 29))).isEqualTo("--02-29");
        assertThat(Conversions.toYearMonth("2026-11")).isEqualTo(YearMonth.of(2026, 11));
        assertThat(Conversions.toUri("http://quay.example/a b")).isEqualTo(URI.create("http://quay.example/a%20b"));
    }

    @ParameterizedTest
    @CsvSource({"%20, %20", "%2f%2F, %2f%2F", "50%, 50%25", "%2, %252", "%zz, %25zz", "%%20, %25%20", "a|b, a%7Cb"})
    void whatIsNoEscapeInAUriBecomesOne(String text, String uri) {
        assertThat(Conversions.toUri(text)).isEqualTo(URI.create(uri));
    }

    /** One look at each character: all of the rest at each escape would take an hour. */
    @Test
    @Timeout(value = 5, unit = TimeUnit.MINUTES)
    void longUrisAreReadInOneGo() {
        String text = "%20".repeat(700_000);
        assertThat(Conversions.toUri(text).toString()).isEqualTo(text);
    }
}
