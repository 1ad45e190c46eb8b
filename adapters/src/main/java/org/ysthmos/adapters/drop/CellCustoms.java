package org.ysthmos.adapters.drop;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.DayPattern;
import org.ysthmos.core.text.NumberText;
import org.ysthmos.core.value.ValueType;

/**
 * How numbers and days stand in cells. Those of the fields that the document says to be numbers or
 * days are written anew, as JSON and RFC 3339 have them; all others stay as they are.
 */
final class CellCustoms {

  private final Optional<NumberText> numbers;
  private final List<DayPattern> days;
  private final String said;
  private final Set<String> numberCells = new HashSet<>();
  private final Set<String> dayCells = new HashSet<>();

  /**
   * @param language whose decimal and grouping signs numbers have, and whose names months; empty if
   *     numbers are written as JSON has them
   * @param patterns how days are written; none if as RFC 3339 has them
   * @param fields those of the records
   * @throws IllegalArgumentException if one is no pattern, or says no whole day
   */
  CellCustoms(Optional<Locale> language, List<String> patterns, List<FieldShape> fields) {
    this.numbers = language.map(NumberText::of);
    Locale names = language.orElse(Locale.ENGLISH);
    this.days = patterns.stream().map(one -> DayPattern.of(one, names)).toList();
    this.said = String.join("” or “", patterns);
    for (FieldShape field : fields) {
      Pointer at = Pointer.parse(field.key());
      if (field.type().equals(ValueType.NUMBER)) {
        numberCells.add(at.lastToken());
      } else if (field.type().equals(ValueType.DAY)) {
        dayCells.add(at.lastToken());
      }
    }
  }

  /**
   * A cell as it stands in the record.
   *
   * @param line for the message
   * @throws Unreadable if it is no number or no day
   */
  String cell(String header, String text, long line) throws Unreadable {
    if (text.isBlank()) {
      return text;
    }
    if (numbers.isPresent() && numberCells.contains(header)) {
      Optional<BigDecimal> number = numbers.get().read(text.strip());
      return number
          .map(BigDecimal::toPlainString)
          .orElseThrow(() -> new Unreadable(no(header, text, line, "number in that language")));
    }
    if (!days.isEmpty() && dayCells.contains(header)) {
      return days.stream()
          .flatMap(pattern -> pattern.read(text.strip()).stream())
          .findFirst()
          .map(LocalDate::toString)
          .orElseThrow(() -> new Unreadable(no(header, text, line, "day written “" + said + "”")));
    }
    return text;
  }

  private static String no(String header, String text, long line, String what) {
    return "line %d, %s: “%s” is no %s".formatted(line, header, text, what);
  }
}
