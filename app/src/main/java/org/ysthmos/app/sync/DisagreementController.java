package org.ysthmos.app.sync;

import java.net.URI;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.sync.SyncedMapper.DisagreementRow;
import org.ysthmos.app.sync.SyncedMapper.SyncedRow;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.sync.Answer;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** Fields on which two sides disagree. */
@RestController
@RequestMapping(path = "/api/disagreements", produces = MediaType.APPLICATION_JSON_VALUE)
class DisagreementController {

  private static final int MOST = 200;

  /**
   * One of the sides.
   *
   * @param place for example {@code Works, Grounds Board}
   * @param page where a person sees its task; empty if there is no such page
   * @param before what it held when both agreed last, as text
   * @param now what it holds now
   */
  record DisagreeingSide(
      String place, String system, String record, String page, String before, String now) {}

  /**
   * A field on which both sides disagree.
   *
   * @param title of the pair
   * @param trace the id of the trace that found it so last; empty if that is not kept any more
   * @param both whether both can be kept: all items, or one text after the other
   * @param typed whether another value can be typed
   */
  record Disagreement(
      long id,
      String bridge,
      String bridgeName,
      String title,
      String field,
      String because,
      Instant since,
      String trace,
      boolean both,
      boolean typed,
      DisagreeingSide left,
      DisagreeingSide right) {}

  /** Those that wait for a person, the oldest first; {@code open} is how many there are in all. */
  record DisagreementPage(List<Disagreement> items, int open) {}

  /** What a person may take. */
  enum Take {
    LEFT,
    RIGHT,
    BOTH,
    TYPED
  }

  /**
   * What a person says.
   *
   * @param text what was typed, as the left side says it; empty otherwise
   */
  record DisagreementAnswer(Take take, String text) {}

  /** The trace that carries an answer out. */
  record Answered(String trace) {}

  private final SyncedMapper mapper;
  private final SyncedPairs pairs;
  private final Disagreements disagreements;
  private final Bridges bridges;
  private final Systems systems;
  private final TraceMapper traces;
  private final LiveFeed feed;

  DisagreementController(
      SyncedMapper mapper,
      SyncedPairs pairs,
      Disagreements disagreements,
      Bridges bridges,
      Systems systems,
      TraceMapper traces,
      LiveFeed feed) {
    this.mapper = mapper;
    this.pairs = pairs;
    this.disagreements = disagreements;
    this.bridges = bridges;
    this.systems = systems;
    this.traces = traces;
    this.feed = feed;
  }

  @GetMapping
  DisagreementPage open() {
    return new DisagreementPage(
        mapper.open(MOST).stream().map(this::view).toList(), mapper.countOpen());
  }

  @PostMapping("/{id}/answer")
  Answered answer(@PathVariable long id, @RequestBody DisagreementAnswer said) {
    DisagreementRow row = mapper.disagreement(id);
    if (row == null) {
      throw ApiProblem.notFound("disagreement", Long.toString(id));
    }
    Answer answer =
        switch (said.take()) {
          case LEFT -> new Answer.Wins(Side.LEFT);
          case RIGHT -> new Answer.Wins(Side.RIGHT);
          case BOTH -> new Answer.Both();
          case TYPED -> new Answer.Typed(disagreements.typed(row, said.text()));
        };
    String trace = disagreements.answer(row, answer, By.PERSON);
    feed.changed(row.bridgeId(), trace);
    return new Answered(trace);
  }

  private Disagreement view(DisagreementRow row) {
    SyncedRow pair = Objects.requireNonNull(mapper.pair(row.bridgeId(), row.pairHash()));
    Optional<CompiledTwoWay.Field> field = disagreements.field(row);
    Both<Value> before = pairs.both(row.beforeValues());
    Both<Value> now = pairs.both(row.nowValues());
    Both<DisagreeingSide> sides =
        Both.by(
            side ->
                side(row, pair, side, field.map(one -> one.at().of(side).shape()), before, now));
    TraceRow trace = traces.at(row.traceSeq());
    return new Disagreement(
        row.id(),
        row.bridgeId(),
        bridges.nameOf(row.bridgeId()),
        pair.title(),
        Words.capital(row.field().replace('-', ' ')),
        row.because(),
        row.since(),
        trace == null ? "" : trace.id(),
        canBeBoth(now),
        field.filter(one -> one.at().left().shape().type().isSimple()).isPresent(),
        sides.left(),
        sides.right());
  }

  private static boolean canBeBoth(Both<Value> now) {
    return (now.left() instanceof Text && now.right() instanceof Text)
        || (now.left() instanceof ListValue && now.right() instanceof ListValue);
  }

  private DisagreeingSide side(
      DisagreementRow row,
      SyncedRow pair,
      Side side,
      Optional<FieldShape> shape,
      Both<Value> before,
      Both<Value> now) {
    Optional<CompiledTwoWay.CompiledPlace> place =
        bridges
            .live(row.bridgeId())
            .flatMap(live -> live.version().between())
            .map(both -> both.place(side));
    String record =
        Optional.ofNullable(side == Side.LEFT ? pair.leftRecord() : pair.rightRecord()).orElse("");
    return new DisagreeingSide(
        place.map(one -> one.shape().name() + ", " + one.shape().systemName()).orElse(""),
        place.map(one -> one.shape().systemName()).orElse(""),
        record,
        place
            .flatMap(one -> systems.page(one.rule().system(), one.rule().collection(), record))
            .map(URI::toString)
            .orElse(""),
        shown(before.of(side), shape),
        shown(now.of(side), shape));
  }

  private static String shown(Value value, Optional<FieldShape> shape) {
    return shape.map(one -> one.shown(value)).orElse(value.display());
  }
}
