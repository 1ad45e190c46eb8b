package org.ysthmos.core.bridge;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.TwoWay.Field;
import org.ysthmos.core.bridge.TwoWay.FieldAt;
import org.ysthmos.core.bridge.TwoWay.Place;
import org.ysthmos.core.bridge.TwoWay.Translation;
import org.ysthmos.core.condition.Condition;
import org.ysthmos.core.condition.ConditionDocument;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Problems;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.recurrence.Recurrence;
import org.ysthmos.core.recurrence.RecurrenceDocument;
import org.ysthmos.core.recurrence.RecurrenceRule.Frequency;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.step.StepKinds;
import org.ysthmos.core.sync.BothChanged;
import org.ysthmos.core.sync.Direction;
import org.ysthmos.core.sync.Drift;
import org.ysthmos.core.sync.WhenGone;

/** Reads and writes what a bridge document says of two places that are kept alike. */
public final class TwoWayDocument {

  /** The key that makes a bridge go both ways. */
  static final String BETWEEN = "between";

  static final String LEFT = "left";
  static final String RIGHT = "right";
  static final String TO_LEFT = "to-left";
  static final String TO_RIGHT = "to-right";

  static final String CHECK = "check";

  private static final String EVERY = "every";
  private static final String TIMES = "times";

  private static final Duration SHORTEST_CHECK = Duration.ofHours(1);

  private static final String SAME = "same";
  private static final String ITS_PAIR = "its-pair";
  private static final String VALUES = "values";

  private TwoWayDocument() {}

  /**
   * What can be read of it; fields that cannot be are left out.
   *
   * @return empty if not even the places can be read
   */
  static Optional<TwoWay> readable(DocumentNode root, Problems problems) {
    DocumentNode between = root.need(BETWEEN);
    Optional<Place> left = problems.part(() -> place(between.only(LEFT, RIGHT, CHECK).need(LEFT)));
    Optional<Place> right = problems.part(() -> place(between.need(RIGHT)));
    Optional<TwoWay.Check> check =
        problems.part(() -> between.get(CHECK).map(TwoWayDocument::check)).flatMap(one -> one);
    List<Field> fields = new ArrayList<>();
    problems
        .part(() -> root.need("fields").group())
        .ifPresent(
            group ->
                group.forEach(
                    (name, node) -> problems.part(() -> field(name, node)).ifPresent(fields::add)));
    return left.flatMap(one -> right.map(other -> new TwoWay(one, other, check, fields)));
  }

  private static Place place(DocumentNode node) {
    node.only("system", "collection", "event", "every", "when", "begins", "if-gone");
    return new Place(
        node.need("system").text(),
        node.need("collection").text(),
        node.need("event").texts(),
        node.get("every").map(BridgeReader::interval),
        node.get("when").map(ConditionDocument::read).orElse(Condition.ALWAYS),
        node.get("begins").map(DocumentNode::flag).orElse(true),
        node.get("if-gone").map(TwoWayDocument::whenGone).orElse(WhenGone.ASK));
  }

  private static TwoWay.Check check(DocumentNode node) {
    Optional<DocumentNode> times = node.only(EVERY, TIMES).get(TIMES);
    if (times.isPresent() && node.get(EVERY).isPresent()) {
      throw node.refuse("say either every how long, or at which times");
    }
    return times.isPresent() ? atTimes(times.get()) : every(node.need(EVERY));
  }

  private static TwoWay.Check every(DocumentNode every) {
    Duration span = BridgeReader.span(every);
    if (span.compareTo(SHORTEST_CHECK) < 0) {
      throw every.refuse("both lists are read whole each time; write PT1H or longer");
    }
    return new TwoWay.Check.Every(span);
  }

  private static TwoWay.Check atTimes(DocumentNode node) {
    Recurrence times = RecurrenceDocument.readWithoutCalendar(node, "a check");
    if (times.rule().orElseThrow().frequency().compareTo(Frequency.HOURLY) < 0) {
      throw node.refuse("both lists are read whole each time; write FREQ=HOURLY or longer");
    }
    return new TwoWay.Check.AtTimes(times);
  }

  private static WhenGone whenGone(DocumentNode node) {
    return node.word(WhenGone.class);
  }

  private static Field field(String name, DocumentNode node) {
    if (!DocumentNode.isId(name)) {
      throw node.refuse("a field cannot be called “" + name + "”");
    }
    node.only(LEFT, RIGHT, "direction", TO_RIGHT, TO_LEFT, "both-changed", "drift");
    return new Field(
        name,
        node.get(LEFT).map(TwoWayDocument::fieldAt).orElseGet(() -> sameKey(name)),
        node.get(RIGHT).map(TwoWayDocument::fieldAt).orElseGet(() -> sameKey(name)),
        node.get("direction").map(word -> word.word(Direction.class)).orElse(Direction.BOTH),
        node.get("both-changed").map(word -> word.word(BothChanged.class)).orElse(BothChanged.ASK),
        node.get("drift").map(word -> word.word(Drift.class)).orElse(Drift.LEAVE),
        node.get(TO_RIGHT).map(TwoWayDocument::translation),
        node.get(TO_LEFT).map(TwoWayDocument::translation));
  }

