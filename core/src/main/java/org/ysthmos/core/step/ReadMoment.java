package org.ysthmos.core.step;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.RoundingMode;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.NumberText;
import org.ysthmos.core.text.WhiteSpace;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;

/**
 * Reads a text as a moment: RFC 3339, which says its offset; a pattern in a stated zone; or a count
 * since the Epoch of POSIX (IEEE Std 1003.1, section 4.16), which may come as a number.
 *
 * @param pattern a {@link DateTimeFormatter} pattern, {@code iso} for 2026-11-30T17:00, or {@code
 *     epoch-seconds} or {@code epoch-milliseconds}; empty for RFC 3339
 * @param zone where the clock stood that was read; UTC where what is written says its own offset
 */
public record ReadMoment(Optional<String> pattern, Locale locale, ZoneId zone) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "read-moment",
              StepKind.Family.DATE,
              "Reads a text as a moment: RFC 3339 by itself, or a pattern in a stated zone."
                  + " `epoch-seconds` and `epoch-milliseconds` read a count since 1970 (UTC), from"
                  + " a text or a number.")
          .with(
              Option.optional(
                  "pattern",
                  Option.Plain.TEXT,
                  "how day and time are written; RFC 3339 if not said"))
          .with(Option.optional("locale", Option.Plain.LOCALE, "whose names; English if not said"))
          .with(Option.optional("zone", Option.Plain.ZONE, "where the clock stood; with a pattern"))
          .example("read-moment", "2026-11-30T18:00:00+01:00", "2026-11-30T17:00:00Z")
          .example(
              "read-moment: { pattern: \"d MMM uuuu, HH:mm\", zone: America/Halifax }",
              "30 Nov 2026, 13:00",
              "2026-11-30T17:00:00Z")
          .example("read-moment: { pattern: epoch-seconds }", "1796058000", "2026-11-30T17:00:00Z")
          .example(
              "read-moment: { pattern: epoch-milliseconds }",
              Decimal.of(1_796_058_000_500L),
              "2026-11-30T17:00:00.500Z")
          .reads(ReadMoment::read);

  /** The words for counts since 1970, and how many of them are a second, as a power of ten. */
  private static final Map<String, Integer> EPOCHS =
      Map.of("epoch-seconds", 0, "epoch-milliseconds", 3);

  private static final NumberText COUNTS = NumberText.of(Locale.ROOT);
  private static final int LONGEST_COUNT = 40;
  private static final int NANO_TENS = 9;

  private static Step read(StepOptions options) {
    Locale locale = options.locale();
    if (!options.has("pattern")) {
      if (options.has("zone")) {
        throw options
            .node("zone")
            .refuse("RFC 3339 says its own offset; a zone goes with a pattern");
      }
      return new ReadMoment(Optional.empty(), locale, ZoneOffset.UTC);
    }
    if (EPOCHS.containsKey(options.text("pattern"))) {
      if (options.has("zone") || options.has("locale")) {
        throw options
            .node("pattern")
            .refuse("a count since 1970 is the same everywhere; leave zone and locale out");
      }
      return new ReadMoment(Optional.of(options.text("pattern")), locale, ZoneOffset.UTC);
    }
    if (!options.has("zone")) {
      throw options
          .node("pattern")
          .refuse("say where the clock stood, for example zone: Europe/Lisbon");
    }
    options.parsed("pattern", pattern -> DatePatterns.dayAndTime(pattern, locale));
    return new ReadMoment(Optional.of(options.text("pattern")), locale, options.zone("zone"));
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.nothing();
    pattern.ifPresent(written -> options.put("pattern", written));
    Written.and(options, "locale", locale.toLanguageTag(), "en");
    if (pattern.isPresent() && epoch().isEmpty()) {
      options.put("zone", zone.getId());
    }
    return options;
  }

  @Override
  public String sentence() {
    return "read as a moment " + way();
  }

  /** How many tens a second is counted in; empty where no count is read. */
  private Optional<Integer> epoch() {
    return pattern.map(EPOCHS::get);
  }

  private String way() {
    if (epoch().isPresent()) {
      return "counted in " + pattern.orElseThrow().substring("epoch-".length()) + " since 1970";
    }
    return pattern
        .map(written -> "written “%s” in %s".formatted(written, AtTime.placeName(zone)))
        .orElse("written as RFC 3339");
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Optional<Integer> epoch = epoch();
    Step.needs(
        in.equals(ValueType.TEXT) || (epoch.isPresent() && in.equals(ValueType.NUMBER)),
        in,
        "a text",
        in.equals(ValueType.NUMBER)
            ? "a number is a moment only as a count (pattern: epoch-seconds)"
            : "a moment is read from a text");
    if (epoch.isPresent()) {
      return Compiled.of(
          ValueType.MOMENT,
          (value, reading) -> counted(WhiteSpace.strip(value.display()), epoch.get()));
    }
    if (pattern.isEmpty()) {
      return Compiled.of(
          ValueType.MOMENT, (value, reading) -> rfc3339(WhiteSpace.strip(value.display())));
    }
    DateTimeFormatter formatter = DatePatterns.dayAndTime(pattern.get(), locale);
    return Compiled.of(
        ValueType.MOMENT,
        (value, reading) -> {
          String text = DatePatterns.plain(WhiteSpace.strip(value.display()));
          try {
            return AtTime.at(LocalDateTime.parse(text, formatter), zone);
          } catch (DateTimeParseException notThisWay) {
            return unread(text, DatePatterns.contradiction(text, formatter, locale));
          }
        });
  }

  private Computed rfc3339(String text) {
    try {
      return Moment.read(text);
    } catch (DateTimeParseException notThisWay) {
      return unread(text, Optional.empty());
    }
  }

  /** A count with a fraction, too; what is finer than a nanosecond is left out. */
  private Computed counted(String text, int tens) {
    Optional<BigDecimal> count = COUNTS.read(text);
    if (count.isEmpty() || text.length() > LONGEST_COUNT) {
      return unread(text, Optional.empty());
    }
    BigDecimal nanos = count.get().movePointRight(NANO_TENS - tens).setScale(0, RoundingMode.FLOOR);
    BigInteger[] parts = floorDivided(nanos.toBigInteger());
    try {
      return Moment.checked(
          Instant.ofEpochSecond(parts[0].longValueExact(), parts[1].longValueExact()));
    } catch (ArithmeticException | DateTimeException tooFar) {
      return Day.outside(text);
    }
  }

  private static BigInteger[] floorDivided(BigInteger nanos) {
    BigInteger second = BigInteger.TEN.pow(NANO_TENS);
    BigInteger rest = nanos.mod(second);
    return new BigInteger[] {nanos.subtract(rest).divide(second), rest};
  }

  private Problem unread(String text, Optional<String> because) {
    return new Problem(
        because.orElse("“%s” is no moment %s".formatted(text, way())),
        text,
        "Correct it at its source, or change how the bridge reads the moment, then send again");
  }
}
