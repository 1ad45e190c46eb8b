package org.ysthmos.core.event;

import java.math.BigInteger;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.regex.Pattern;

/**
 * A mark by which a system tells one version of a record from the next. Whole numbers and moments
 * (RFC 3339 section 5.6) say which is the later; of other marks, such as entity tags, only whether
 * they are the same is known.
 */
public final class VersionMark {

  private static final Pattern WHOLE = Pattern.compile("\\d{1,40}");

  private VersionMark() {}

  /**
   * Compares two marks of one record.
   *
   * @return below, at or above zero as {@code one} is earlier than, the same as or later than
   *     {@code other}; empty if that cannot be told
   */
  public static OptionalInt compare(String one, String other) {
    if (one.equals(other)) {
      return OptionalInt.of(0);
    }
    if (WHOLE.matcher(one).matches() && WHOLE.matcher(other).matches()) {
      return OptionalInt.of(new BigInteger(one).compareTo(new BigInteger(other)));
    }
    Optional<Instant> first = moment(one);
    Optional<Instant> second = moment(other);
    return first.isPresent() && second.isPresent()
        ? OptionalInt.of(Integer.signum(first.get().compareTo(second.get())))
        : OptionalInt.empty();
  }

  private static Optional<Instant> moment(String mark) {
    try {
      return Optional.of(OffsetDateTime.parse(mark).toInstant());
    } catch (DateTimeException noMoment) {
      return Optional.empty();
    }
  }
}
