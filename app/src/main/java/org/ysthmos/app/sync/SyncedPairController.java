package org.ysthmos.app.sync;

import java.net.URI;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.sync.SyncedMapper.SyncedRow;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.Look;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;

/** Pairs of tasks that are kept alike: finding them, looking at them again, parting them. */
@RestController
@RequestMapping(path = "/api/kept-pairs", produces = MediaType.APPLICATION_JSON_VALUE)
class SyncedPairController {

  /**
   * A task of a pair.
   *
   * @param place for example {@code Works, Grounds Board}
   * @param system what people call its system
   * @param record its id; empty while it was never made
   * @param page where a person sees it; empty if there is no such page
   */
  record KeptTask(String place, String system, String record, String page) {}

  /** A field as each side held it when they last agreed, as text. */
  record AgreedOn(String name, String left, String right) {}

  /**
   * Two tasks that are kept alike.
   *
   * @param key by which the pair is named in calls
   * @param parted why they are a pair no more; empty if they are
   */
  record KeptPair(
      String bridge,
      String bridgeName,
      String key,
      String title,
      KeptTask left,
      KeptTask right,
      List<AgreedOn> fields,
      Instant madeAt,
      Instant changedAt,
      String parted) {}

  /** The side that the other is to follow once. */
  record FollowWish(Side leads) {}

  /** The trace that looks at a pair. */
  record Looking(String trace) {}

  private final SyncedMapper mapper;
  private final SyncedLooks looks;
  private final Bridges bridges;
  private final Systems systems;
  private final Journal journal;
  private final TraceQueue queue;
  private final AppClock clock;
  private final LiveFeed feed;

  SyncedPairController(
      SyncedMapper mapper,
      SyncedLooks looks,
      Bridges bridges,
      Systems systems,
      Journal journal,
      TraceQueue queue,
      AppClock clock,
      LiveFeed feed) {
    this.mapper = mapper;
    this.looks = looks;
    this.bridges = bridges;
    this.systems = systems;
    this.journal = journal;
    this.queue = queue;
    this.clock = clock;
    this.feed = feed;
  }

  /**
   * The pairs of a task.
   *
   * @param id as it stands in its system, whole
   */
  @GetMapping
  List<KeptPair> find(@RequestParam String id) {
    List<KeptPair> found = new ArrayList<>();
    for (Bridges.Live live : bridges.live()) {
      String bridge = live.version().definition().id();
      live.version()
          .between()
          .ifPresent(
              both ->
                  Stream.of(mapper.ofLeft(bridge, id.strip()), mapper.ofRight(bridge, id.strip()))
                      .flatMap(Stream::ofNullable)
                      .forEach(row -> found.add(view(row, both, live))));
    }
    return found.stream().distinct().toList();
  }

  private KeptPair view(SyncedRow row, CompiledTwoWay both, Bridges.Live live) {
    Agreed agreed =
        new Agreed(KeptFields.read(row.agreedLeft()), KeptFields.read(row.agreedRight()));
    Both<KeptTask> tasks =
        new Both<>(
            task(both, Side.LEFT, row.leftRecord()), task(both, Side.RIGHT, row.rightRecord()));
    return new KeptPair(
        row.bridgeId(),
        live.version().definition().name(),
        row.pairHash(),
        row.title(),
        tasks.left(),
        tasks.right(),
        both.fields().stream()
            .map(
                field ->
                    new AgreedOn(
                        field.at().left().shape().name(),
                        shown(field, agreed, Side.LEFT),
                        shown(field, agreed, Side.RIGHT)))
            .toList(),
        row.madeAt(),
        row.changedAt(),
        Optional.ofNullable(row.partedBecause()).orElse(""));
  }

  private static String shown(CompiledTwoWay.Field field, Agreed agreed, Side side) {
    return field.at().of(side).shape().shown(agreed.of(side, field.rule().name()));
  }

  private KeptTask task(CompiledTwoWay both, Side side, @Nullable String record) {
    CompiledTwoWay.CompiledPlace place = both.place(side);
    String id = record == null ? "" : record;
    return new KeptTask(
        place.shape().name() + ", " + place.shape().systemName(),
        place.shape().systemName(),
        id,
        systems
            .page(place.rule().system(), place.rule().collection(), id)
            .map(URI::toString)
            .orElse(""));
  }

