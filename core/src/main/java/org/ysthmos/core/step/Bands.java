package org.ysthmos.core.step;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;

/** Puts a number into one of several bands and gives the band's number. */
public record Bands(List<Band> bands) implements Step {

  /** From {@code from} to {@code to}, both included; an absent end is open. */
  public record Band(Optional<BigDecimal> from, Optional<BigDecimal> to, Decimal gives) {

    boolean holds(BigDecimal number) {
      return from.map(f -> f.compareTo(number) <= 0).orElse(true)
          && to.map(t -> t.compareTo(number) >= 0).orElse(true);
    }

    boolean overlaps(Band other) {
      return startsBeforeEndOf(other) && other.startsBeforeEndOf(this);
    }

    private boolean startsBeforeEndOf(Band other) {
      return from.isEmpty() || other.to.isEmpty() || from.get().compareTo(other.to.get()) <= 0;
    }

    String words() {
      if (from.isEmpty() && to.isEmpty()) {
        return "any number";
      }
      if (from.isEmpty()) {
        return "up to " + to.get().toPlainString();
      }
      if (to.isEmpty()) {
        return from.get().toPlainString() + " and up";
      }
      return from.get().toPlainString() + "–" + to.get().toPlainString();
    }
  }

  static final StepKind KIND =
      new StepKind(
          "bands",
          "Puts a number into a band and gives the band's number; an end left out is open.",
          "bands: { \"8..10\": 1, \"5..7\": 3, \"..4\": 6 }",
          Bands::read);

  public Bands {
    bands = List.copyOf(bands);
  }

  private static Step read(DocumentNode node) {
    List<Band> bands = new ArrayList<>();
    for (Map.Entry<String, DocumentNode> entry : node.group().entrySet()) {
      Band band = band(entry.getKey(), entry.getValue());
      for (Band earlier : bands) {
        if (band.overlaps(earlier)) {
          throw entry
              .getValue()
              .refuse("the bands " + earlier.words() + " and " + band.words() + " overlap");
        }
      }
      bands.add(band);
    }
    if (bands.isEmpty()) {
      throw node.refuse("at least one band is needed");
    }
    return new Bands(bands);
  }

  private static Band band(String range, DocumentNode gives) {
    int dots = range.indexOf("..");
    String from = dots < 0 ? range : range.substring(0, dots);
    String to = dots < 0 ? range : range.substring(dots + 2);
    Band band = new Band(end(from, gives), end(to, gives), number(gives.text(), gives));
    if (band.from.isPresent()
        && band.to.isPresent()
        && band.from.get().compareTo(band.to.get()) > 0) {
      throw gives.refuse("the band “" + range + "” ends before it starts");
    }
    return band;
  }

  private static Optional<BigDecimal> end(String text, DocumentNode at) {
    return text.isBlank() ? Optional.empty() : Optional.of(number(text.strip(), at).number());
  }

  private static Decimal number(String text, DocumentNode at) {
    try {
      return Decimal.parse(text);
    } catch (NumberFormatException e) {
      throw at.refuse("“" + text + "” is no number; write a band as \"8..10\": 1");
    }
  }

  @Override
  public String sentence() {
    return "in bands "
        + bands.stream()
            .map(band -> band.words() + " → " + band.gives().display())
            .collect(Collectors.joining(", "));
  }

  @Override
  public Typing typing(ValueType in) {
    return Typing.of(
        ValueType.NUMBER, in, ValueType.NUMBER, "read it as a number first (read-number)");
  }

  @Override
  public Function compile() {
    Band[] all = bands.toArray(Band[]::new);
    return in -> {
      BigDecimal number = ((Decimal) in).number();
      for (Band band : all) {
        if (band.holds(number)) {
          return band.gives();
        }
      }
      return new Problem(
          in.display()
              + " is in none of the bands "
              + bands.stream().map(Band::words).collect(Collectors.joining(", ")),
          in.display(),
          "Correct the number at its source, or add a band that holds it, then send again");
    };
  }
}
