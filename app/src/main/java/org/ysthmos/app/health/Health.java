package org.ysthmos.app.health;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.ManyPlaces;
import org.ysthmos.adapters.system.SignIn;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.secret.SecretVault;
import org.ysthmos.app.system.Directories;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.gateway.DirectoryReading;
import org.ysthmos.core.gateway.QuotaReading;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.PlaceId;
import org.ysthmos.core.shape.ShapeChange;

/**
 * Asks systems small questions that change nothing, to see whether they answer us and as they are
 * described. A failure names its remedy.
 */
@Component
public class Health {

  /** The key of nothing: a system that answers says that it finds nothing. */
  private static final String NOBODY = "ysthmos-looks";

  /** How many records are compared with their description. */
  private static final int SAMPLE = 20;

  /**
   * What looking came to.
   *
   * @param problem why it does not answer us as described, and what to do; empty if it does
   * @param failure of what kind the problem is; empty if there is none, or we cannot sign in
   * @param changes fields of its records that are not as described
   */
  public record Looked(
      Instant at, String problem, Optional<FailureKind> failure, List<ShapeChange> changes) {}

  /** How full a system was when it was looked at. */
  public record QuotaLooked(Instant at, QuotaReading reading) {}

  private final Systems systems;
  private final SecretVault secrets;
  private final Directories directories;
  private final Bridges bridges;
  private final AppClock clock;
  private final Map<CollectionRef, Looked> looked = new ConcurrentHashMap<>();
  private final Map<CollectionRef, Set<String>> seen = new ConcurrentHashMap<>();
  private final Map<String, Map<String, String>> unreadNames = new ConcurrentHashMap<>();
  private final Map<String, QuotaLooked> quotas = new ConcurrentHashMap<>();

  Health(
      Systems systems,
      Directories directories,
      Bridges bridges,
      SecretVault secrets,
      AppClock clock) {
    this.systems = systems;
    this.directories = directories;
    this.bridges = bridges;
    this.secrets = secrets;
    this.clock = clock;
  }

  /** Looks at every collection. */
  @Scheduled(
      initialDelayString = "${ysthmos.health.first}",
      fixedDelayString = "${ysthmos.health.every}")
  void lookAtAll() {
    systems.all().forEach(system -> lookAt(system.description().id()));
  }

  /** Looks at every collection of a system. */
  public void lookAt(String id) {
    Systems.Connected system =
        systems.find(id).orElseThrow(() -> ApiProblem.notFound("system", id));
    system.description().collections().keySet().forEach(collection -> ask(id, collection));
    if (unsigned(system).isEmpty()) {
      note(id, system.gateway().quota(call -> {}));
      readNames(id, system);
    }
    // Places that are described alike answer alike, and there may be very many.
    system
        .description()
        .many()
        .values()
        .forEach(many -> oneOf(id, many).ifPresent(collection -> ask(id, collection)));
  }

  /**
   * The collection that is looked at for places that are described alike; empty if none is known.
   */
  Optional<String> oneOf(String system, ManyPlaces many) {
    return directories.names(system, many.directory()).keySet().stream()
        .findFirst()
        .map(place -> new PlaceId(many.id(), place).collection());
  }

  /** Looks how full a system is; empty if it does not say, or we cannot sign in. */
  Optional<QuotaReading> lookAtQuota(String id) {
    return systems
        .find(id)
        .filter(system -> unsigned(system).isEmpty())
        .flatMap(system -> note(id, system.gateway().quota(call -> {})));
  }

  private Optional<QuotaReading> note(String id, Optional<QuotaReading> reading) {
    reading.ifPresent(one -> quotas.put(id, new QuotaLooked(clock.instant(), one)));
    return reading;
  }

  /** Reads the directories of a system; bridges are made anew where a name is another. */
  private void readNames(String id, Systems.Connected system) {
    boolean other = false;
    Map<String, String> failed = new LinkedHashMap<>();
    for (Map.Entry<String, DirectoryReading> one :
        system.gateway().directories(call -> {}).entrySet()) {
      switch (one.getValue()) {
        case DirectoryReading.Names names ->
            other |= directories.note(id, one.getKey(), names.names());
        case DirectoryReading.Unread unread ->
            failed.put(one.getKey(), Words.sentence(unread.failure()));
      }
    }
    unreadNames.put(id, failed);
    if (other) {
      bridges.refresh();
    }
  }

