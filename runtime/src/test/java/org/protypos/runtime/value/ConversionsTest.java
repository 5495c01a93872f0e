package org.protypos.runtime.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.time.Month;
import java.time.MonthDay;
import java.time.Year;
import java.time.YearMonth;
import org.junit.jupiter.api.Test;

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
}
