package org.ysthmos.core.step;

import java.util.List;
import java.util.SequencedMap;
import java.util.Set;
import java.util.stream.Collectors;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.Letters;
import org.ysthmos.core.text.WhiteSpace;
import org.ysthmos.core.value.Flag;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;

/**
 * Reads a text as yes or no.
 *
 * @param yes the words for yes, in any case
 * @param no the words for no, in any case
 */
public record ReadFlag(List<String> yes, List<String> no) implements Step {

  private static final List<String> USUAL_YES = List.of("yes", "true", "1");
  private static final List<String> USUAL_NO = List.of("no", "false", "0");

  static final StepKind KIND =
      StepKind.of("read-flag", StepKind.Family.TABLE, "Reads a text as yes or no, by stated words.")
          .with(
              Option.optional(
                  "yes", Option.Plain.TEXTS, "the words for yes; yes, true, 1 if not said"))
          .with(
              Option.optional(
                  "no", Option.Plain.TEXTS, "the words for no; no, false, 0 if not said"))
          .example("read-flag", "Yes", "yes")
          .example("read-flag: { yes: [sim], no: [não] }", "não", "no")
          .example("read-flag", "perhaps", "“perhaps” is neither yes, true, 1 nor no, false, 0")
          .reads(
              options ->
                  new ReadFlag(
                      options.get("yes").map(DocumentNode::texts).orElse(USUAL_YES),
                      options.get("no").map(DocumentNode::texts).orElse(USUAL_NO)));

  public ReadFlag {
    yes = List.copyOf(yes);
    no = List.copyOf(no);
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.and(Written.and(Written.nothing(), "yes", yes, USUAL_YES), "no", no, USUAL_NO);
  }

  @Override
  public String sentence() {
    return "read as yes (%s) or no (%s)".formatted(String.join(", ", yes), String.join(", ", no));
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needsText(in);
    Set<String> yesWords = withoutCase(yes);
    Set<String> noWords = withoutCase(no);
    return Compiled.of(
        ValueType.FLAG,
        (value, reading) -> {
          String word = Letters.withoutCase(WhiteSpace.strip(value.display()));
          if (yesWords.contains(word)) {
            return Flag.YES;
          }
          return noWords.contains(word) ? Flag.NO : neither(value.display());
        });
  }

  private static Set<String> withoutCase(List<String> words) {
    return words.stream().map(Letters::withoutCase).collect(Collectors.toUnmodifiableSet());
  }

  private Problem neither(String text) {
    return new Problem(
        "“%s” is neither %s nor %s".formatted(text, String.join(", ", yes), String.join(", ", no)),
        text,
        "Correct it at its source, or add the word to the rule, then send again");
  }
}
