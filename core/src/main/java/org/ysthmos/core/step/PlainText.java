package org.ysthmos.core.step;

import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.HtmlText;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;

/** Readable plain text out of HTML; see {@link HtmlText} for what becomes of what. */
public record PlainText() implements Step {

  static final StepKind KIND =
      StepKind.of(
              "plain-text",
              StepKind.Family.TEXT,
              "Readable plain text out of HTML: paragraphs, lists and links as people read them.")
          .example(
              "plain-text",
              "<p>Dear all,</p><ul><li>one bus<li>two guides</ul>",
              "Dear all,\n\n- one bus\n- two guides")
          .reads(options -> new PlainText());

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public String sentence() {
    return "as plain text";
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needsText(in);
    return Compiled.of(
        ValueType.TEXT,
        (value, reading) -> {
          String html = value.display();
          return html.length() > Text.LONGEST ? Text.tooLong() : Text.checked(HtmlText.of(html));
        });
  }
}
