package org.ysthmos.core.step;

import java.math.BigDecimal;
import java.util.Comparator;
import java.util.Optional;
import org.ysthmos.core.document.DocumentNode;

/**
 * A span of numbers and what it gives.
 *
 * @param from the lowest number in it; empty if it is open below
 * @param to the highest number in it; empty if it is open above
 * @param below whether {@code to} itself is no longer in it
 * @param gives what the band says, as it is written
 */
public record Band(
    Optional<BigDecimal> from, Optional<BigDecimal> to, boolean below, String gives) {

  /** From the lowest to the highest. */
  static final Comparator<Band> FROM_BELOW =
      Comparator.comparing(
          Band::from,
          (a, b) ->
              a.isEmpty() || b.isEmpty()
                  ? Boolean.compare(a.isPresent(), b.isPresent())
                  : a.get().compareTo(b.get()));

  /**
   * Reads {@code 1..4}, {@code 1..<5}, {@code ..4}, {@code 8..} or {@code 7}.
   *
   * @throws org.ysthmos.core.document.DocumentException if it is no band
   */
  static Band read(String range, DocumentNode gives) {
    int dots = range.indexOf("..");
    String from = dots < 0 ? range : range.substring(0, dots);
    String to = dots < 0 ? range : range.substring(dots + 2);
    boolean below = to.startsWith("<");
    Band band =
        new Band(end(from, gives), end(below ? to.substring(1) : to, gives), below, gives.text());
    if (band.isEmpty()) {
      throw gives.refuse("the band “" + range + "” ends before it starts");
    }
    return band;
  }

  private static Optional<BigDecimal> end(String text, DocumentNode at) {
    if (text.isBlank()) {
      return Optional.empty();
    }
    try {
      return Optional.of(new BigDecimal(text.strip()));
    } catch (NumberFormatException e) {
      throw at.refuse("“" + text + "” is no number; write a band as \"8..10\": 1");
    }
  }

  private boolean isEmpty() {
    if (from.isEmpty() || to.isEmpty()) {
      return below && to.isEmpty();
    }
    int order = from.get().compareTo(to.get());
    return order > 0 || (order == 0 && below);
  }

  boolean holds(BigDecimal number) {
    if (from.isPresent() && from.get().compareTo(number) > 0) {
      return false;
    }
    return to.isEmpty() || number.compareTo(to.get()) < (below ? 0 : 1);
  }

  boolean overlaps(Band other) {
    return startsWithinOrBelow(other) && other.startsWithinOrBelow(this);
  }

  private boolean startsWithinOrBelow(Band other) {
    if (from.isEmpty() || other.to.isEmpty()) {
      return true;
    }
    return from.get().compareTo(other.to.get()) < (other.below ? 0 : 1);
  }

  /** The gap up to the next higher band, as a sentence; empty if there is none. */
  Optional<String> gapTo(Band next) {
    if (to.isEmpty() || next.from.isEmpty()) {
      return Optional.empty();
    }
    BigDecimal end = to.get();
    BigDecimal start = next.from.get();
    if (end.compareTo(start) >= 0) {
      return Optional.empty();
    }
    String plain = start.toPlainString();
    return Optional.of(
        below
            ? "Numbers from %s to below %s are in no band".formatted(end.toPlainString(), plain)
            : "Numbers between %s and %s, such as %s, are in no band; round first if none come"
                .formatted(
                    end.toPlainString(),
                    plain,
                    end.add(start).divide(BigDecimal.valueOf(2)).toPlainString()));
  }

  String words() {
    if (from.isEmpty() && to.isEmpty()) {
      return "any number";
    }
    if (from.isEmpty()) {
      return (below ? "below " : "up to ") + to.get().toPlainString();
    }
    if (to.isEmpty()) {
      return from.get().toPlainString() + " and up";
    }
    return from.equals(to)
        ? from.get().toPlainString()
        : from.get().toPlainString() + (below ? " to below " : "–") + to.get().toPlainString();
  }

  /** As documents write it. */
  String written() {
    String start = from.map(BigDecimal::toPlainString).orElse("");
    String end = (below ? "<" : "") + to.map(BigDecimal::toPlainString).orElse("");
    return from.isPresent() && from.equals(to) ? start : start + ".." + end;
  }
}
