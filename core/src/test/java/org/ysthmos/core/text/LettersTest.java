package org.ysthmos.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import com.ibm.icu.lang.UCharacter;
import com.ibm.icu.text.Normalizer2;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.testkit.Seeds;

class LettersTest {

  /** Unicode Standard Annex #15, figures 3 to 5: the examples of canonical equivalence. */
  @ParameterizedTest
  @CsvSource({
    "\u212B, \u00C5",
    "\u2126, \u03A9",
    "A\u030A, \u00C5",
    "o\u0302, \u00F4",
    "s\u0323\u0307, \u1E69",
    "\u1E0B\u0323, \u1E0D\u0307",
    "q\u0307\u0323, q\u0323\u0307"
  })
  void canonicallyEquivalentTextsAreTheSame(String written, String composed) {
    assertThat(Letters.composed(written)).isEqualTo(composed);
    assertThat(Letters.same(written, composed)).isTrue();
  }

  /** UAX #15, figure 6: compatible signs stay apart. */
  @ParameterizedTest
  @CsvSource({"\uFB01, fi", "2\u2075, 25"})
  void compatibleSignsAreNotTheSame(String one, String other) {
    assertThat(Letters.same(one, other)).isFalse();
  }

  /** CaseFolding.txt of Unicode 15, statuses C and F; those of status T with Turkish. */
  @ParameterizedTest
  @CsvSource({
    "root, A, a",
    "root, \u00DF, ss",
    "root, \u1E9E, ss",
    "root, SS, ss",
    "root, \u017F, s",
    "root, \u212A, k",
    "root, \u03C2, \u03C3",
    "root, \u0130, i\u0307",
    "root, \u0149, \u02BCn",
    "root, \uFB03, ffi",
    "root, \u0131, \u0131",
    "root, I, i",
    "root, \u0587, \u0565\u0582",
    "tr, I, \u0131",
    "tr, \u0130, i",
    "az, I, \u0131",
    "tr, ISPARTA, \u0131sparta",
    "de, I, i"
  })
  void foldsAsTheTableSays(String locale, String text, String folded) {
    Locale in = locale.equals("root") ? Locale.ROOT : Locale.forLanguageTag(locale);
    assertThat(Letters.withoutCase(text, in)).isEqualTo(Letters.composed(folded));
  }

  /** Reference: ICU4J, the library of the Unicode Consortium, over every assigned code point. */
  @Test
  void agreesWithIcuOnEveryCodePoint() {
    Normalizer2 nfc = Normalizer2.getNFCInstance();
    for (int sign = 0; sign <= Character.MAX_CODE_POINT; sign++) {
      // Signs newer than the platform's Unicode are unknown to one of the two.
      if (Character.isDefined(sign) && Character.getType(sign) != Character.SURROGATE) {
        String one = Character.toString(sign);
        assertThat(Letters.composed(one)).as("U+%04X", sign).isEqualTo(nfc.normalize(one));
        String folded = nfc.normalize(UCharacter.foldCase(nfc.normalize(one), true));
        // Cherokee folds to its capitals there and to its small letters here; the classes are one.
        assertThat(Letters.withoutCase(one))
            .as("U+%04X", sign)
            .isEqualTo(Letters.withoutCase(folded));
      }
    }
  }

  @Test
  void whatIcuTellsApartStaysApart() {
    Seeds.forSeeds(
        2000,
        seeds -> {
          String a = seeds.text();
          String b = seeds.text();
          boolean same = UCharacter.foldCase(a, true).equals(UCharacter.foldCase(b, true));
          if (!same && Letters.isAscii(a) && Letters.isAscii(b)) {
            assertThat(Letters.withoutCase(a)).isNotEqualTo(Letters.withoutCase(b));
          }
        });
  }

  @Test
  void foldingTwiceIsFoldingOnce() {
    Seeds.forSeeds(
        2000,
        seeds -> {
          String folded = Letters.withoutCase(seeds.text());
          assertThat(Letters.withoutCase(folded)).isEqualTo(folded);
        });
  }

  /** PropList.txt of Unicode 15: the property White_Space, by the same library. */
  @Test
  void whiteSpaceIsWhatUnicodeCallsSo() {
    for (int sign = 0; sign <= Character.MAX_VALUE; sign++) {
      boolean unseen = sign == 0x200B || sign == 0x2060 || sign == 0xFEFF;
      assertThat(WhiteSpace.is((char) sign))
          .as("U+%04X", sign)
          .isEqualTo(UCharacter.isUWhiteSpace(sign) || unseen);
    }
    assertThat(WhiteSpace.strip("\u00A0 K-204\u202F\uFEFF")).isEqualTo("K-204");
    assertThat(WhiteSpace.isBlank("\u00A0\u200B ")).isTrue();
    assertThat(WhiteSpace.isBlank("\u00A0.")).isFalse();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "Fern\u00A0gully|Fern gully|no-break space (U+00A0) where the other has space (U+0020)",
        "K\u20111|K-1|non-breaking hyphen (U+2011) where the other has hyphen-minus (U+002D)",
        "Palm\u200B|Palm|zero width space (U+200B) where the other has its end"
      })
  void namesTheSignThatIsAnother(String one, String other, String difference) {
    assertThat(LookAlike.difference(one, other)).contains(difference);
  }

  @ParameterizedTest
  @CsvSource({"e\u0301, \u00E9", "Fern, Moss", "Fern, fern"})
  void namesNoDifferenceBetweenTheSameOrTheUnlike(String one, String other) {
    assertThat(LookAlike.difference(one, other)).isEmpty();
  }
}