  private static FieldAt sameKey(String name) {
    return new FieldAt(name, Optional.empty());
  }

  private static FieldAt fieldAt(DocumentNode node) {
    if (node.isText()) {
      return new FieldAt(node.text(), Optional.empty());
    }
    node.only("field", "read");
    return new FieldAt(
        node.need("field").text(), node.get("read").map(read -> read.parsed(Pointer::parse)));
  }

  private static Translation translation(DocumentNode node) {
    if (node.isText()) {
      return switch (node.text()) {
        case SAME -> new Translation.Steps(List.of());
        case ITS_PAIR -> new Translation.ItsPair();
        default -> throw node.refuse("write same, its-pair, { steps: […] } or { values: { … } }");
      };
    }
    node.only("steps", VALUES, "otherwise");
    if (node.get(VALUES).isEmpty()) {
      if (node.get("otherwise").isPresent()) {
        throw node.need("otherwise").refuse("“otherwise” goes with values");
      }
      return new Translation.Steps(StepKinds.readAll(node));
    }
    if (node.get("steps").isPresent()) {
      throw node.need("steps").refuse("a value goes through steps or is looked up, not both");
    }
    SequencedMap<String, String> values = new LinkedHashMap<>();
    node.need(VALUES).group().forEach((value, becomes) -> values.put(value, becomes.text()));
    return new Translation.Values(values, node.get("otherwise").map(DocumentNode::text));
  }

  private static Map<String, Object> written(TwoWay.Check check) {
    return switch (check) {
      case TwoWay.Check.Every every -> Map.of(EVERY, every.span().toString());
      case TwoWay.Check.AtTimes at -> Map.of(TIMES, RecurrenceDocument.write(at.times()));
    };
  }

  static void write(TwoWay both, SequencedMap<String, Object> document) {
    SequencedMap<String, Object> between = new LinkedHashMap<>();
    between.put(LEFT, written(both.left()));
    between.put(RIGHT, written(both.right()));
    both.check().ifPresent(check -> between.put(CHECK, written(check)));
    document.put(BETWEEN, between);
    SequencedMap<String, Object> fields = new LinkedHashMap<>();
    both.fields().forEach(field -> fields.put(field.name(), written(field)));
    document.put("fields", fields);
  }

  private static Object written(Place place) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    written.put("system", place.system());
    written.put("collection", place.collection());
    written.put("event", place.events());
    place.every().ifPresent(every -> written.put("every", every.toString()));
    if (!place.when().equals(Condition.ALWAYS)) {
      written.put("when", ConditionDocument.written(place.when()));
    }
    if (!place.begins()) {
      written.put("begins", false);
    }
    if (place.whenGone() != WhenGone.ASK) {
      written.put("if-gone", DocumentNode.wordOf(place.whenGone()));
    }
    return written;
  }

  private static Object written(Field field) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    written.put(LEFT, written(field.left()));
    written.put(RIGHT, written(field.right()));
    if (field.direction() != Direction.BOTH) {
      written.put("direction", DocumentNode.wordOf(field.direction()));
    }
    field.toRight().ifPresent(to -> written.put(TO_RIGHT, written(to)));
    field.toLeft().ifPresent(to -> written.put(TO_LEFT, written(to)));
    if (field.both() != BothChanged.ASK) {
      written.put("both-changed", DocumentNode.wordOf(field.both()));
    }
    if (field.drift() != Drift.LEAVE) {
      written.put("drift", DocumentNode.wordOf(field.drift()));
    }
    return written;
  }

  private static Object written(FieldAt at) {
    if (at.read().isEmpty()) {
      return at.key();
    }
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    written.put("field", at.key());
    written.put("read", at.read().get().toString());
    return written;
  }

  private static Object written(Translation translation) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    switch (translation) {
      case Translation.Steps steps when steps.steps().isEmpty() -> {
        return SAME;
      }
      case Translation.ItsPair pair -> {
        return ITS_PAIR;
      }
      case Translation.Steps steps ->
          written.put("steps", steps.steps().stream().map(Step::toDocument).toList());
      case Translation.Values values -> {
        written.put(VALUES, values.values());
        values.otherwise().ifPresent(other -> written.put("otherwise", other));
      }
    }
    return written;
  }
}
