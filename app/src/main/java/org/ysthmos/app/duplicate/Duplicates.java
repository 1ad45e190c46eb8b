package org.ysthmos.app.duplicate;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.http.StoredText;
import org.ysthmos.app.duplicate.DuplicateMapper.DuplicateRow;
import org.ysthmos.app.duplicate.DuplicateMapper.State;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.decide.PlannedDelivery;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.likeness.TitleIndex.Near;
import org.ysthmos.core.value.Value;

/** Finds, while tasks are decided, which open ones read nearly the same. */
@Component
public class Duplicates {

  /** Of one task so many at the most are brought before a person. */
  private static final int MOST = 3;

  /** How deep in an event its record is looked for. */
  private static final int DEEPEST = 3;

  /** A task that is to be made, and those that read nearly the same. */
  public record Found(
      TaskDecision task, CollectionRef at, String title, List<Near<KnownTask>> near) {}

  private final KnownTitles titles;
  private final DuplicateMapper mapper;
  private final Systems systems;
  private final Pairs pairs;
  private final Sides sides;
  private final DuplicateLooks looks;
  private final AppClock clock;

  Duplicates(
      KnownTitles titles,
      DuplicateMapper mapper,
      Systems systems,
      Pairs pairs,
      Sides sides,
      DuplicateLooks looks,
      AppClock clock) {
    this.titles = titles;
    this.mapper = mapper;
    this.systems = systems;
    this.pairs = pairs;
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
          List<Near<KnownTask>> near = titles.near(at, itself, title.get(), MOST);
          if (!near.isEmpty()) {
            found.add(new Found(task, at, title.get(), near));
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
    if (in.isEmpty()
        || !pairs.writers(event.system(), Set.of(in), event.record()).isEmpty()) {
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

  /** Keeps what was found, inside the change that stores the tasks' deliveries. */
  public void keep(long trace, List<Found> found) {
    for (Found one : found) {
      for (Near<KnownTask> near : one.near()) {
        mapper.add(row(trace, one, near));
      }
    }
    if (!found.isEmpty()) {
      looks.raise();
    }
  }

  private DuplicateRow row(long trace, Found found, Near<KnownTask> near) {
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
        record(near.key()),
        Words.limited(near.title(), 300),
        near.likeness().score(),
        near.likeness().words(),
        0,
        clock.instant(),
        null,
        null,
        null);
  }

  private static @Nullable String record(KnownTask known) {
    return known instanceof KnownTask.Told told ? told.record() : null;
  }
}
