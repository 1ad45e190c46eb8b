package org.ysthmos.core.step;

import java.util.Arrays;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.SequencedMap;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.TextLength;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/**
 * Shortens a text to fit, at the end of a word where one ends in the last third, with an ellipsis.
 * Never cuts inside a grapheme cluster (Unicode UAX 29), so neither through a surrogate pair nor
 * before a combining mark.
 *
 * @param to the most that is kept, the ellipsis included; empty for as much as the target keeps
 * @param countedIn how length is counted; by itself as the target counts
 */
public record Shorten(OptionalInt to, Optional<TextLength> countedIn) implements Step {

  private static final String ELLIPSIS = "…";
  private static final int SHORTEST = 4;

  static final StepKind KIND =
      StepKind.of(
              "shorten",
              StepKind.Family.TEXT,
              "Shortens a text at a word, ending in an ellipsis, and says so in a warning; by"
                  + " itself to what the target keeps, counted as the target counts.")
          .bare(Option.optional("to", Option.Plain.WHOLE_NUMBER, "the most that is kept"))
          .with(
              Option.optional(
                  "counted-in",
                  new Option.Words(
                      Arrays.stream(TextLength.values()).map(TextLength::key).toList()),
                  "how length is counted; as the target counts if not said"))
          .example("shorten: 20", "The door does not close at all", "The door does not…")
          .example("shorten: { to: 11, counted-in: bytes }", "Jardim botânico", "Jardim…")
          .reads(Shorten::read);

  private static Step read(StepOptions options) {
    Optional<TextLength> countedIn =
        options
            .get("counted-in")
            .map(
                node ->
                    TextLength.parse(node.text())
                        .orElseThrow(
                            () ->
                                node.refuse(
                                    Nearest.unknown(
                                        "count",
                                        node.text(),
                                        Arrays.stream(TextLength.values())
                                            .map(TextLength::key)
                                            .toList()))));
    return new Shorten(
        options.has("to")
            ? OptionalInt.of(options.whole("to", SHORTEST, Text.LONGEST))
            : OptionalInt.empty(),
        countedIn);
  }

  public static Shorten to(int longest) {
    return new Shorten(OptionalInt.of(longest), Optional.empty());
  }

  /**
   * The step with what it leaves to the target filled in.
   *
   * @throws Misfit if the target states no length and neither does the step
   */
  public Shorten forTarget(FieldShape target) {
    if (to.isEmpty() && target.longest().isEmpty()) {
      throw new Misfit(
          target.name()
              + " does not say how much it keeps; state a length, for example shorten: 120");
    }
    return new Shorten(
        to.isPresent() ? to : target.longest(), Optional.of(countedIn.orElse(target.countedIn())));
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.nothing();
    to.ifPresent(longest -> options.put("to", longest));
    countedIn.ifPresent(unit -> options.put("counted-in", unit.key()));
    return options;
  }

  @Override
  public String sentence() {
    return to.isEmpty()
        ? "shortened to what the target keeps"
        : "shortened to %d %s"
            .formatted(to.getAsInt(), countedIn.orElse(TextLength.CODE_UNITS).words());
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needsText(in);
    if (to.isEmpty()) {
      throw new Misfit("states no length; write for example shorten: 120");
    }
    int longest = to.getAsInt();
    TextLength unit = countedIn.orElse(TextLength.CODE_UNITS);
    return Compiled.of(
        ValueType.TEXT,
        (value, reading) -> {
          String text = value.display();
          if (unit.fits(text, longest)) {
            return value;
          }
          return new Warned(
              Text.of(cut(text, longest, unit)),
              "shortened from %d to %d %s".formatted(unit.of(text), longest, unit.words()));
        });
  }

  private static String cut(String text, int longest, TextLength unit) {
    int end = unit.cut(text, longest - unit.of(ELLIPSIS));
    int space = text.lastIndexOf(' ', end);
    int cut = space > end * 2 / 3 ? space : end;
    return text.substring(0, cut).stripTrailing() + ELLIPSIS;
  }
}
