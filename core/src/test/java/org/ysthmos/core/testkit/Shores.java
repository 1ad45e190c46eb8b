package org.ysthmos.core.testkit;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.TextLength;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** A board on the left and a ledger on the right whose tasks are kept alike. */
public final class Shores implements World {

  private static final Map<String, String> LANES =
      Map.of("wanted", "Wanted", "doing", "Doing", "finished", "Finished");
  private static final Map<String, String> STATUSES =
      Map.of("open", "Open", "planned", "Planned", "in-work", "In work", "done", "Done");

  public static final String BRIDGE =
      """
      bridge: shores
      name: Board and ledger
      purpose: The same tasks on both
      between:
        left: { system: board, collection: tasks, event: [created, changed, removed], if-gone: part }
        right:
          system: ledger
          collection: jobs
          event: [created, changed, removed]
          when: { value: /label, is: present }
          if-gone: close
      fields:
        title: { left: title, right: title, to-right: { steps: [shorten: 20] }, to-left: same }
        status:
          left: lane
          right: status
          to-right: { values: { wanted: open, doing: in-work, finished: done } }
          to-left: { values: { open: wanted, planned: wanted, in-work: doing, done: finished } }
        due:
          left: due
          right: due
          to-right: { steps: [day-in: Europe/Lisbon] }
          to-left: { steps: [at: { time: "17:00", zone: Europe/Lisbon }] }
          both-changed: later-wins
        note: { left: note, right: note, direction: to-right, drift: restore }
      """;

  public static final Catalog CATALOG =
      Catalog.of(
          new Shapes() {
            @Override
            public Optional<CollectionShape> find(String system, String collection) {
              return switch (system + "/" + collection) {
                case "board/tasks" -> Optional.of(board());
                case "ledger/jobs" -> Optional.of(ledger());
                default -> Optional.empty();
              };
            }

            @Override
            public Set<String> systems() {
              return Set.of("board", "ledger");
            }

            @Override
            public Set<String> collections(String system) {
              return system.equals("board") ? Set.of("tasks") : Set.of("jobs");
            }
          });

  private final Map<String, ObjectNode> records = new HashMap<>();
  private final List<String> asked = new ArrayList<>();
  private Optional<SyncedPair> pair = Optional.empty();
  private final List<SyncedPair> others = new ArrayList<>();
  private final List<Unnamed> unnamed = new ArrayList<>();
  private final Map<Side, Duration> ahead = new HashMap<>();
  private boolean waits;
  private boolean answers = true;
  private boolean made;
  private Stays stays = Stays.NO;

  public static BridgeVersion bridge(String yaml) {
    return BridgeCompiler.compile(yaml, 1, CATALOG);
  }

  private static CollectionShape board() {
    return shape(
        "board",
        "Board",
        "tasks",
        List.of(
            FieldShape.of("title", "Title", ValueType.TEXT).withRequired(true),
            FieldShape.of("lane", "Lane", ValueType.CHOICE).withNames(LANES),
            FieldShape.of("due", "Due", ValueType.MOMENT),
            FieldShape.of("parent", "Part of", ValueType.TEXT),
            FieldShape.of("note", "Note", ValueType.TEXT)),
        List.of(FieldShape.of("/id", "number", ValueType.TEXT)));
  }

  private static CollectionShape ledger() {
    return shape(
        "ledger",
        "Ledger",
        "jobs",
        List.of(
            FieldShape.of("title", "Title", ValueType.TEXT)
                .withRequired(true)
                .withLongest(OptionalInt.of(20), TextLength.CODE_UNITS),
            FieldShape.of("status", "Status", ValueType.CHOICE).withNames(STATUSES),
            FieldShape.of("due", "Due", ValueType.DAY),
            FieldShape.of("parent", "Parent", ValueType.TEXT),
            FieldShape.of("note", "Note", ValueType.TEXT),
            FieldShape.of("link", "Link", ValueType.LINK),
            FieldShape.of("/label", "Label", ValueType.TEXT)),
        List.of(FieldShape.of("/label", "label", ValueType.TEXT)));
  }

  private static CollectionShape shape(
      String system,
      String name,
      String collection,
      List<FieldShape> fields,
      List<FieldShape> eventFields) {
    return new CollectionShape(
            system, name, collection, collection, "task", "title", "", fields, eventFields)
        .with(
            new CollectionShape.Abilities(
                List.of("created", "changed", "removed"),
                true,
                true,
                system.equals("board"),
                true));
  }

