package org.ysthmos.core.reference;

import org.ysthmos.core.compare.Operators;
import org.ysthmos.core.step.Option;
import org.ysthmos.core.step.StepKind;
import org.ysthmos.core.step.StepKinds;

/** The reference page of all steps and operators, in Markdown, made from their own descriptions. */
public final class StepReference {

  private StepReference() {}

  public static String write() {
    StringBuilder page = new StringBuilder();
    page.append("# Steps and operators\n\n")
        .append("Made from the descriptions in the code; a test runs every example. A step is\n")
        .append("written as its name, as its name with its first option where that may stand by\n")
        .append("itself, or as its name with a group of options. An absent value passes through\n")
        .append("a chain untouched, but for the steps under “Any value” and `count`.\n");
    for (StepKind.Family family : StepKind.Family.values()) {
      page.append("\n## ").append(family.title()).append('\n');
      StepKinds.ALL.stream()
          .filter(kind -> kind.family() == family)
          .forEach(kind -> step(kind, page));
    }
    operators(page);
    return page.toString();
  }

  private static void step(StepKind kind, StringBuilder page) {
    page.append("\n### ").append(kind.name()).append("\n\n").append(kind.summary()).append("\n");
    if (!kind.options().isEmpty() || kind.testing()) {
      page.append("\n| option | what it says |\n|---|---|\n");
      if (kind.testing()) {
        page.append("| an operator | the test; see below |\n");
      }
      for (int i = 0; i < kind.options().size(); i++) {
        option(kind.options().get(i), kind.bare() && i == 0, page);
      }
    }
    page.append("\n| example | of | gives |\n|---|---|---|\n");
    for (StepKind.Example example : kind.examples()) {
      page.append("| `")
          .append(cell(example.written()))
          .append("` | ")
          .append(shown(example.in().display()))
          .append(" | ")
          .append(shown(example.gives()))
          .append(" |\n");
    }
  }

  private static void option(Option option, boolean bare, StringBuilder page) {
    page.append("| `").append(option.name()).append('`');
    if (bare) {
      page.append(", may stand by itself");
    }
    page.append(" | ").append(cell(option.about()));
    if (option.type() instanceof Option.Words words) {
      page.append(": `").append(String.join("`, `", words.words())).append('`');
    }
    page.append(option.required() ? "" : " (may be left out)").append(" |\n");
  }

  private static void operators(StringBuilder page) {
    page.append("\n## Operators\n\n")
        .append("In a test of a condition, and in the steps that test. What a value is compared\n")
        .append("with is written as it is, or as `{ value: address }` for another field. An\n")
        .append("absent value is only ever empty.\n\n| operator | what it asks |\n|---|---|\n");
    Operators.KEYS.forEach(
        (key, asks) ->
            page.append("| `").append(key).append("` | ").append(cell(asks)).append(" |\n"));
  }

  private static String cell(String text) {
    return text.replace("|", "\\|");
  }

  private static String shown(String text) {
    return text.isEmpty() ? "nothing" : "`" + cell(text).replace("\n", "`<br>`") + "`";
  }
}
