package org.ysthmos.app.bridge;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.ToLongFunction;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.guard.BusyPast;
import org.ysthmos.core.guard.Ceiling;

/**
 * A ceiling, for people.
 *
 * @param perSeconds the span that it is for
 * @param limits one for each kind of effect
 */
public record CeilingView(long perSeconds, List<LimitView> limits) {

  /**
   * The most of one kind.
   *
   * @param busiest the busiest span so far, of which the most is reckoned; null if it is stated
   * @param busiestFrom when that began; null if it is stated or was never busy
   * @param times how often it happened: in the span that ends now, or at most in the span that was
   *     busiest with it among the events looked at
   */
  public record LimitView(
      EffectKind kind,
      long most,
      @Schema(nullable = true) @Nullable Long busiest,
      @Schema(nullable = true) @Nullable Instant busiestFrom,
      long times) {}

  public static CeilingView of(Ceiling ceiling, ToLongFunction<EffectKind> times) {
    return new CeilingView(
        ceiling.per().toSeconds(),
        Ceiling.KINDS.stream()
            .map(kind -> limit(kind, ceiling.limit(kind), times.applyAsLong(kind)))
            .toList());
  }

  private static LimitView limit(EffectKind kind, Ceiling.Limit limit, long times) {
    Optional<BusyPast> busy = limit.reckoned();
    return new LimitView(
        kind,
        limit.most(),
        busy.map(BusyPast::effects).orElse(null),
        busy.filter(past -> past.effects() > 0).map(BusyPast::from).orElse(null),
        times);
  }
}
