package org.ysthmos.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.testkit.Seeds;

class HtmlTextTest {

  @ParameterizedTest(name = "{0}")
  @CsvSource(
      delimiter = '~',
      value = {
        "plain words   with\tspaces~plain words with spaces",
        "<p>one</p><p>two</p>~one||two",
        "one<br>two<br><br>three~one|two||three",
        "<div>one</div><div>two</div>~one|two",
        "<ul><li>bus<li>guide<ul><li>Rui</ul></ul>~- bus|- guide|- Rui",
        "<ol><li>first<li>second</ol>~1. first|2. second",
        "<a href='https://g.example/a'>the form</a>~the form (https://g.example/a)",
        "<a href='https://g.example/a'>https://g.example/a</a>~https://g.example/a",
        "<a href='mailto:rui@g.example'>Rui</a>~Rui (rui@g.example)",
        "<style>p{}</style><script>x()</script><title>t</title>words~words",
        "<table><tr><th>Day<th>Class<tr><td>Monday<td>4B</table>~Day  Class|Monday  4B",
        "a&nbsp;&amp;&nbsp;b &lt;c&gt; &euro;~a & b <c> €",
        "<pre>x\ty|  z</pre>~x\ty|  z",
        "<p>a <b>bold</b>, <i>it</i></p>~a bold, it",
        "<img alt='map of the gully'>~map of the gully",
        "<p>unclosed <b>tag~unclosed tag",
      })
  void readsAsPeopleReadIt(String html, String text) {
    assertThat(HtmlText.of(html.replace("|", "\n"))).isEqualTo(text.replace("|", "\n"));
  }

  @Test
  void neverThrowsAndNeverShowsATag() {
    String[] pieces = {
      "<p>", "</p>", "<li>", "<a href=", "'", ">", "<td>", "&", "<br", "x", "<!--"
    };
    Seeds.forSeeds(
        1000,
        seeds -> {
          StringBuilder html = new StringBuilder();
          for (int i = seeds.below(20); i >= 0; i--) {
            html.append(pieces[seeds.below(pieces.length)]).append(seeds.below(3) == 0 ? " " : "");
          }
          assertThat(HtmlText.of(html.toString())).doesNotContain("</p>", "<br>");
        });
  }

  @Test
  void htmlNestedWithoutEndIsReadAllTheSame() {
    String html = "<div><b>".repeat(100_000) + "deep";
    assertThat(HtmlText.of(html)).contains("deep");
  }
}