  /** The directories of a system that could not be read, with why. */
  Map<String, String> unreadNames(String system) {
    return unreadNames.getOrDefault(system, Map.of());
  }

  /** How full a system was when it was looked at; empty if it does not say, or nobody looked. */
  public Optional<QuotaReading> quota(String system) {
    return quotaLooked(system).map(QuotaLooked::reading);
  }

  /** The same, with when that was. */
  public Optional<QuotaLooked> quotaLooked(String system) {
    return Optional.ofNullable(quotas.get(system));
  }

  /** What the last look came to; empty if nobody looked yet. */
  public Optional<Looked> last(String system, String collection) {
    return Optional.ofNullable(looked.get(new CollectionRef(system, collection)));
  }

  /** Why a place does not answer us; empty if it does. Nothing is changed there. */
  public String ask(String system, String collection) {
    Systems.Connected connected =
        systems.find(system).orElseThrow(() -> ApiProblem.notFound("system", system));
    SystemCollection described =
        systems
            .collection(system, collection)
            .orElseThrow(() -> ApiProblem.notFound("collection", collection));
    String unsigned = unsigned(connected);
    CollectionRef place = new CollectionRef(system, collection);
    Answer answer =
        unsigned.isEmpty()
            ? question(connected.gateway(), collection, described)
            : new Answer(unsigned, Optional.empty(), List.of());
    looked.put(
        place,
        new Looked(
            clock.instant(),
            answer.problem(),
            answer.failure(),
            changes(place, described, answer)));
    return answer.problem();
  }

  /** Why we cannot sign in at a system; empty if we can try. */
  public String unsigned(Systems.Connected system) {
    return system
        .description()
        .signIn()
        .map(SignIn::secret)
        .filter(secret -> secrets.find(secret).isEmpty())
        .map(
            secret ->
                "We have no token for %s. Ask its administrator for one and keep it as the secret “%s”."
                    .formatted(system.description().name(), secret))
        .orElse("");
  }

  /** Fields that were seen once and are not there any more, or hold something else. */
  private List<ShapeChange> changes(
      CollectionRef place, SystemCollection described, Answer answer) {
    Set<String> before = seen.computeIfAbsent(place, any -> ConcurrentHashMap.newKeySet());
    List<FieldShape> fields = described.readFields();
    List<ShapeChange> changes = ShapeChange.between(fields, answer.records(), before);
    before.addAll(ShapeChange.present(fields, answer.records()));
    return changes;
  }

  /**
   * What a small question came to.
   *
   * @param records some that came with the answer
   */
  private record Answer(String problem, Optional<FailureKind> failure, List<JsonNode> records) {

    static Answer of(List<JsonNode> records) {
      return new Answer("", Optional.empty(), records);
    }

    static Answer none(Failure failure) {
      return new Answer(Words.sentence(failure), Optional.of(failure.kind()), List.of());
    }
  }

  private static Answer question(
      SystemGateway gateway, String collection, SystemCollection described) {
    if (described.lists().isPresent()) {
      return found(gateway.list(collection, SAMPLE, call -> {}));
    }
    if (described.polled().isPresent()) {
      return switch (gateway.changes(collection, ChangeGateway.Cursor.BEGINNING, call -> {})) {
        case ChangeGateway.NotRead notRead -> Answer.none(notRead.failure());
        case ChangeGateway.Page page ->
            Answer.of(page.records().stream().map(ChangeGateway.Changed::record).toList());
      };
    }
    if (described.findsByKey()) {
      return gateway.findByKey(collection, NOBODY, call -> {})
              instanceof TaskGateway.Unsearched unsearched
          ? Answer.none(unsearched.failure())
          : Answer.of(List.of());
    }
    if (described.findsBy().isEmpty()) {
      return Answer.of(List.of());
    }
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    described.findsBy().getFirst().forEach(key -> keys.put(key, NOBODY));
    return found(gateway.find(collection, keys, call -> {}));
  }

  private static Answer found(World.LookupAnswer answer) {
    return switch (answer) {
      case World.Unanswered unanswered -> Answer.none(unanswered.failure());
      case World.Found found -> Answer.of(found.records());
    };
  }
}
