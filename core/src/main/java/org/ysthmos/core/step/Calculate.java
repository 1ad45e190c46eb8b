package org.ysthmos.core.step;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Arrays;
import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.ValueType;

/**
 * Calculates with a constant; exact, but for a division, which is rounded half up.
 *
 * @param places how many places a division keeps
 */
public record Calculate(Operation operation, BigDecimal number, int places) implements Step {

  /** What is done with the constant. */
  public enum Operation {
    PLUS("plus"),
    MINUS("minus"),
    TIMES("times"),
    DIVIDED_BY("divided by");

    private final String words;

    Operation(String words) {
      this.words = words;
    }
  }

  private static final int USUAL_PLACES = 10;

  static final StepKind KIND =
      StepKind.of(
              "calculate", StepKind.Family.NUMBER, "Calculates with a constant number, exactly.")
          .with(Option.optional("plus", Option.Plain.NUMBER, "is added"))
          .with(Option.optional("minus", Option.Plain.NUMBER, "is taken away"))
          .with(Option.optional("times", Option.Plain.NUMBER, "is multiplied by"))
          .with(Option.optional("divided-by", Option.Plain.NUMBER, "is divided by"))
          .with(
              Option.optional(
                  "places",
                  Option.Plain.WHOLE_NUMBER,
                  "how many places a division keeps, rounded half up; 10 if not said"))
          .example("calculate: { times: 0.1 }", Decimal.parse("3"), "0.3")
          .example("calculate: { divided-by: 3, places: 2 }", Decimal.parse("10"), "3.33")
          .reads(Calculate::read);

  private static Step read(StepOptions options) {
    List<Operation> given =
        Arrays.stream(Operation.values())
            .filter(operation -> options.has(DocumentNode.wordOf(operation)))
            .toList();
    if (given.size() != 1) {
      throw options.refuse("write one of plus, minus, times or divided-by");
    }
    DocumentNode node = options.node(DocumentNode.wordOf(given.getFirst()));
    BigDecimal number = node.number();
    if (!(Decimal.checked(number) instanceof Decimal)) {
      throw node.refuse("the number has too many digits");
    }
    if (given.getFirst() == Operation.DIVIDED_BY && number.signum() == 0) {
      throw node.refuse("nothing can be divided by 0");
    }
    int places = options.has("places") ? options.whole("places", 0, 100) : USUAL_PLACES;
    return new Calculate(given.getFirst(), number, places);
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.and(
        Written.of(DocumentNode.wordOf(operation), number), "places", places, USUAL_PLACES);
  }

  @Override
  public String sentence() {
    return operation.words + " " + number.toPlainString();
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(
        in.equals(ValueType.NUMBER), in, "a number", "read it as a number first (read-number)");
    return Compiled.of(
        ValueType.NUMBER, (value, reading) -> Decimal.checked(of(((Decimal) value).number())));
  }

  private BigDecimal of(BigDecimal value) {
    return switch (operation) {
      case PLUS -> value.add(number);
      case MINUS -> value.subtract(number);
      case TIMES -> value.multiply(number);
      case DIVIDED_BY -> value.divide(number, places, RoundingMode.HALF_UP);
    };
  }
}
