package org.ysthmos.core.step;

import java.text.BreakIterator;
import java.util.Locale;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/**
 * Shortens a text to fit, at the end of a word where one ends in the last third, with an ellipsis.
 * Never cuts inside a grapheme cluster (Unicode UAX 29, as the JDK's break iterator sees it).
 *
 * @param longest the most UTF-16 code units kept, the ellipsis included
 */
public record Shorten(int longest) implements Step {

  static final StepKind KIND =
      new StepKind(
          "shorten",
          "Shortens a text to at most so many characters, at a word, ending in an ellipsis.",
          "shorten: 120",
          node -> {
            int longest = node.wholeNumber();
            if (longest < 2) {
              throw node.refuse("a text cannot be shortened to fewer than 2 characters");
            }
            return new Shorten(longest);
          });

  @Override
  public String sentence() {
    return "shortened to " + longest + " characters";
  }

  @Override
  public Typing typing(ValueType in) {
    return Typing.of(ValueType.TEXT, in, ValueType.TEXT, "put it into a text first");
  }

  @Override
  public Function compile() {
    return in -> {
      String text = in.display();
      if (text.length() <= longest) {
        return in;
      }
      return new Warned(
          Text.of(cut(text)), "shortened from " + text.length() + " to " + longest + " characters");
    };
  }

  private String cut(String text) {
    int room = longest - 1;
    BreakIterator clusters = BreakIterator.getCharacterInstance(Locale.ROOT);
    clusters.setText(text);
    int end = clusters.isBoundary(room) ? room : clusters.preceding(room);
    int space = text.lastIndexOf(' ', end);
    int cut = space > end * 2 / 3 ? space : end;
    return text.substring(0, cut).stripTrailing() + "…";
  }
}
