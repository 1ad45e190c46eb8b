package org.ysthmos.app.incident;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.SequencedSet;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.bridge.Loops;
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.guard.EffectCounts;
import org.ysthmos.app.health.Health;
import org.ysthmos.app.rhythm.Rhythms;
import org.ysthmos.app.secret.SecretVault;
import org.ysthmos.app.system.Directories;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.QuotaReading;
import org.ysthmos.core.guard.CeilingWords;
import org.ysthmos.core.incident.Evidence;
import org.ysthmos.core.incident.Evidence.Group;
import org.ysthmos.core.incident.Evidence.Hold;
import org.ysthmos.core.incident.Evidence.Load;
import org.ysthmos.core.incident.Evidence.OutOfRhythm;
import org.ysthmos.core.incident.Evidence.Outage;
import org.ysthmos.core.incident.Evidence.Place;
import org.ysthmos.core.incident.Evidence.Quota;
import org.ysthmos.core.incident.Evidence.Rate;
import org.ysthmos.core.incident.Evidence.SignIn;
import org.ysthmos.core.incident.Evidence.Token;
import org.ysthmos.core.incident.IncidentKey;
import org.ysthmos.core.shape.ShapeChange;

/** Brings together all that is known around an incident. Asks no other system. */
@Component
class EvidenceGathering {

  private final SymptomMapper mapper;
  private final Bridges bridges;
  private final Loops loops;
  private final Rhythms rhythms;
  private final Systems systems;
  private final Health health;
  private final Directories directories;
  private final DeliveryQueue deliveries;
  private final EffectCounts effects;
  private final SecretVault secrets;
  private final AppClock clock;

  EvidenceGathering(
      SymptomMapper mapper,
      Bridges bridges,
      Loops loops,
      Rhythms rhythms,
      Systems systems,
      Health health,
      Directories directories,
      DeliveryQueue deliveries,
      EffectCounts effects,
      SecretVault secrets,
      AppClock clock) {
    this.mapper = mapper;
    this.bridges = bridges;
    this.loops = loops;
    this.rhythms = rhythms;
    this.systems = systems;
    this.health = health;
    this.directories = directories;
    this.deliveries = deliveries;
    this.effects = effects;
    this.secrets = secrets;
    this.clock = clock;
  }

  /**
   * All that is known of what is seen.
   *
   * @param writing the ids of the bridges that make tasks in a system, for an incident of one
   */
  Evidence of(Symptoms.Symptom symptom, List<String> writing) {
    IncidentKey key = symptom.key();
    List<SymptomMapper.GroupRow> rows = mapper.groups(key.text());
    Optional<String> system = system(key, symptom);
    Set<String> concerned = new LinkedHashSet<>(symptom.bridges());
    concerned.addAll(writing);
    return new Evidence(
        key,
        clock.instant(),
        switch (key.family()) {
          case HELD -> name(key.of());
          case RHYTHM -> source(symptom.bridges());
          case REFUSED, AWAY, ALIKE -> system.map(this::systemName).orElse("");
        },
        rows.stream().map(row -> group(row, system.orElse(""))).toList(),
        mapper.failed(key.text(), 0).stream().mapToLong(SymptomMapper.FailedRow::failures).sum(),
        system.flatMap(systems::find).map(this::place).orElse(Place.UNKNOWN),
        concerned.stream().flatMap(id -> load(id).stream()).toList(),
        key.family() == IncidentKey.Family.HELD ? hold(key.of()) : Optional.empty(),
        key.family() == IncidentKey.Family.RHYTHM ? rhythm(symptom.bridges()) : Optional.empty(),
        othersAway(key));
  }

  /** The system that an incident is of, or that its bridges write to if it is one and the same. */
  private Optional<String> system(IncidentKey key, Symptoms.Symptom symptom) {
    return switch (key.family()) {
      case REFUSED, AWAY -> Optional.of(key.of());
      case HELD -> Optional.empty();
      case RHYTHM -> from(symptom.bridges().getFirst()).map(BridgeDefinition.From::system);
      case ALIKE -> {
        List<String> of = mapper.systems(key.text()).stream().filter(id -> !id.isEmpty()).toList();
        if (of.size() == 1) {
          yield Optional.of(of.getFirst());
        }
        // What failed here while deciding is most likely about what comes from the source.
        List<String> sources =
            symptom.bridges().stream()
                .flatMap(id -> from(id).stream())
                .map(BridgeDefinition.From::system)
                .distinct()
                .toList();
        yield sources.size() == 1 ? Optional.of(sources.getFirst()) : Optional.empty();
      }
    };
  }

  /** What a bridge is called. */
  String name(String bridge) {
    return bridges.nameOf(bridge);
  }

  private String systemName(String system) {
    return systems.find(system).map(one -> one.description().name()).orElse(system);
  }

  private String collectionName(String system, String collection) {
    return systems.collection(system, collection).map(one -> one.shape().name()).orElse(collection);
  }

  private Group group(SymptomMapper.GroupRow row, String system) {
    return new Group(
        row.kind(),
        Optional.ofNullable(row.effect()),
        collectionName(system, row.collectionId()),
        row.field(),
        row.code(),
        Words.sentence(row.message(), ""),
        row.failures(),
        row.records(),
        row.first(),
        row.last(),
        Arrays.stream(row.queues().split(",")).map(this::name).collect(Collectors.toSet()));
  }

