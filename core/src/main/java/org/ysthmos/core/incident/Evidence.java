package org.ysthmos.core.incident;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.FailureKind;

/**
 * All that is known around an incident, at one moment. What nobody looked at is empty, which says
 * nothing for or against any cause.
 *
 * @param name what the incident is about, as people call it: the system, the bridge, or the source
 *     that is other than usual; empty if it is about none of them
 * @param failures what failed and waits, in groups
 * @param ever how many ever failed so, those included that were settled since
 * @param place what is known of the system
 * @param bridges the bridges that write there, or that failed
 * @param hold how a bridge came to hold itself; empty if none did
 * @param rhythm how what comes from a source is other than usual; empty if that is not the matter
 * @param otherSystemsAway the names of other systems that do not answer just now
 */
public record Evidence(
    IncidentKey key,
    Instant now,
    String name,
    List<Group> failures,
    long ever,
    Place place,
    List<Load> bridges,
    Optional<Hold> hold,
    Optional<OutOfRhythm> rhythm,
    List<String> otherSystemsAway) {

  public Evidence {
    failures = failures.stream().sorted(Comparator.comparing(Group::first)).toList();
    bridges = List.copyOf(bridges);
    otherSystemsAway = List.copyOf(otherSystemsAway);
  }

  /**
   * How what comes from a source is other than usual.
   *
   * @param silent whether nothing comes; otherwise far too much does
   * @param since when the silence or the busy hour began
   * @param came how many came since
   * @param usual how many usually do in such a time
   * @param source the name of the system that it comes from
   * @param unread why that system could not be read when it was looked at last; empty if it could
   */
  public record OutOfRhythm(
      boolean silent, Instant since, long came, double usual, String source, String unread) {}

  /**
   * Failures that say the same.
   *
   * @param effect what was to be done; empty if something was read or decided
   * @param where the collection; empty if that is not known
   * @param field the field it is about; empty if it is about none
   * @param message what one of them says
   * @param count how many
   * @param records how many different records they are of
   * @param first when the first of their events was received
   * @param last when the last of their events was received
   * @param bridges the names of the bridges
   */
  public record Group(
      FailureKind kind,
      Optional<EffectKind> effect,
      String where,
      String field,
      String code,
      String message,
      int count,
      int records,
      Instant first,
      Instant last,
      Set<String> bridges) {}

  /**
   * What is known of a system.
   *
   * @param quota how full it says that it is
   * @param rate how many calls we made of late
   * @param signIn whether it knows us
   * @param token what we sign in with; empty if nothing is kept
   * @param problems why its collections did not answer when they were last looked at, those that
   *     did not
   * @param answering how many of its collections answered when they were last looked at
   * @param changes what of its records is not as described, in words
   * @param names entries of its directories that vanished or were renamed, in words
   * @param outage since when nothing there answers; empty if it does
   */
  public record Place(
      Optional<Quota> quota,
      Optional<Rate> rate,
      SignIn signIn,
      Optional<Token> token,
      List<String> problems,
      int answering,
      List<String> changes,
      List<String> names,
      Optional<Outage> outage) {

    /** Of which nothing is known. */
    public static final Place UNKNOWN =
        new Place(
            Optional.empty(),
            Optional.empty(),
            SignIn.UNKNOWN,
            Optional.empty(),
            List.of(),
            0,
            List.of(),
            List.of(),
            Optional.empty());
  }

  /**
   * How full a system is.
   *
   * @param of what is counted, in the plural: open tasks
   * @param at when it said so
   */
  public record Quota(String of, long used, long most, Instant at) {

    /** Of a hundred, rounded down. */
    long percent() {
      return used * 100 / most;
    }
  }

  /**
   * Calls of ours against what a system allows.
   *
   * @param made calls within the span that ends now
   * @param most the most that it says it answers in a span
   */
  public record Rate(int made, int most, Duration per) {}

  /** Whether a system knows who we are. */
  public enum SignIn {
    UNKNOWN,
    /** We have nothing to sign in with. */
    NO_TOKEN,
    /** What we sign in with is not taken. */
    REFUSED,
    /** It answered a question that only those may ask who are signed in. */
    TAKEN
  }

  /**
   * What we sign in with.
   *
   * @param since when it was kept here in place of another; empty if that was not noted
   * @param ends when it ends, if it says so of itself
   */
  public record Token(Optional<Instant> since, Optional<Instant> ends) {}

  /**
   * A system that does not answer.
   *
   * @param kind of the last failure
   * @param last what the last call came to, as a sentence
   * @param waiting how many deliveries wait for it
   */
  public record Outage(Instant since, FailureKind kind, String last, int waiting) {}

  /**
   * What a bridge did of late.
   *
   * @param made tasks made in the last 24 hours
   * @param usual tasks made in a day of the four weeks before, on average; empty if it is younger
   * @param version the number of its live version
   * @param liveSince when that went live
   */
  public record Load(
      String bridge, long made, Optional<Double> usual, int version, Optional<Instant> liveSince) {}

  /**
   * How a bridge came to hold itself.
   *
   * @param because why, as a sentence
   * @param alone whether one event alone is more than the ceiling allows
   * @param cameBack whether an event that it was about to act on came of its own doing
   * @param sameTask whether it was about to write to one task over and over
   * @param records of how many different records its events of the last span were
   * @param events how many events it had in the last span
   * @param path the places that its own writing comes back through, itself included; empty if it
   *     does not come back
   */
  public record Hold(
      Instant since,
      String because,
      boolean alone,
      boolean cameBack,
      boolean sameTask,
      int records,
      int events,
      List<String> path) {}

  /** How many failures there are. */
  int count() {
    return failures.stream().mapToInt(Group::count).sum();
  }

  /** How many failures are of these kinds. */
  int count(FailureKind... kinds) {
    Set<FailureKind> wanted = Set.of(kinds);
    return failures.stream()
        .filter(one -> wanted.contains(one.kind()))
        .mapToInt(Group::count)
        .sum();
  }
}
