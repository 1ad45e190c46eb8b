package org.ysthmos.app.recall;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.courier.TaskLooks;
import org.ysthmos.app.incident.IncidentBook;
import org.ysthmos.app.incident.IncidentMapper.IncidentRow;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.pair.Writings;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.recall.RecallMapper.ItemRow;
import org.ysthmos.app.recall.RecallMapper.MadeRow;
import org.ysthmos.app.recall.RecallMapper.NewRecall;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.who.By;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.recall.MadeEffect;
import org.ysthmos.core.recall.PutBack;
import org.ysthmos.core.recall.RecallPlan;
import org.ysthmos.core.recall.RecallWay;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Value;

/** Lists what bridges made, so that a person sees it before anything is taken back. */
@Component
class RecallLists {

  /** More are not shown to anybody who could look through them; a shorter span is asked for. */
  static final int MOST = 100_000;

  private static final int TOGETHER = 100;

  /** As far ahead as a clock may have been while something was made. */
  private static final Duration CLOCK_AHEAD = Duration.ofDays(2);

  /** A list that nobody began with is forgotten after this time, as it grows old. */
  private static final Duration KEPT = Duration.ofDays(1);

  private final RecallMapper mapper;
  private final Bridges bridges;
  private final Systems systems;
  private final Pairs pairs;
  private final Writings writings;
  private final TaskLooks looks;
  private final TraceMapper traces;
  private final IncidentBook incidents;
  private final Journal journal;
  private final AppClock clock;

  RecallLists(
      RecallMapper mapper,
      Bridges bridges,
      Systems systems,
      Pairs pairs,
      Writings writings,
      TaskLooks looks,
      TraceMapper traces,
      IncidentBook incidents,
      Journal journal,
      AppClock clock) {
    this.mapper = mapper;
    this.bridges = bridges;
    this.systems = systems;
    this.pairs = pairs;
    this.writings = writings;
    this.looks = looks;
    this.traces = traces;
    this.incidents = incidents;
    this.journal = journal;
    this.clock = clock;
  }

  /**
   * What the bridge or the bridges of an incident made: since the span in which it was too much.
   */
  RecallScope ofIncident(long id) {
    IncidentRow incident = incidents.get(id);
    List<String> concerned = IncidentBook.bridges(incident);
    if (concerned.isEmpty()) {
      throw new ApiProblem(
          HttpStatus.CONFLICT, "Of no bridge", "This incident concerns no bridge that made any.");
    }
    Duration span =
        concerned.stream()
            .flatMap(bridge -> bridges.live(bridge).stream())
            .map(live -> live.ceiling().per())
            .max(Duration::compareTo)
            .orElse(Duration.ofHours(1));
    Instant from = incident.openedAt().minus(span);
    return new RecallScope(concerned, null, null, id, from, clock.instant());
  }

