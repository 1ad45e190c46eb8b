package org.ysthmos.app.duplicate;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.ysthmos.app.duplicate.DuplicateMapper.DuplicateRow;
import org.ysthmos.app.duplicate.DuplicateMapper.State;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.pair.Writings;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.decide.PlannedDelivery;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.json.StoredText;
import org.ysthmos.core.likeness.TaskLikeness;
import org.ysthmos.core.likeness.TitleIndex.Near;
import org.ysthmos.core.value.Value;

/** Finds, while tasks are decided, which open ones read nearly the same. */
@Component
public class Duplicates {

  /**
   * A title that so many known tasks have, or nearly, tells nothing: it comes round, or all of a
   * sort have it. Common practice, no source.
   */
  private static final int USUAL = 5;

  /** Of one task so many at the most are looked at. */
  private static final int MOST = 3;

  /** How deep in an event its record is looked for. */
  private static final int DEEPEST = 3;

  /** A task that is to be made, and those that read nearly the same. */
  public record Found(
      TaskDecision task, CollectionRef at, String title, List<Near<KnownTask>> near) {}

  /**
   * A task that its bridge does not make before a person says that it is another.
   *
   * @param record the other's id over there
   */
  public record Waits(Found found, Near<KnownTask> near, String record, TaskLikeness likeness) {

    /** Why it waits. */
    public Failure failure() {
      return Failure.of(
              FailureKind.POSSIBLE_DUPLICATE,
              "It reads nearly like “%s” (%s), which is open".formatted(near.title(), record))
          .withRemedy("Say on Pairs whether it is the same");
    }
  }

  private final KnownTitles titles;
  private final DuplicateMapper mapper;
  private final Systems systems;
  private final Pairs pairs;
  private final Writings writings;
  private final Sides sides;
  private final DuplicateLooks looks;
  private final AppClock clock;

  Duplicates(
      KnownTitles titles,
      DuplicateMapper mapper,
      Systems systems,
      Pairs pairs,
      Writings writings,
      Sides sides,
      DuplicateLooks looks,
      AppClock clock) {
    this.titles = titles;
    this.mapper = mapper;
    this.systems = systems;
    this.pairs = pairs;
    this.writings = writings;
    this.sides = sides;
    this.looks = looks;
    this.clock = clock;
  }

  /**
   * Notes the titles that tasks are to have, and finds what reads nearly the same as those that are
   * to be made. Of two that are decided side by side, at least one finds the other.
   */
  public List<Found> find(List<TaskDecision> tasks) {
    List<Found> found = new ArrayList<>();
    for (TaskDecision task : tasks) {
      Optional<PlannedDelivery> delivery = task.delivery().filter(any -> !task.then());
      Optional<String> title = delivery.flatMap(planned -> title(task, planned));
      if (title.isPresent()) {
        CollectionRef at = new CollectionRef(delivery.get().system(), delivery.get().collection());
        KnownTask itself = new KnownTask.OfPair(task.key().bridge(), task.key().hash());
        titles.put(at, itself, title.get());
        if (task.verdict() == Verdict.CREATE) {
          List<Near<KnownTask>> near = titles.near(at, itself, title.get(), USUAL);
          if (!near.isEmpty() && near.size() < USUAL) {
            found.add(
                new Found(task, at, title.get(), near.subList(0, Math.min(MOST, near.size()))));
          }
        }
      }
    }
    return found;
  }

  /** An event may tell of a task that others made, or that is done. */
  public void heard(Event event) {
    Set<String> written = systems.writtenIn(event);
    String in = written.contains(event.collection()) ? event.collection() : theOnly(written);
    if (in.isEmpty() || !writings.writers(event.system(), Set.of(in), event.record()).isEmpty()) {
      return;
    }
    CollectionRef at = new CollectionRef(event.system(), in);
    KnownTask told = new KnownTask.Told(event.record());
    Optional<JsonNode> task = holding(event.data(), sides.titleField(at));
    if (task.isEmpty() || sides.isClosed(at, task.get())) {
      titles.forget(at, told);
    } else {
      titles.put(at, told, StoredText.of(task.get().path(sides.titleField(at))));
    }
  }

  private static String theOnly(Set<String> some) {
    return some.size() == 1 ? some.iterator().next() : "";
  }

  /** The first of what an event holds that has a title, the outermost first. */
  private static Optional<JsonNode> holding(JsonNode data, String titleField) {
    List<JsonNode> level = List.of(data);
    for (int depth = 0; depth < DEEPEST && !titleField.isEmpty(); depth++) {
      for (JsonNode node : level) {
        if (node.path(titleField).isTextual()) {
          return Optional.of(node);
        }
      }
      level = level.stream().flatMap(JsonNode::valueStream).filter(JsonNode::isObject).toList();
    }
    return Optional.empty();
  }