  /** Parts a pair: what is done to one of both stays there. */
  @PostMapping("/{bridge}/{key}/part")
  void part(@PathVariable String bridge, @PathVariable String key) {
    SyncedRow row = known(bridge, key);
    boolean parted =
        journal.now(
            () -> {
              mapper.settledAll(bridge, key);
              String because = "a " + By.PERSON.name() + " said so";
              return mapper.part(bridge, key, because, clock.instant()) == 1;
            });
    if (!parted) {
      throw new ApiProblem(HttpStatus.CONFLICT, "Not done", "The two are parted already.");
    }
    feed.changed(bridge, row.pairText());
  }

  /** Lets a task go across after all that was left as it is. */
  @PostMapping("/{bridge}/{key}/take-up")
  Looking takeUp(@PathVariable String bridge, @PathVariable String key) {
    SyncedRow row = known(bridge, key);
    Side side = row.leftRecord() == null ? Side.RIGHT : Side.LEFT;
    String trace =
        journal.now(
            () -> {
              if (mapper.takeUp(bridge, key) == 0) {
                throw new ApiProblem(
                    HttpStatus.CONFLICT, "Not done", "It is not left as it is, or not any more.");
              }
              return looks
                  .look(
                      bridge,
                      side,
                      Objects.requireNonNull(row.record(side)),
                      Look.PLAIN,
                      By.PERSON.name(),
                      "A %s lets it go across after all".formatted(By.PERSON.name()))
                  .orElseThrow(
                      () -> ApiProblem.notFound("live bridge that goes both ways", bridge));
            });
    return begun(bridge, trace);
  }

  /** Looks at both tasks now, though nothing was told of either. */
  @PostMapping("/{bridge}/{key}/look")
  Looking look(@PathVariable String bridge, @PathVariable String key) {
    return look(known(bridge, key), Look.PLAIN, "A " + By.PERSON.name() + " asked to look at both");
  }

  /**
   * Lets one task follow the other once: where they do not stand for each other it is written over,
   * whoever changed what.
   */
  @PostMapping("/{bridge}/{key}/follow")
  Looking follow(
      @PathVariable String bridge, @PathVariable String key, @RequestBody FollowWish wish) {
    SyncedRow row = known(bridge, key);
    if (row.leftRecord() == null || row.rightRecord() == null) {
      throw new ApiProblem(
          HttpStatus.CONFLICT, "Not done", "One of the two tasks is not made yet.");
    }
    return look(
        row,
        Look.leading(wish.leads()),
        "A %s lets the task on the %s follow the other once"
            .formatted(By.PERSON.name(), Synced.word(wish.leads().across())));
  }

  /** Two tasks that are the same, by their ids. */
  record MeetWish(String left, String right) {}

  /**
   * Makes two tasks that are there a pair: what stands for each other is agreed on, what only one
   * has goes to the other, and of the rest it is as where both changed a field.
   */
  @PostMapping("/{bridge}/meet")
  Looking meet(@PathVariable String bridge, @RequestBody MeetWish wish) {
    if (wish.left().isBlank() || wish.right().isBlank()) {
      throw new ApiProblem(HttpStatus.BAD_REQUEST, "Which two", "Give the ids of both tasks.");
    }
    String right = wish.right().strip();
    String trace =
        journal
            .now(
                () ->
                    looks.look(
                        bridge,
                        Side.LEFT,
                        wish.left().strip(),
                        Look.meeting(right),
                        By.PERSON.name(),
                        "A %s says that it and “%s” are the same"
                            .formatted(By.PERSON.name(), right)))
            .orElseThrow(() -> ApiProblem.notFound("live bridge that goes both ways", bridge));
    return begun(bridge, trace);
  }

  private Looking begun(String bridge, String trace) {
    queue.raise();
    feed.changed(bridge, trace);
    return new Looking(trace);
  }

  private Looking look(SyncedRow row, Look look, String words) {
    if (row.partedBecause() != null) {
      throw new ApiProblem(HttpStatus.CONFLICT, "Not done", "The two are a pair no more.");
    }
    String trace =
        journal
            .now(() -> looks.look(row.bridgeId(), row.pairHash(), look, By.PERSON.name(), words))
            .orElseThrow(
                () ->
                    new ApiProblem(
                        HttpStatus.CONFLICT, "Not done", "Its bridge is not live any more."));
    return begun(row.bridgeId(), trace);
  }

  private SyncedRow known(String bridge, String key) {
    return Optional.ofNullable(mapper.pair(bridge, key))
        .orElseThrow(() -> ApiProblem.notFound("pair", key));
  }
}