  /** What one trace made. */
  RecallScope ofTrace(String id) {
    TraceRow trace = traces.find(id);
    if (trace == null) {
      throw ApiProblem.notFound("trace", id);
    }
    if (trace.isTry()) {
      throw new ApiProblem(
          HttpStatus.CONFLICT, "A try", "What a try made is taken back from its trace.");
    }
    if (trace.verdict() == null) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Still under way",
          "This trace is not finished; what it makes can be taken back when it is.");
    }
    return new RecallScope(
        List.of(trace.bridgeId()), null, id, null, trace.receivedAt(), clock.instant());
  }

  /**
   * Lists what there is of a scope. Nothing is asked of any system.
   *
   * @return the number of the recall
   * @throws ApiProblem if there is nothing, too much, or the scope makes no sense
   */
  long list(RecallScope scope, By by) {
    long id = listUnseen(scope, by);
    journal.run(() -> mapper.listedWhole(id));
    return id;
  }

  /** The same, before anybody can see the list or looks at its records. */
  long listUnseen(RecallScope scope, By by) {
    check(scope);
    List<MadeRow> made = made(scope);
    if (made.isEmpty()) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Nothing was made",
          "Nothing was made or changed in this span that could be taken back.");
    }
    Map<Long, MadeRow> rows =
        made.stream().collect(Collectors.toMap(MadeRow::seq, Function.identity()));
    List<RecallPlan.Step> steps =
        RecallPlan.of(
            made.stream().map(RecallLists::effect).toList(),
            this::able,
            effects -> before(effects.stream().map(one -> rows.get(one.delivery())).toList()));
    long id = journal.now(() -> begin(scope, by));
    List<ItemRow> items = new ArrayList<>();
    for (RecallPlan.Step step : steps) {
      MadeRow row = Objects.requireNonNull(rows.get(step.effect().delivery()));
      items.add(item(id, row, step));
    }
    // Some in each change, so that a long list keeps nobody else waiting.
    for (int i = 0; i < items.size(); i += TOGETHER) {
      List<ItemRow> some = items.subList(i, Math.min(items.size(), i + TOGETHER));
      journal.runSoon(() -> some.forEach(mapper::addItem));
    }
    return id;
  }

  private long begin(RecallScope scope, By by) {
    forgetOld();
    NewRecall recall = new NewRecall(scope, by.name(), clock.instant());
    mapper.add(recall);
    return recall.id;
  }

  private void check(RecallScope scope) {
    for (String bridge : scope.bridges()) {
      if (bridges.live(bridge).isEmpty()
          && bridges.retired(bridge).isEmpty()
          && bridges.broken().stream().noneMatch(one -> one.id().equals(bridge))) {
        throw ApiProblem.notFound("bridge", bridge);
      }
    }
    if (scope.bridges().isEmpty() || !scope.from().isBefore(scope.until())) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST,
          "No span",
          "Say which bridge, and a span that begins before it ends.");
    }
  }

  private List<MadeRow> made(RecallScope scope) {
    String trace = scope.trace();
    if (trace != null) {
      return mapper.madeBy(trace);
    }
    List<MadeRow> made = new ArrayList<>();
    for (String bridge : scope.bridges()) {
      Instant ended = scope.from().minus(CLOCK_AHEAD);
      made.addAll(
          mapper.made(bridge, scope.version(), scope.from(), scope.until(), ended, MOST + 1));
    }
    if (made.size() > MOST) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Too many",
          "More than %,d were made in this span. Choose a shorter one.".formatted(MOST));
    }
    return made;
  }

  /** What nobody began with is forgotten when the next list is made. */
  private void forgetOld() {
    Instant before = clock.instant().minus(KEPT);
    mapper.unbegun().stream()
        .filter(row -> row.listedAt().isBefore(before))
        .forEach(row -> forgetNow(row.id()));
  }

  private void forgetNow(long id) {
    if (mapper.forget(id) == 1) {
      mapper.forgetItems(id);
    }
  }

  /** Nothing is to be taken back after all. */
  void forget(long id) {
    journal.run(() -> forgetNow(id));
  }

  private static MadeEffect effect(MadeRow row) {
    return new MadeEffect(
        row.seq(),
        row.traceSeq(),
        row.bridgeId() + "/" + row.matchHash(),
        new CollectionRef(row.systemId(), row.collectionId()),
        row.recordId(),
        row.kind());
  }

  private RecallPlan.Able able(CollectionRef at) {
    return systems
        .collection(at.system(), at.collection())
        .map(one -> new RecallPlan.Able(one.removes(), !one.closing().isEmpty(), one.changes()))
        .orElse(new RecallPlan.Able(false, false, false));
  }

  /** What a record held before it was changed, as far as that was noted. */
  private PutBack before(List<MadeRow> changes) {
    MadeRow last = changes.getLast();
    List<PutBack.Undone> undone =
        changes.stream()
            .map(row -> new PutBack.Undone(values(row.fields()), values(row.heldBefore())))
            .toList();
    return PutBack.of(
        undone,
        pairs.agreed(last.bridgeId(), last.matchHash()),
        writings.alsoWrittenBy(
            last.systemId(),
            last.collectionId(),
            last.recordId(),
            last.bridgeId(),
            last.matchHash()));
  }

  private Map<String, Value> values(byte @Nullable [] kept) {
    return kept == null ? Map.of() : KeptFields.read(kept);
  }

  private ItemRow item(long recall, MadeRow row, RecallPlan.Step step) {
    boolean named = step.way() == RecallWay.NAME;
    // Whether somebody changed a task that cannot be looked at is not known: a person says so.
    boolean blind = !looks.canLook(row.systemId(), row.collectionId());
    boolean puts = step.way() == RecallWay.PUT_BACK;
    boolean goes =
        !named
            && row.there()
            && (!blind || row.kind() == EffectKind.MESSAGE)
            && (!puts || step.before().isWhole());
    ItemState state = named ? ItemState.NAMED : ItemState.WAITING;
    String words = named ? step.because() : "";
    if (!named && !row.there()) {
      state = ItemState.GONE_BEFORE;
      words = "Others removed it, or it was taken back before";
    } else if (!named && blind) {
      words = "It cannot be looked at whether somebody changed it";
    } else if (puts) {
      words = left(row, step.before());
    }
    return new ItemRow(
        recall,
        row.seq(),
        row.traceSeq(),
        row.traceId(),
        Words.limited(title(row), 300),
        row.bridgeId(),
        row.matchHash(),
        row.systemId(),
        row.collectionId(),
        row.recordId(),
        row.idempotencyKey(),
        row.kind(),
        row.parentField() != null,
        row.madeAt(),
        step.changes(),
        step.way(),
        state,
        state == ItemState.WAITING && blind ? Looked.UNKNOWN : null,
        goes,
        false,
        words,
        null,
        null,
        puts ? KeptFields.write(step.before().fields()) : null);
  }

  /** What is not put back of a record that was there before; empty if all is. */
  private String left(MadeRow row, PutBack before) {
    List<String> words = new ArrayList<>();
    if (!before.unknown().isEmpty()) {
      words.add("What it held before is not known of " + named(row, before.unknown()));
    }
    if (!before.since().isEmpty()) {
      words.add("Written anew since and left so: " + named(row, before.since()));
    }
    return Words.limited(String.join(". ", words), 1000);
  }

  private String named(MadeRow row, List<String> fields) {
    return fields.stream()
        .map(field -> fieldName(row.systemId(), row.collectionId(), field))
        .collect(Collectors.joining(", "));
  }

  /** A field as people call it. */
  String fieldName(String system, String collection, String field) {
    return systems
        .collection(system, collection)
        .flatMap(one -> one.shape().field(field))
        .map(FieldShape::name)
        .orElse(field);
  }

  private static String title(MadeRow row) {
    String of = row.title() == null ? row.recordId() : row.title();
    return row.effectName() == null ? of : row.effectName().replace('-', ' ') + ": " + of;
  }

  /** What a recall's record may hold that is closed. */
  SystemCollection collection(ItemRow item) {
    return systems
        .collection(item.systemId(), item.collectionId())
        .orElseThrow(() -> new IllegalStateException("its collection is gone: " + item.systemId()));
  }

  /** The bridge that is held while one of its deliveries waits; null if it is not. */
  @Nullable String heldBridge(ItemRow item) {
    return bridges.isHeld(item.bridgeId()) ? bridges.nameOf(item.bridgeId()) : null;
  }
}
