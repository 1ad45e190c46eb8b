package org.ysthmos.core.delivery;

import java.time.Duration;
import java.time.Instant;
import java.util.List;

/**
 * Decides what is to be done next about one effect, so that none is lost and none made twice.
 *
 * <p>An effect that doubles when it is repeated is sent again only after it is known that the
 * earlier try did not make it. Where a target can be searched it is looked for, not once but at
 * several times after the answer was lost, since the earlier request may still be under way there:
 * a target may write what it was asked long after we stopped waiting for it. Where nothing can be
 * looked for, or what is not found proves nothing, a person decides. The times are common practice,
 * no source.
 *
 * @param looks when it is looked for, counted from when the answer was known to be lost; ascending,
 *     at least one
 */
public record DeliveryRules(List<Duration> looks) {

  /**
   * For how long a target is taken to remember a key of a call. Common practice, no source: a day
   * is what targets that say anything say.
   */
  static final Duration KEY_REMEMBERED = Duration.ofHours(24);

  /** What to do next. */
  public sealed interface Next {}

  /** Make the effect, or what is left to be made of it. */
  public record Send() implements Next {}

  /** Look for it by its key first. */
  public record Look() implements Next {}

  /** It is too early to look. */
  public record Wait(Instant until) implements Next {}

  /**
   * Only a person can tell.
   *
   * @param because what is not known, as a sentence
   * @param remedy what the person can do
   */
  public record AskAPerson(String because, String remedy) implements Next {}

  /**
   * @throws IllegalArgumentException if no look is named, or they do not ascend
   */
  public DeliveryRules {
    looks = List.copyOf(looks);
    if (looks.isEmpty()) {
      throw new IllegalArgumentException("at least one look is needed after a lost answer");
    }
    for (int i = 1; i < looks.size(); i++) {
      if (looks.get(i).compareTo(looks.get(i - 1)) <= 0) {
        throw new IllegalArgumentException("looks must come one after the other, found " + looks);
      }
    }
  }

  /**
   * What is to be done about an effect.
   *
   * @param made whether the record is known to exist already, so that only what belongs to it is
   *     left to be done
   */
  public Next next(EffectKind kind, Promise promise, boolean made, Doubt doubt, Instant now) {
    if (made
        || !kind.doublesWhenRepeated()
        || !(doubt instanceof Doubt.Open(Instant since, int looked))) {
      return new Send();
    }
    return switch (promise) {
      case FOUND_BY_KEY -> looked < looks.size() ? look(since, looked, now) : new Send();
      case KNOWN_BY_KEY ->
          Duration.between(since, now).compareTo(KEY_REMEMBERED) < 0
              ? new Send()
              : askAPerson("the target may have forgotten the key of the call by now");
      case SEEN_IF_KEPT ->
          looked < looks.size()
              ? look(since, looked, now)
              : askAPerson("no copy was found, which does not show that it was not made");
      case NONE -> askAPerson("nothing there can be looked for by our key");
    };
  }

  private Next look(Instant since, int looked, Instant now) {
    Instant at = since.plus(looks.get(looked));
    // A clock that was set back must not make it wait for longer than it ever would.
    boolean early = now.isBefore(at) && !now.isBefore(since);
    return early ? new Wait(at) : new Look();
  }

  /** A look was answered and found nothing. */
  public Doubt lookedInVain(Doubt doubt) {
    return doubt instanceof Doubt.Open(Instant since, int looked)
        ? new Doubt.Open(since, looked + 1)
        : doubt;
  }

  /**
   * A doubt that one look settles: of an effect that no try of this database was begun for, in a
   * database that may be a copy of one that went on.
   */
  public Doubt onceBeforeSending(Instant now) {
    return onceBeforeSending(now, now);
  }

  /**
   * The same of an effect that another, of whose data this is a copy, may have sent.
   *
   * @param earliest when it may have been sent at the earliest, so that no key is relied on that
   *     may be forgotten by now
   */
  public Doubt onceBeforeSending(Instant now, Instant earliest) {
    Instant looked = now.minus(looks.getLast());
    return new Doubt.Open(earliest.isBefore(looked) ? earliest : looked, looks.size() - 1);
  }

  private static Next askAPerson(String because) {
    return new AskAPerson(
        "The answer was lost, and " + because,
        "Look there whether it was made. If it was not, send it again");
  }
}
