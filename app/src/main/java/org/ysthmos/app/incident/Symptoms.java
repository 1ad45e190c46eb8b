package org.ysthmos.app.incident;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.SequencedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.bridge.Loops;
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.rhythm.Rhythms;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.incident.IncidentKey;

/** What there is to see just now that makes an incident. */
@Component
class Symptoms {

  /**
   * What is seen of one incident.
   *
   * @param bridges the ids of those it concerns
   * @param failed how many events failed and wait for a person
   * @param newest the newest trace of those; 0 if none failed
   * @param standing how many stand still and go on by themselves once it is over
   * @param again how many were sent again and have not ended
   */
  record Symptom(
      IncidentKey key,
      SequencedSet<String> bridges,
      int failed,
      long newest,
      int standing,
      int again) {

    int waiting() {
      return failed + standing + again;
    }

    /** Whether all that is left of it was sent again: what comes of that is not known yet. */
    boolean isOnlySentAgain() {
      return failed == 0 && standing == 0 && again > 0;
    }
  }

  private static final class Sum {
    private final TreeSet<String> bridges = new TreeSet<>();
    private int failed;
    private long newest;
    private int standing;
    private int again;
  }

  private final SymptomMapper mapper;
  private final Bridges bridges;
  private final Loops loops;
  private final Systems systems;
  private final Rhythms rhythms;
  private final DeliveryQueue deliveries;
  private final TraceQueue traces;

  Symptoms(
      SymptomMapper mapper,
      Bridges bridges,
      Loops loops,
      Systems systems,
      Rhythms rhythms,
      DeliveryQueue deliveries,
      TraceQueue traces) {
    this.mapper = mapper;
    this.bridges = bridges;
    this.loops = loops;
    this.systems = systems;
    this.rhythms = rhythms;
    this.deliveries = deliveries;
    this.traces = traces;
  }

  /** All that is seen, by incident. */
  List<Symptom> now() {
    SequencedMap<String, Sum> sums = new TreeMap<>();
    for (SymptomMapper.WaitingRow row : mapper.waiting()) {
      Sum sum = sums.computeIfAbsent(row.cause(), any -> new Sum());
      sum.bridges.add(row.queueId());
      sum.failed += row.traces();
      sum.newest = Math.max(sum.newest, row.newest());
    }
    for (SymptomMapper.AgainRow row : mapper.sentAgain()) {
      Sum sum = sums.computeIfAbsent(row.cause(), any -> new Sum());
      sum.bridges.add(row.queueId());
      sum.again += row.traces();
    }
    for (Systems.Connected system : systems.all()) {
      String id = system.description().id();
      if (system.breaker().outage().isPresent()) {
        Sum sum = sums.computeIfAbsent(IncidentKey.away(id).text(), any -> new Sum());
        sum.standing += deliveries.waiting().getOrDefault(id, 0);
        writing(id).forEach(sum.bridges::add);
      }
    }
    for (Bridges.Live live : bridges.live()) {
      if (live.hold().filter(Bridges.Hold::byEngine).isPresent()) {
        String id = live.version().definition().id();
        Sum sum = sums.computeIfAbsent(IncidentKey.held(id).text(), any -> new Sum());
        sum.bridges.add(id);
        // What runs in a circle is the doing of all that carry along it.
        sum.bridges.addAll(loops.alongTheWay(id));
        sum.standing += traces.waiting(id);
      }
    }
    for (BridgeDefinition bridge : definitions()) {
      if (rhythms.odd(bridge.id()).isPresent()) {
        sums.computeIfAbsent(IncidentKey.rhythm(heard(bridge)).text(), any -> new Sum())
            .bridges
            .add(bridge.id());
      }
    }
    List<Symptom> all = new ArrayList<>();
    sums.forEach(
        (key, sum) ->
            all.add(
                new Symptom(
                    IncidentKey.parse(key),
                    Collections.unmodifiableSequencedSet(sum.bridges),
                    sum.failed,
                    sum.newest,
                    sum.standing,
                    sum.again)));
    return all;
  }

  /** When what is seen of a system or a bridge began, if that is known. */
  Optional<Instant> since(IncidentKey key) {
    return switch (key.family()) {
      case AWAY ->
          systems.find(key.of()).flatMap(one -> one.breaker().outage()).map(one -> one.since());
      case HELD -> bridges.live(key.of()).flatMap(Bridges.Live::hold).map(Bridges.Hold::since);
      case RHYTHM ->
          hearing(key.of())
              .flatMap(bridge -> rhythms.odd(bridge.id()).stream())
              .map(Rhythms.Odd::since)
              .min(Instant::compareTo);
      case REFUSED, ALIKE -> Optional.empty();
    };
  }

  /**
   * What a bridge hears, as incidents are kept by it. What is the matter with a collection is the
   * matter with all that hear it; times, rows that come round and several places are a bridge's
   * own.
   */
  private static String heard(BridgeDefinition bridge) {
    BridgeDefinition.From from = bridge.from();
    boolean own =
        from.times().isPresent() || from.chores().isPresent() || from.places().isPresent();
    return own ? bridge.id() : from.system() + "/" + from.collection();
  }

  private Stream<BridgeDefinition> hearing(String source) {
    return definitions().stream().filter(bridge -> heard(bridge).equals(source));
  }

  /** The system of a source that live bridges hear. */
  Optional<String> system(String source) {
    return hearing(source).map(bridge -> bridge.from().system()).findFirst();
  }

  private List<BridgeDefinition> definitions() {
    return bridges.live().stream().map(live -> live.version().definition()).toList();
  }

  /** The live bridges that make their tasks in a system. */
  List<String> writing(String system) {
    return definitions().stream()
        .filter(bridge -> bridge.to().system().equals(system))
        .map(bridge -> bridge.id())
        .toList();
  }
}