  /** A record as it stands on its side now. */
  public Shores holding(String record, String... fields) {
    ObjectNode node = JsonNodeFactory.instance.objectNode().put("id", record);
    for (int i = 0; i < fields.length; i += 2) {
      node.put(fields[i], fields[i + 1]);
    }
    records.put(record, node);
    return this;
  }

  public Shores without(String record) {
    records.remove(record);
    return this;
  }

  public Shores paired(SyncedPair known) {
    pair = Optional.of(known);
    return this;
  }

  /** Something was sent to be made for a task, and no answer said what it is called. */
  public Shores unnamed(String partner, Map<String, Value> sent) {
    unnamed.add(new Unnamed(partner, sent));
    return this;
  }

  /** Another pair than that of the event. */
  public Shores besides(SyncedPair other) {
    others.add(other);
    return this;
  }

  /** Events still wait for what is not there yet. */
  public Shores waiting() {
    waits = true;
    return this;
  }

  public Shores silent() {
    answers = false;
    return this;
  }

  /** Each task of the pair was made by the bridge. */
  public Shores madeBefore() {
    made = true;
    return this;
  }

  public Shores staying(Stays why) {
    stays = why;
    return this;
  }

  /** The clock of a side is wrong. */
  public Shores ahead(Side side, Duration by) {
    ahead.put(side, by);
    return this;
  }

  /** The records that were read, in order. */
  public List<String> asked() {
    return asked;
  }

  public static Event event(Side side, String kind, String record, String data) {
    return Garden.event(side == Side.LEFT ? "board/tasks" : "ledger/jobs", kind, record, data);
  }

  /** Decides an event of one of both sides. */
  public Decision decide(String yaml, Side side, String kind, String record, String data) {
    Event event = event(side, kind, record, data);
    BridgeVersion seen = bridge(yaml).seenFrom(event.system(), event.collection());
    return Decider.decide(seen, event, this, Mode.EXPLAINED);
  }

  public Decision decide(Side side, String kind, String record) {
    return decide(BRIDGE, side, kind, record, "{}");
  }

  @Override
  public LookupAnswer lookUp(String lookup, Question question) {
    String id = question.keys().sequencedValues().getFirst();
    asked.add(id);
    if (!answers) {
      return new Unanswered(Failure.of(FailureKind.UNREACHABLE, "nobody answers"));
    }
    ObjectNode record = records.get(id);
    return record == null
        ? new Found(List.of())
        : new Found(
            List.of(record),
            Optional.of("tag of " + id),
            ahead.getOrDefault(Synced.sideOf(lookup), Duration.ZERO));
  }

  /** Only the board has pages. */
  @Override
  public Optional<URI> page(String system, String collection, String record) {
    return system.equals("board")
        ? Optional.of(URI.create("https://board.example/tasks/" + record))
        : Optional.empty();
  }

  @Override
  public Optional<SyncedPair> synced(String bridge, Side side, String record) {
    return pair.filter(one -> one.records().of(side).filter(record::equals).isPresent());
  }

  @Override
  public List<Unnamed> unnamed(String bridge, Side side) {
    return side == Side.RIGHT ? unnamed : List.of();
  }

  @Override
  public Optional<SyncedPair> named(String bridge, Side side, String record) {
    return others.stream()
        .filter(one -> one.records().of(side).filter(record::equals).isPresent())
        .findFirst();
  }

  @Override
  public Optional<Instant> changedAt(String system, String collection, JsonNode record) {
    return Optional.of(record.path("at").asText())
        .filter(text -> !text.isEmpty())
        .map(Instant::parse);
  }

  @Override
  public Map<String, Value> closing(String system, String collection) {
    return system.equals("board") ? Map.of("lane", Text.of("finished")) : Map.of();
  }

  @Override
  public boolean removes(String system, String collection) {
    return system.equals("ledger");
  }

  @Override
  public boolean waits(Event event, Duration span) {
    return waits;
  }

  @Override
  public Optional<PairState> pair(String bridge, MatchKey key) {
    return stays == Stays.NO && !made
        ? Optional.empty()
        : Optional.of(new PairState(Optional.of("x"), Map.of(), false, stays, 0));
  }

  @Override
  public TouchAnswer touched(MatchKey key, PairState state) {
    return new Touched(false);
  }

  @Override
  public Optional<ReferenceTable> table(String id) {
    return Optional.empty();
  }

  @Override
  public Optional<WorkingCalendar> calendar(String id) {
    return Optional.empty();
  }

  @Override
  public Optional<JsonNode> previous(Event event) {
    return Optional.empty();
  }
}
