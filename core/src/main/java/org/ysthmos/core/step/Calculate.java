package org.ysthmos.core.step;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Arrays;
import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.ValueType;

/**
 * Calculates with a number; exact, but for a division, which is rounded half up.
 *
 * @param places how many places a division keeps
 */
public record Calculate(Operation operation, Amount amount, int places) implements Step {

  /** What is done with the number. */
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
              "calculate",
              StepKind.Family.NUMBER,
              "Calculates with a number, exactly; it is written down, or stands in a field"
                  + " `{ value: address, otherwise: number }`.")
          .with(Option.optional("plus", Option.Plain.AMOUNT, "is added"))
          .with(Option.optional("minus", Option.Plain.AMOUNT, "is taken away"))
          .with(Option.optional("times", Option.Plain.AMOUNT, "is multiplied by"))
          .with(Option.optional("divided-by", Option.Plain.AMOUNT, "is divided by"))
          .with(
              Option.optional(
                  "places",
                  Option.Plain.WHOLE_NUMBER,
                  "how many places a division keeps, rounded half up; 10 if not said"))
          .example("calculate: { times: 0.1 }", Decimal.parse("3"), "0.3")
          .example("calculate: { divided-by: 3, places: 2 }", Decimal.parse("10"), "3.33")
          .example("calculate: { times: { value: /days } }", Decimal.of(4), "120")
          .example(
              "calculate: { divided-by: { value: /none } }",
              Decimal.of(4),
              "none: nothing can be divided by 0")
          .example("calculate: { divided-by: { value: /none, otherwise: 2 } }", Decimal.of(4), "2")
          .reads(Calculate::read);

  private static Step read(StepOptions options) {
    List<Operation> given =
        Arrays.stream(Operation.values())
            .filter(operation -> options.has(DocumentNode.wordOf(operation)))
            .toList();
    if (given.size() != 1) {
      throw options.refuse("write one of plus, minus, times or divided-by");
    }
    Operation operation = given.getFirst();
    Amount amount = Amount.read(options.node(DocumentNode.wordOf(operation)), range(operation));
    int places = options.has("places") ? options.whole("places", 0, 100) : USUAL_PLACES;
    return new Calculate(operation, amount, places);
  }

  private static Amount.Range range(Operation operation) {
    return operation == Operation.DIVIDED_BY ? Amount.Range.DIVISOR : Amount.Range.ANY;
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.and(
        Written.of(DocumentNode.wordOf(operation), amount.toDocument()),
        "places",
        places,
        USUAL_PLACES);
  }

  @Override
  public String sentence() {
    return operation.words + (amount.isNegative() ? " −" : " ") + amount.sentence();
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(
        in.equals(ValueType.NUMBER), in, "a number", "read it as a number first (read-number)");
    Amount.Compiled with = amount.compile(range(operation), scope);
    return Compiled.of(
        ValueType.NUMBER,
        (value, reading) -> {
          Computed number = with.read(reading);
          return number instanceof Decimal by
              ? Decimal.checked(of(((Decimal) value).number(), by.number()))
              : number;
        });
  }

  private BigDecimal of(BigDecimal value, BigDecimal number) {
    return switch (operation) {
      case PLUS -> value.add(number);
      case MINUS -> value.subtract(number);
      case TIMES -> value.multiply(number);
      case DIVIDED_BY -> value.divide(number, places, RoundingMode.HALF_UP);
    };
  }
}
