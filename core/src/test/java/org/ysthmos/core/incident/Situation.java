package org.ysthmos.core.incident;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.guard.CeilingWords;
import org.ysthmos.core.incident.Evidence.Group;
import org.ysthmos.core.incident.Evidence.Hold;
import org.ysthmos.core.incident.Evidence.Load;
import org.ysthmos.core.incident.Evidence.Outage;
import org.ysthmos.core.incident.Evidence.Place;
import org.ysthmos.core.incident.Evidence.Quota;
import org.ysthmos.core.incident.Evidence.Rate;
import org.ysthmos.core.incident.Evidence.SignIn;
import org.ysthmos.core.incident.Evidence.Token;

/** Evidence as a test tells it, piece by piece; time is counted in hours from its beginning. */
final class Situation {

  static final Instant BEGIN = Instant.parse("2026-11-02T08:00:00Z");

  private final IncidentKey key;
  private String name = "Grounds Board";
  private final List<Group> failures = new ArrayList<>();
  private Optional<Quota> quota = Optional.empty();
  private Optional<Rate> rate = Optional.empty();
  private SignIn signIn = SignIn.UNKNOWN;
  private Optional<Token> token = Optional.empty();
  private List<String> problems = List.of();
  private int answering;
  private int settled;
  private List<String> changes = List.of();
  private List<String> names = List.of();
  private Optional<Outage> outage = Optional.empty();
  private final List<Load> bridges = new ArrayList<>();
  private Optional<Hold> hold = Optional.empty();
  private Optional<Evidence.OutOfRhythm> rhythm = Optional.empty();
  private List<String> away = List.of();

  private Situation(IncidentKey key) {
    this.key = key;
  }

  static Situation refused() {
    return new Situation(new IncidentKey(IncidentKey.Family.REFUSED, "grounds-board"));
  }

  static Situation away() {
    return new Situation(IncidentKey.away("grounds-board"));
  }

  static Situation alike() {
    return new Situation(new IncidentKey(IncidentKey.Family.ALIKE, "0f"));
  }

  static Situation held() {
    Situation held = new Situation(IncidentKey.held("board-echo"));
    held.name = "Board echo";
    return held;
  }

  Situation failed(FailureKind kind, EffectKind effect, int count, int hour) {
    return failed(kind, Optional.of(effect), "", "It said no.", count, count, hour);
  }

  Situation reading(FailureKind kind, String message, int count) {
    return failed(kind, Optional.empty(), "", message, count, count, 0);
  }

  Situation value(FailureKind kind, String field, String message, int count, int records) {
    return failed(kind, Optional.of(EffectKind.CREATE), field, message, count, records, 6);
  }

  private Situation failed(
      FailureKind kind,
      Optional<EffectKind> effect,
      String field,
      String message,
      int count,
      int records,
      int hour) {
    Instant at = BEGIN.plus(Duration.ofHours(hour));
    failures.add(
        new Group(
            kind, effect, "tasks", field, "", message, count, records, at, at, Set.of("Hazard")));
    return this;
  }

  Situation full(long used, long most) {
    quota = Optional.of(new Quota("open tasks", used, most, BEGIN.plus(Duration.ofDays(3))));
    return this;
  }

  /** The same, said before anything failed. */
  Situation fullBefore(long used, long most) {
    quota = Optional.of(new Quota("open tasks", used, most, BEGIN.minusSeconds(1)));
    return this;
  }

  Situation calls(int made, int most) {
    rate = Optional.of(new Rate(made, most, Duration.ofMinutes(1)));
    return this;
  }

  Situation signIn(SignIn how) {
    signIn = how;
    return this;
  }

  /** A token that was kept so long after anything failed. */
  Situation tokenKept(Duration later) {
    token = Optional.of(new Token(Optional.of(BEGIN.plus(later)), Optional.empty()));
    return this;
  }

  /** A token that says when it ends. */
  Situation tokenEnds(Duration later) {
    token = Optional.of(new Token(Optional.empty(), Optional.of(BEGIN.plus(later))));
    return this;
  }

  Situation looked(int answer, String... silent) {
    answering = answer;
    problems = List.of(silent);
    return this;
  }

  Situation changed(String... what) {
    changes = List.of(what);
    return this;
  }

  Situation renamed(String... what) {
    names = List.of(what);
    return this;
  }

  Situation outage(FailureKind kind, String last) {
    outage = Optional.of(new Outage(BEGIN, kind, last, 12));
    return this;
  }

  Situation bridge(String bridge, long made, double usual) {
    bridges.add(new Load(bridge, made, Optional.of(usual), 1, Optional.empty()));
    return this;
  }

  Situation newVersion(String bridge, int version, int hour) {
    Instant since = BEGIN.plus(Duration.ofHours(hour));
    bridges.add(new Load(bridge, 0, Optional.empty(), version, Optional.of(since)));
    return this;
  }

  /** So many failed so before and were settled. */
  Situation before(int many) {
    settled = many;
    return this;
  }

  Situation hold(boolean alone, int records, int events, String... path) {
    String because = "It would have come to 121 new tasks; its ceiling is 120 new tasks in an hour";
    hold =
        Optional.of(
            new Hold(
                BEGIN,
                because,
                alone,
                CeilingWords.saysCameBack(because),
                CeilingWords.saysSameTask(because),
                records,
                events,
                List.of(path)));
    return this;
  }

  static Situation odd(boolean silent, long came, double usual, String unread) {
    Situation odd = new Situation(IncidentKey.rhythm("visitor-desk/hazard-reports"));
    odd.name = "the source of “Hazard report”";
    odd.rhythm =
        Optional.of(new Evidence.OutOfRhythm(silent, BEGIN, came, usual, "Visitor Desk", unread));
    return odd;
  }

  Situation alsoAway(String... systems) {
    away = List.of(systems);
    return this;
  }

  Evidence evidence() {
    Place place =
        new Place(quota, rate, signIn, token, problems, answering, changes, names, outage);
    return new Evidence(
        key,
        BEGIN.plus(Duration.ofDays(4)),
        name,
        failures,
        settled + failures.stream().mapToInt(Group::count).sum(),
        place,
        bridges,
        hold,
        rhythm,
        away);
  }
}