  private Place place(Systems.Connected system) {
    String id = system.description().id();
    List<Health.Looked> looked =
        systems.collectionsOf(system.description()).keySet().stream()
            .flatMap(collection -> health.last(id, collection).stream())
            .toList();
    List<String> problems =
        looked.stream().map(Health.Looked::problem).filter(text -> !text.isEmpty()).toList();
    int answering = looked.size() - problems.size();
    return new Place(
        health.quotaLooked(id).flatMap(EvidenceGathering::quota),
        rate(system),
        signIn(system, looked, answering),
        token(system),
        problems,
        answering,
        looked.stream()
            .flatMap(one -> one.changes().stream())
            .map(ShapeChange::words)
            .map(change -> Words.sentence(change, ""))
            .toList(),
        directories.findings(id).stream().map(EvidenceGathering::words).toList(),
        system
            .breaker()
            .outage()
            .map(
                out ->
                    new Outage(
                        out.since(),
                        out.last().kind(),
                        Words.sentence(out.last()),
                        deliveries.waiting().getOrDefault(id, 0))));
  }

  private static Optional<Quota> quota(Health.QuotaLooked looked) {
    return looked.reading() instanceof QuotaReading.Filled filled
        ? Optional.of(new Quota(filled.of(), filled.used(), filled.most(), looked.at()))
        : Optional.empty();
  }

  private Optional<Rate> rate(Systems.Connected system) {
    return system
        .description()
        .limit()
        .map(
            limit ->
                new Rate(
                    system.gateway().limiter().use(clock.instant()).made(),
                    limit.calls(),
                    limit.per()));
  }

  private SignIn signIn(Systems.Connected system, List<Health.Looked> looked, int answering) {
    if (!health.unsigned(system).isEmpty()) {
      return SignIn.NO_TOKEN;
    }
    boolean refused =
        looked.stream()
            .anyMatch(one -> one.failure().equals(Optional.of(FailureKind.NOT_SIGNED_IN)));
    if (refused) {
      return SignIn.REFUSED;
    }
    boolean signsIn = system.description().signIn().isPresent();
    return signsIn && answering > 0 ? SignIn.TAKEN : SignIn.UNKNOWN;
  }

  private Optional<Token> token(Systems.Connected system) {
    return system
        .description()
        .signIn()
        .map(signIn -> signIn.secret())
        .filter(name -> secrets.find(name).isPresent())
        .map(name -> new Token(secrets.since(name), secrets.ends(name)));
  }

  private static String words(Directories.Finding finding) {
    return finding.was() == null
        ? "“%s” is not among the %s any more.".formatted(finding.name(), finding.directory())
        : "“%s” among the %s is called “%s” by now."
            .formatted(finding.was(), finding.directory(), finding.name());
  }

  private Optional<Load> load(String id) {
    return bridges
        .live(id)
        .map(
            live -> {
              EffectCounts.Lately lately = effects.lately(id, EffectKind.CREATE);
              return new Load(
                  live.version().definition().name(),
                  lately.lastDay(),
                  lately.usual(),
                  live.version().number(),
                  Optional.of(live.since()));
            });
  }

  private Optional<Hold> hold(String id) {
    Optional<Bridges.Live> held = bridges.live(id);
    return held.flatMap(
        live ->
            live.hold()
                .map(
                    hold -> {
                      Instant from = hold.since().minus(live.ceiling().per());
                      SymptomMapper.SpanRow span = mapper.span(id, from);
                      return new Hold(
                          hold.since(),
                          hold.because(),
                          CeilingWords.saysAlone(hold.because()),
                          CeilingWords.saysCameBack(hold.because()),
                          CeilingWords.saysSameTask(hold.because()),
                          span.records(),
                          span.events(),
                          loops.wayBack(id));
                    }));
  }

  private Optional<BridgeDefinition.From> from(String bridge) {
    return bridges.live(bridge).map(live -> live.version().definition().from());
  }

  /** What one bridge or several hear, in words. */
  private String source(SequencedSet<String> ids) {
    String first = ids.getFirst();
    if (ids.size() == 1) {
      return "the source of “" + name(first) + "”";
    }
    return from(first)
        .map(
            from ->
                "“%s” of %s"
                    .formatted(
                        collectionName(from.system(), from.collection()),
                        systemName(from.system())))
        .orElse("");
  }

  /** How it is other than usual, by the bridge that usually hears most. */
  private Optional<OutOfRhythm> rhythm(SequencedSet<String> ids) {
    return ids.stream()
        .flatMap(
            id ->
                from(id).stream()
                    .flatMap(from -> rhythms.odd(id).map(odd -> rhythm(from, odd)).stream()))
        .max(Comparator.comparing(OutOfRhythm::silent).thenComparingDouble(OutOfRhythm::usual));
  }

  private OutOfRhythm rhythm(BridgeDefinition.From source, Rhythms.Odd odd) {
    return new OutOfRhythm(
        odd.silent(),
        odd.since(),
        odd.came(),
        odd.usual(),
        systemName(source.system()),
        health.last(source.system(), source.collection()).map(Health.Looked::problem).orElse(""));
  }

  private List<String> othersAway(IncidentKey key) {
    List<String> away = new ArrayList<>();
    Stream<Systems.Connected> others =
        systems.all().stream().filter(one -> !one.description().id().equals(key.of()));
    others
        .filter(one -> one.breaker().outage().isPresent())
        .map(one -> one.description().name())
        .forEach(away::add);
    return away;
  }
}