  private Optional<String> title(TaskDecision task, PlannedDelivery planned) {
    if (planned.record().isEmpty() && systems.kindOf(planned) != EffectKind.CREATE) {
      return Optional.empty();
    }
    return systems
        .find(planned.system(), planned.collection())
        .map(shape -> task.fields().get(shape.titleField()))
        .map(Value::display)
        .filter(text -> !text.isBlank());
  }

  /** How many wait for a person. */
  public int open() {
    return mapper.count(State.OPEN);
  }

  /**
   * What a bridge waits with, as it states how alike tasks are with which it does: those are looked
   * at now. What could not be looked at is made; it is found once more afterwards.
   */
  public List<Waits> waits(BridgeDefinition bridge, List<Found> found) {
    Optional<Threshold> threshold = threshold(bridge);
    List<Waits> waits = new ArrayList<>();
    for (Found one : threshold.isEmpty() ? List.<Found>of() : found) {
      Set<String> answered = different(one);
      for (Near<KnownTask> near : one.near()) {
        Optional<String> record = record(near.key()).filter(answered::add);
        record.flatMap(there -> look(one, near, there, threshold.get())).ifPresent(waits::add);
      }
    }
    return waits;
  }

  private record Threshold(List<String> compare, double waitAt) {}

  private static Optional<Threshold> threshold(BridgeDefinition bridge) {
    return bridge
        .duplicates()
        .flatMap(one -> one.waitAt().map(at -> new Threshold(one.compare(), at)));
  }

  /** The tasks of which a person said that they are others. */
  private Set<String> different(Found found) {
    return mapper.ofPair(found.task().key().bridge(), found.task().key().hash()).stream()
        .filter(row -> row.state() == State.DIFFERENT)
        .flatMap(row -> Optional.ofNullable(row.otherRecord()).stream())
        .collect(Collectors.toCollection(HashSet::new));
  }

  private Optional<String> record(KnownTask other) {
    return switch (other) {
      case KnownTask.Told told -> Optional.of(told.record());
      case KnownTask.OfPair pair ->
          pairs.target(pair.bridge(), pair.hash()).map(Pairs.Side::record);
    };
  }

  private Optional<Waits> look(
      Found found, Near<KnownTask> near, String record, Threshold threshold) {
    if (!(sides.read(found.at(), record) instanceof Sides.There there) || there.closed()) {
      return Optional.empty();
    }
    TaskLikeness likeness =
        sides.likeness(
            found.at(), near.likeness(), threshold.compare(), found.task().fields(), there.task());
    return likeness.score() < threshold.waitAt()
        ? Optional.empty()
        : Optional.of(new Waits(found, near, record, likeness));
  }

  /** Keeps what was found, inside the change that stores the tasks' deliveries. */
  public void keep(long trace, List<Found> found) {
    for (Found one : found) {
      for (Near<KnownTask> near : one.near()) {
        if (isNew(one, near.key())) {
          mapper.add(
              row(
                  trace,
                  one,
                  near,
                  new TaskLikeness(near.likeness().score(), List.of(near.likeness().words()))));
        }
      }
    }
    if (!found.isEmpty()) {
      looks.raise();
    }
  }

  /** Keeps what waits for a person, inside the change that ends its trace. */
  public void keepWaiting(long trace, List<Waits> waits) {
    for (Waits one : waits) {
      mapper.ofPair(one.found().task().key().bridge(), one.found().task().key().hash()).stream()
          .filter(row -> row.state() == State.OPEN && one.near().key().equals(row.other()))
          .forEach(row -> mapper.drop(row.id()));
      DuplicateRow row = row(trace, one.found(), one.near(), one.likeness());
      mapper.add(
          row.waiting(
              one.record(),
              KeptFields.write(one.found().task().fields()),
              one.found().task().key().text(),
              one.found().task().member()));
    }
  }

  private boolean isNew(Found found, KnownTask other) {
    return mapper.ofPair(found.task().key().bridge(), found.task().key().hash()).stream()
        .noneMatch(row -> other.equals(row.other()));
  }

  private DuplicateRow row(long trace, Found found, Near<KnownTask> near, TaskLikeness likeness) {
    return new DuplicateRow(
        0,
        State.TO_LOOK,
        found.task().key().bridge(),
        found.task().key().hash(),
        trace,
        found.at().system(),
        found.at().collection(),
        Words.limited(found.title(), 300),
        near.key() instanceof KnownTask.OfPair pair ? pair.bridge() : null,
        near.key() instanceof KnownTask.OfPair pair ? pair.hash() : null,
        near.key() instanceof KnownTask.Told told ? told.record() : null,
        Words.limited(near.title(), 300),
        likeness.score(),
        Words.limited(String.join("\n", likeness.reasons()), 1000),
        0,
        clock.instant(),
        null,
        null,
        false,
        null,
        null,
        null,
        null);
  }
}
