package org.ysthmos.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.text.NumberFormat;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.testkit.Seeds;

/** Source of the signs: Unicode CLDR, as the JDK ships it. */
class NumberTextTest {

  @ParameterizedTest(name = "{0}: {1}")
  @CsvSource(
      delimiter = ';',
      value = {
        "en;8;8",
        "en;1,234.50;1234.5",
        "en;-3;-3",
        "en;+3;3",
        "en;.5;0.5",
        "pt;1.234,5;1234.5",
        "pt-PT;12 345,5;12345.5",
        "de;0,1;0.1",
        "de-CH;1'234.5;1234.5",
        "fr;1 234 567,8;1234567.8",
        "en-IN;12,34,567.5;1234567.5",
        "sv;−5;-5",
        "ar;٣٤;34",
        "en;123456789012345678901234567890.1;123456789012345678901234567890.1"
      })
  void readsNumbersExactly(String locale, String text, BigDecimal number) {
    assertThat(NumberText.of(Locale.forLanguageTag(locale)).read(text))
        .hasValueSatisfying(read -> assertThat(read).isEqualByComparingTo(number));
  }

  /** The last ones a lenient reader takes for 125, 1234 and 12345. */
  @ParameterizedTest(name = "{0}: {1}")
  @CsvSource(
      delimiter = ';',
      value = {
        "en;eight",
        "en;8 or 9",
        "en;''",
        "en;8kg",
        "en;٨x",
        "en;5.",
        "en;-",
        "en;1e5",
        "en;12,5",
        "en;1,23,4",
        "en;12,345,",
        "de;1.5",
        "en;1,2,3,4,5"
      })
  void neverGuessesANumber(String locale, String text) {
    assertThat(NumberText.of(Locale.forLanguageTag(locale)).read(text)).isEmpty();
  }

  /** What the JDK writes in a language is read back as the same number. */
  @Test
  void readsWhatTheJdkWrites() {
    List<Locale> locales =
        Stream.of("en", "pt", "de", "fr", "pl", "da", "en-IN", "es-MX", "it-CH")
            .map(Locale::forLanguageTag)
            .toList();
    Seeds.forSeeds(
        500,
        seeds -> {
          Locale locale = locales.get(seeds.below(locales.size()));
          BigDecimal number =
              BigDecimal.valueOf(seeds.below(Integer.MAX_VALUE), seeds.below(5))
                  .multiply(BigDecimal.valueOf(seeds.below(2) == 0 ? 1 : -1));
          NumberFormat format = NumberFormat.getNumberInstance(locale);
          format.setMaximumFractionDigits(10);
          assertThat(NumberText.of(locale).read(format.format(number)))
              .hasValueSatisfying(read -> assertThat(read).isEqualByComparingTo(number));
        });
  }
}
