package org.ysthmos.core.step;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import java.util.stream.Collectors;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * Puts a number into one of several bands and gives what the band says: a number if all bands say
 * numbers, else a choice.
 */
public record Bands(List<Band> bands) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "bands",
              StepKind.Family.NUMBER,
              "Puts a number into a band and gives what the band says: a number if all bands say"
                  + " numbers, else a choice. `1..4` holds both ends, `1..<5` all below 5; an end"
                  + " left out is open. Overlaps are refused, gaps are remarked on.")
          .bare(Option.required("bands", Option.Plain.BANDS, "each band and what it gives"))
          .example("bands: { \"8..10\": 1, \"5..7\": 3, \"..4\": 6 }", Decimal.parse("7"), "3")
          .example("bands: { \"..<2.5\": low, \"2.5..\": high }", Decimal.parse("2.5"), "high")
          .example(
              "bands: { \"8..10\": 1, \"5..7\": 3 }",
              Decimal.parse("4"),
              "4 is in none of the bands 8–10, 5–7")
          .reads(Bands::read);

  public Bands {
    bands = List.copyOf(bands);
  }

  private static Step read(StepOptions options) {
    DocumentNode node = options.node("bands");
    List<Band> bands = new ArrayList<>();
    for (Map.Entry<String, DocumentNode> entry : node.group().entrySet()) {
      DocumentNode gives = entry.getValue();
      Band band = Band.read(entry.getKey(), gives);
      for (Band earlier : bands) {
        if (band.overlaps(earlier)) {
          throw gives.refuse("the bands " + earlier.words() + " and " + band.words() + " overlap");
        }
      }
      bands.add(band);
    }
    if (bands.isEmpty()) {
      throw node.refuse("at least one band is needed");
    }
    return new Bands(bands);
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> written = Written.nothing();
    bands.forEach(band -> written.put(band.written(), band.gives()));
    return Written.of("bands", written);
  }

  @Override
  public String sentence() {
    return "in bands "
        + bands.stream()
            .map(band -> band.words() + " → " + band.gives())
            .collect(Collectors.joining(", "));
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(
        in.equals(ValueType.NUMBER), in, "a number", "read it as a number first (read-number)");
    ValueType gives = gives();
    Band[] all = bands.toArray(Band[]::new);
    Value[] values =
        bands.stream().map(b -> Constant.parse(b.gives(), gives)).toArray(Value[]::new);
    return new Compiled(
        gives,
        (value, reading) -> {
          BigDecimal number = ((Decimal) value).number();
          for (int i = 0; i < all.length; i++) {
            if (all[i].holds(number)) {
              return values[i];
            }
          }
          return inNone(value);
        },
        gaps());
  }

  private ValueType gives() {
    for (Band band : bands) {
      try {
        Constant.parse(band.gives(), ValueType.NUMBER);
      } catch (IllegalArgumentException notANumber) {
        return ValueType.CHOICE;
      }
    }
    return ValueType.NUMBER;
  }

  private Problem inNone(Value value) {
    return new Problem(
        value.display()
            + " is in none of the bands "
            + bands.stream().map(Band::words).collect(Collectors.joining(", ")),
        value.display(),
        "Correct the number at its source, or add a band that holds it, then send again");
  }

  /** The numbers between two bands that neither of them holds, each gap as a sentence. */
  private List<String> gaps() {
    List<Band> ordered = bands.stream().sorted(Band.FROM_BELOW).toList();
    List<String> gaps = new ArrayList<>();
    for (int i = 1; i < ordered.size(); i++) {
      ordered.get(i - 1).gapTo(ordered.get(i)).ifPresent(gaps::add);
    }
    return gaps;
  }
}
