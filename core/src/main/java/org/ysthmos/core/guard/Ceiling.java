package org.ysthmos.core.guard;

import java.time.Duration;
import java.util.Collections;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.delivery.EffectKind;

/**
 * The most that a bridge may do in any span of a length, for each kind of effect. What its document
 * does not state is reckoned from the bridge's own past.
 *
 * @param per how long the span is
 * @param limits one for each of {@link #KINDS}
 */
public record Ceiling(Duration per, Map<EffectKind, Limit> limits) {

  /** What a ceiling bounds. Taking back is asked for by a person, and bounded by what was made. */
  public static final List<EffectKind> KINDS =
      List.of(EffectKind.CREATE, EffectKind.CHANGE, EffectKind.MESSAGE);

  /** The span where a document states none. */
  public static final Duration USUAL_SPAN = Duration.ofHours(1);

  /** By how much a bridge may be busier than it ever was. Common practice, no source. */
  public static final int TIMES_THE_BUSIEST = 3;

  /** What every bridge may do, however quiet its past. Common practice, no source. */
  public static final int FLOOR = 60;

  /**
   * The most of one kind.
   *
   * @param reckoned the busy time that it was reckoned from; empty if the document states it
   */
  public record Limit(long most, Optional<BusyPast> reckoned) {

    static Limit stated(int most) {
      return new Limit(most, Optional.empty());
    }

    /** A few times the busiest span, and not less than the floor. */
    static Limit reckoned(BusyPast past) {
      return new Limit(Math.max(FLOOR, TIMES_THE_BUSIEST * past.effects()), Optional.of(past));
    }
  }

  public Ceiling {
    limits = Collections.unmodifiableMap(new EnumMap<>(limits));
  }

  /**
   * @param stated what the document says; empty if it says nothing
   * @param past the busiest span of each kind that the document does not state; what is lacking was
   *     never busy
   */
  public static Ceiling of(
      Optional<BridgeDefinition.Ceiling> stated, Map<EffectKind, BusyPast> past) {
    Map<EffectKind, Limit> limits = new EnumMap<>(EffectKind.class);
    for (EffectKind kind : KINDS) {
      Optional<Integer> said = stated.map(one -> one.most().get(kind));
      limits.put(
          kind,
          said.map(Limit::stated)
              .orElseGet(() -> Limit.reckoned(past.getOrDefault(kind, BusyPast.NONE))));
    }
    return new Ceiling(span(stated), limits);
  }

  /** The span that a document's ceiling is for. */
  public static Duration span(Optional<BridgeDefinition.Ceiling> stated) {
    return stated.map(BridgeDefinition.Ceiling::per).orElse(USUAL_SPAN);
  }

  /** The most of a kind that is bounded. */
  public Limit limit(EffectKind kind) {
    return Objects.requireNonNull(limits.get(kind), "no ceiling for " + kind);
  }

  /**
   * What would pass a ceiling.
   *
   * @param before how many there were in the span
   * @param more how many would come in addition
   */
  public record Passed(EffectKind kind, long before, long more, Limit limit, Duration per) {

    /** Whether one event alone is more than the ceiling allows, so that no release helps. */
    public boolean alone() {
      return more > limit.most();
    }
  }

  /**
   * Whether more may be done.
   *
   * @param before how many of each kind there were in the span that ends now
   * @param more how many of each kind would come in addition
   * @return the first kind that would pass; empty if none would
   */
  public Optional<Passed> passedBy(Map<EffectKind, Long> before, Map<EffectKind, Integer> more) {
    for (EffectKind kind : KINDS) {
      int adds = more.getOrDefault(kind, 0);
      long had = before.getOrDefault(kind, 0L);
      if (adds > 0 && had + adds > limit(kind).most()) {
        return Optional.of(new Passed(kind, had, adds, limit(kind), per));
      }
    }
    return Optional.empty();
  }
}
