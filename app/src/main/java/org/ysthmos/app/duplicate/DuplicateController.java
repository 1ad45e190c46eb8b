package org.ysthmos.app.duplicate;

import io.swagger.v3.oas.annotations.media.Schema;
import java.net.URI;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.duplicate.DuplicateMapper.DuplicateRow;
import org.ysthmos.app.duplicate.DuplicateMapper.State;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.pair.PairMapper;
import org.ysthmos.app.pair.PairMapper.PairRow;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.who.By;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.json.StoredText;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Value;

/** Possible duplicates, and what a person says of them. */
@RestController
@RequestMapping(path = "/api/duplicates", produces = MediaType.APPLICATION_JSON_VALUE)
class DuplicateController {

  private static final int PAGE = 50;

  /**
   * What may be one thing twice.
   *
   * @param title of the task that was made last
   * @param trace the id of the trace that made it; empty if that is not kept any more
   * @param score from 0.85 to 1
   * @param reasons why they may be one
   * @param waits whether the task is not made yet, as its bridge waits for the answer
   */
  record DuplicateLine(
      long id,
      String bridge,
      String bridgeName,
      String place,
      String title,
      String otherTitle,
      double score,
      List<String> reasons,
      Instant foundAt,
      String trace,
      boolean waits) {}

  /**
   * A page of those that wait for a person, the newest first.
   *
   * @param open how many there are in all
   * @param unlooked how many were not looked at yet
   * @param next where the next page starts; null on the last
   */
  record DuplicatePage(
      List<DuplicateLine> items,
      int open,
      int unlooked,
      @Schema(nullable = true) @Nullable Long next) {}

  /**
   * Both tasks as they are now.
   *
   * @param problem why one of them cannot be shown; empty if both can
   */
  record SidesView(SideView ours, SideView other, List<FieldPairView> fields, String problem) {}

  /**
   * One of both.
   *
   * @param page where a person sees it; empty if there is no such page
   */
  record SideView(String record, String page) {}

  /** A field of both, as text. */
  record FieldPairView(String name, String ours, String other, boolean same) {}

  /** What a person says. */
  record Answer(boolean same) {}

  private final DuplicateMapper mapper;
  private final DuplicateAnswers answers;
  private final Sides sides;
  private final PairMapper pairs;
  private final TraceMapper traces;
  private final Bridges bridges;
  private final Systems systems;
  private final LiveFeed feed;

  DuplicateController(
      DuplicateMapper mapper,
      DuplicateAnswers answers,
      Sides sides,
      PairMapper pairs,
      TraceMapper traces,
      Bridges bridges,
      Systems systems,
      LiveFeed feed) {
    this.mapper = mapper;
    this.answers = answers;
    this.sides = sides;
    this.pairs = pairs;
    this.traces = traces;
    this.bridges = bridges;
    this.systems = systems;
    this.feed = feed;
  }

  @GetMapping
  DuplicatePage open(@RequestParam(required = false) @Nullable Long before) {
    List<DuplicateRow> rows =
        mapper.newest(State.OPEN, before == null ? Long.MAX_VALUE : before, PAGE + 1);
    boolean more = rows.size() > PAGE;
    List<DuplicateRow> page = more ? rows.subList(0, PAGE) : rows;
    return new DuplicatePage(
        page.stream().map(this::line).toList(),
        mapper.count(State.OPEN),
        mapper.count(State.TO_LOOK),
        more ? page.getLast().id() : null);
  }

  private DuplicateLine line(DuplicateRow row) {
    TraceRow trace = traces.at(row.traceSeq());
    String place =
        systems
            .find(row.systemId(), row.collectionId())
            .map(shape -> shape.name() + ", " + shape.systemName())
            .orElse(row.systemId());
    return new DuplicateLine(
        row.id(),
        row.bridgeId(),
        bridges.nameOf(row.bridgeId()),
        place,
        row.title(),
        row.otherTitle(),
        row.score(),
        row.reasons().lines().toList(),
        row.foundAt(),
        trace == null ? "" : trace.id(),
        row.waits());
  }

  /**
   * Asks for both tasks as they are now. Of what was answered, too: the answer may come while
   * somebody still looks.
   */
  @GetMapping("/{id}/sides")
  SidesView sides(@PathVariable long id) {
    DuplicateRow row = mapper.find(id);
    if (row == null || row.otherRecord() == null) {
      throw ApiProblem.notFound("possible duplicate", String.valueOf(id));
    }
    CollectionRef at = new CollectionRef(row.systemId(), row.collectionId());
    String other = row.otherRecord();
    Sides.Read right = sides.read(at, other);
    SideView there = new SideView(other, page(at, other));
    if (row.waits()) {
      // It is not made yet: what it is to hold stands against what the other holds.
      Map<String, Value> held = KeptFields.read(Objects.requireNonNull(row.fields(), "no fields"));
      return new SidesView(
          new SideView("", ""),
          there,
          right instanceof Sides.There one
              ? fields(at, field -> text(field, held.get(field.key())), field -> text(field, one))
              : List.of(),
          problem("The other", right));
    }
    String ours =
        Optional.ofNullable(pairs.find(row.bridgeId(), row.matchHash()))
            .map(PairRow::targetRecord)
            .orElse("");
    Sides.Read left = sides.read(at, ours);
    return new SidesView(
        new SideView(ours, page(at, ours)),
        there,
        left instanceof Sides.There one && right instanceof Sides.There two
            ? fields(at, field -> text(field, one), field -> text(field, two))
            : List.of(),
        problem("The task that was made", left) + problem("The other", right));
  }

  private static String text(FieldShape field, Sides.There task) {
    return field.read(task.task().path(field.key())) instanceof Value value
        ? named(field, value)
        : StoredText.of(task.task().path(field.key()));
  }

  private static String text(FieldShape field, @Nullable Value value) {
    return value == null ? "" : named(field, value);
  }

  private static String named(FieldShape field, Value value) {
    return value instanceof ListValue list
        ? list.items().stream()
            .map(item -> field.nameOf(item.display()))
            .collect(Collectors.joining(", "))
        : field.nameOf(value.display());
  }

  private static String problem(String which, Sides.Read read) {
    return switch (read) {
      case Sides.There there -> there.closed() ? which + " is done by now. " : "";
      case Sides.Gone gone -> which + " is not there any more. ";
      case Sides.Unread unread ->
          which + " cannot be read: " + Words.sentence(unread.failure()) + ". ";
    };
  }

  private List<FieldPairView> fields(
      CollectionRef at, Function<FieldShape, String> ours, Function<FieldShape, String> other) {
    List<FieldPairView> fields = new ArrayList<>();
    for (FieldShape field :
        systems.find(at.system(), at.collection()).stream()
            .flatMap(shape -> shape.fields().stream())
            .toList()) {
      String left = ours.apply(field);
      String right = other.apply(field);
      if (!left.isEmpty() || !right.isEmpty()) {
        fields.add(new FieldPairView(field.name(), left, right, left.equals(right)));
      }
    }
    return fields;
  }

  private String page(CollectionRef at, String record) {
    return systems.page(at.system(), at.collection(), record).map(URI::toString).orElse("");
  }

  /** Says whether both are one thing. */
  @PostMapping("/{id}/answer")
  DuplicatePage answer(@PathVariable long id, @RequestBody Answer answer) {
    if (answer.same()) {
      answers.same(id, By.PERSON);
    } else {
      answers.different(id, By.PERSON);
    }
    feed.changed("", "");
    return open(null);
  }
}
