package org.ysthmos.core.step;

import java.math.RoundingMode;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.ValueType;

/**
 * Rounds a number.
 *
 * @param places how many places behind the point are kept; negative for tens, hundreds and so on
 * @param how what becomes of what is cut off
 */
public record Round(int places, How how) implements Step {

  /** Ways of rounding, as java.math.RoundingMode defines them. */
  public enum How {
    HALF_UP("half up", RoundingMode.HALF_UP),
    HALF_EVEN("half to even", RoundingMode.HALF_EVEN),
    UP("up", RoundingMode.CEILING),
    DOWN("down", RoundingMode.FLOOR);

    private final String words;
    private final RoundingMode mode;

    How(String words, RoundingMode mode) {
      this.words = words;
      this.mode = mode;
    }
  }

  static final StepKind KIND =
      StepKind.of("round", StepKind.Family.NUMBER, "Rounds a number to so many places.")
          .bare(
              Option.required(
                  "places",
                  Option.Plain.WHOLE_NUMBER,
                  "how many places are kept; -1 for tens, -2 for hundreds"))
          .with(Option.optional("how", Option.Words.of(How.class), "half up if not said"))
          .example("round: 1", Decimal.parse("2.25"), "2.3")
          .example("round: { places: 0, how: half-even }", Decimal.parse("2.5"), "2")
          .example("round: -2", Decimal.parse("1250"), "1300")
          .reads(
              options ->
                  new Round(
                      options.whole("places", -100, 100),
                      options.word("how", How.class, How.HALF_UP)));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.and(Written.of("places", places), "how", how, How.HALF_UP);
  }

  @Override
  public String sentence() {
    return switch (places) {
      case 0 -> "rounded " + how.words + " to a whole number";
      case 1 -> "rounded " + how.words + " to 1 place";
      default ->
          places > 0
              ? "rounded %s to %d places".formatted(how.words, places)
              : "rounded %s to 1%s".formatted(how.words, "0".repeat(-places));
    };
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(
        in.equals(ValueType.NUMBER), in, "a number", "read it as a number first (read-number)");
    return Compiled.of(
        ValueType.NUMBER,
        (value, reading) -> Decimal.checked(((Decimal) value).number().setScale(places, how.mode)));
  }
}
