package org.ysthmos.adapters.http;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The examples of RFC 8288 section 3.5 and appendix B, and what its grammar allows. */
class LinkHeaderTest {

  private static final URI BASE = URI.create("https://api.example/things?limit=2");

  private static String find(String header, String relation) {
    return LinkHeader.find(List.of(header), relation, BASE).map(URI::toString).orElse("none");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          <http://example.com/TheBook/chapter2>; rel="previous"; title="previous chapter" | previous | http://example.com/TheBook/chapter2
          </>; rel="http://example.net/foo"                                        | http://example.net/foo | https://api.example/
          </terms>; rel="copyright"; anchor="#foo"                                  | copyright | https://api.example/terms
          <http://example.org/>; rel="start http://example.net/relation/other"      | start     | http://example.org/
          <http://example.org/>; rel="start http://example.net/relation/other"      | http://example.net/relation/other | http://example.org/
          """)
  void examplesOfTheStandardAreRead(String header, String relation, String target) {
    assertThat(find(header, relation)).isEqualTo(target);
  }

  /** RFC 8288 section 3.5: several links in one header, with parameters in RFC 8187 encoding. */
  @Test
  void severalLinksOfOneHeaderAreToldApart() {
    String header =
        "</TheBook/chapter2>; rel=\"previous\"; title*=UTF-8'de'letztes%20Kapitel,"
            + " </TheBook/chapter4>; rel=\"next\"; title*=UTF-8'de'n%c3%a4chstes%20Kapitel";
    assertThat(find(header, "next")).isEqualTo("https://api.example/TheBook/chapter4");
    assertThat(find(header, "previous")).isEqualTo("https://api.example/TheBook/chapter2");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\'',
      textBlock =
          """
          <?page=2>; rel=next                            | https://api.example/things?page=2
          <?page=2>;rel="NEXT"                           | https://api.example/things?page=2
          <?page=2> ; title="a, <b>; rel=x" ; rel="next" | https://api.example/things?page=2
          <?page=2>; title="say \\"rel\\""; rel="next"   | https://api.example/things?page=2
          <?page=2>; rel=prev; rel=next                  | none
          <?page=2>                                      | none
          <?page=2; rel=next                             | none
          '<?a=1>; rel=last, <?page=2>; rel=next'        | https://api.example/things?page=2
          ', ,<?page=2>; rel=next'                       | https://api.example/things?page=2
          """)
  void grammarIsFollowedAndWhatCannotBeReadIsNoLink(String header, String target) {
    assertThat(find(header, "next")).isEqualTo(target);
  }

  @Test
  void linksMayComeInSeveralHeaders() {
    assertThat(LinkHeader.find(List.of("<?a>; rel=prev", "<?b>; rel=next"), "next", BASE))
        .contains(URI.create("https://api.example/things?b"));
    assertThat(LinkHeader.find(List.of(), "next", BASE)).isEmpty();
  }
}
