package org.ysthmos.app.copies;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.bridge.Loops;
import org.ysthmos.app.bridge.RuleDifferences;
import org.ysthmos.app.bridge.RuleDifferences.RuleDifference;
import org.ysthmos.app.copies.CopyMapper.CopyRow;
import org.ysthmos.app.desk.draft.DraftJson;
import org.ysthmos.app.desk.draft.Drafts;
import org.ysthmos.app.desk.sample.SampleWorld;
import org.ysthmos.app.example.Examples;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.rehearsal.LatelyRehearsed;
import org.ysthmos.app.rehearsal.LatelyRehearsed.Lately;
import org.ysthmos.app.store.DiskForce;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.copy.Following;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.text.Digest;

/** Copies of bridges, how each stands to its original, and letting them follow. */
@Component
class Copies {

  /**
   * A copy that is at work, against its original as it is now.
   *
   * @param seen tells what was looked at: followed is just that, or nothing
   * @param after the copy once it followed; empty if that would be no bridge
   * @param differences what becomes another in the copy, in sentences
   * @param ifTaken what would become another beyond that, if the original's were taken of all parts
   *     that both changed
   * @param hindrance why it cannot follow just now; empty if it can
   */
  record Standing(
      CopyRow row,
      Bridges.Live live,
      String seen,
      Following following,
      Optional<BridgeVersion> after,
      List<RuleDifference> differences,
      List<RuleDifference> ifTaken,
      String hindrance) {}

  private final CopyMapper mapper;
  private final Bridges bridges;
  private final Loops loops;
  private final Drafts drafts;
  private final Examples examples;
  private final SampleWorld world;
  private final Catalog catalog;
  private final Tables tables;
  private final LatelyRehearsed lately;
  private final TransactionTemplate transaction;
  private final DiskForce disk;
  private final AppClock clock;

  Copies(
      CopyMapper mapper,
      Bridges bridges,
      Loops loops,
      Drafts drafts,
      Examples examples,
      SampleWorld world,
      Catalog catalog,
      Tables tables,
      LatelyRehearsed lately,
      TransactionTemplate transaction,
      DiskForce disk,
      AppClock clock) {
    this.mapper = mapper;
    this.bridges = bridges;
    this.loops = loops;
    this.drafts = drafts;
    this.examples = examples;
    this.world = world;
    this.catalog = catalog;
    this.tables = tables;
    this.lately = lately;
    this.transaction = transaction;
    this.disk = disk;
    this.clock = clock;
  }

  /**
   * Takes down that a bridge is a copy of another as that is now; in place of what was known of it.
   *
   * @throws ApiProblem if there is no such other
   */
  void isCopy(String bridge, String original, By by) {
    if (bridge.equals(original)) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY, "No copy", "A bridge is no copy of itself.");
    }
    // One that never went live is offered nothing before it does.
    String base =
        bridges
            .live(original)
            .map(live -> json(live.document()))
            .orElseGet(() -> drafts.find(original).document());
    mapper.keep(new CopyRow(bridge, original, base, clock.instant(), by.name()));
    disk.force();
  }

  /** It stands for itself from now on. */
  boolean standsAlone(String bridge) {
    return mapper.forget(bridge) == 1;
  }

  /** Which bridge a bridge is a copy of; empty if it is none. */
  Optional<String> originalOf(String bridge) {
    return Optional.ofNullable(mapper.find(bridge)).map(CopyRow::originalId);
  }

  /** The copies of a bridge that are at work, by name. */
  List<Standing> of(String original) {
    return bridges
        .live(original)
        .map(
            now ->
                mapper.of(original).stream()
                    .flatMap(
                        row ->
                            bridges.live(row.bridgeId()).stream()
                                .map(copy -> standing(row, now, copy, Set.of())))
                    .sorted(Comparator.comparing(one -> one.live().version().definition().name()))
                    .toList())
        .orElse(List.of());
  }

  private Standing standing(
      CopyRow row, Bridges.Live original, Bridges.Live copy, Set<String> taken) {
    JsonNode base = DraftJson.parse(row.base());
    JsonNode now = DraftJson.parse(json(original.document()));
    JsonNode own = DraftJson.parse(json(copy.document()));
    Following following = Following.of(base, now, own, taken);
    String seen = Digest.sha256(base + "\0" + now + "\0" + own).substring(0, 16);
    try {
      BridgeVersion after = BridgeCompiler.compile(following.merged().toString(), 1, catalog);
      return new Standing(
          row,
          copy,
          seen,
          following,
          Optional.of(after),
          RuleDifferences.between(copy.version(), after),
          ifTaken(after, Following.of(base, now, own, both(following)).merged()),
          hindrance(row.bridgeId(), after));
    } catch (DocumentException e) {
      String why = "With its own parts it would be no bridge: " + e.getMessage();
      return new Standing(row, copy, seen, following, Optional.empty(), List.of(), List.of(), why);
    }
  }

  private static Set<String> both(Following following) {
    return following.parts().stream()
        .filter(part -> part.kind() == Following.Kind.BOTH)
        .map(Following.Part::path)
        .collect(Collectors.toSet());
  }

  private List<RuleDifference> ifTaken(BridgeVersion after, JsonNode allTaken) {
    return RuleDifferences.between(after, BridgeCompiler.compile(allTaken.toString(), 1, catalog));
  }

  private String hindrance(String id, BridgeVersion after) {
    if (drafts.kept(id).isPresent()) {
      return "Somebody works on a draft of it. Put that to work, or give it up first";
    }
    List<String> broken = new ArrayList<>();
    for (Examples.Checked checked : examples.check(id, after, world)) {
      if (!checked.holds()) {
        broken.add(checked.example().name());
      }
    }
    return broken.isEmpty()
        ? ""
        : "Pinned examples would not hold: %s. Follow on its desk"
            .formatted(String.join(", ", broken));
  }

  /** A document as JSON, in the one way in which bridges are written. */
  private static String json(String document) {
    return DraftJson.of(BridgeWriter.write(BridgeReader.read(DocumentNode.parse(document))));
  }

  /** What the last events of a copy would have come to, had it followed. */
  Optional<Lately> results(Standing standing) {
    return standing
        .after()
        .filter(after -> after.between().isEmpty())
        .map(
            after ->
                lately.of(
                    after, new LatelyRehearsed.Reference(tables.all(), tables.calendars()), true));
  }

  /**
   * How one copy stands.
   *
   * @param taken parts that both changed, of which the original's is wanted
   * @throws ApiProblem if it is none of this bridge, or one of both is not at work
   */
  Standing get(String original, String copy, Set<String> taken) {
    CopyRow row = mapper.find(copy);
    Optional<Bridges.Live> from = bridges.live(original);
    Optional<Bridges.Live> to = bridges.live(copy);
    if (row == null || !row.originalId().equals(original) || from.isEmpty() || to.isEmpty()) {
      throw ApiProblem.notFound("copy of " + original, copy);
    }
    return standing(row, from.get(), to.get(), taken);
  }

  /**
   * Lets a copy follow its original, while nobody else puts a bridge to work.
   *
   * @param seen what the person looked at
   * @param taken parts that both changed, of which the original's is wanted
   * @throws ApiProblem if it is otherwise by now, or it cannot follow
   */
  void follow(String original, String copy, String seen, Set<String> taken, By by) {
    try {
      loops.together(
          () ->
              transaction.executeWithoutResult(
                  status -> followInChange(get(original, copy, taken), seen, by)));
    } catch (RuntimeException e) {
      // What is in memory follows what is kept.
      bridges.refresh();
      throw e;
    }
    disk.force();
  }

  private void followInChange(Standing now, String seen, By by) {
    if (!now.seen().equals(seen)) {
      throw refused("Changed meanwhile", "It or its original changed since you looked. Look again");
    }
    if (!now.hindrance().isEmpty()) {
      throw refused("It does not follow", now.hindrance());
    }
    CopyRow row = now.row();
    String original = bridges.live(row.originalId()).orElseThrow().document();
    mapper.keep(
        new CopyRow(row.bridgeId(), row.originalId(), json(original), clock.instant(), by.name()));
    BridgeVersion unused =
        loops.putToWork(BridgeWriter.write(now.after().orElseThrow().definition()), false, by);
  }

  private static ApiProblem refused(String title, String detail) {
    return new ApiProblem(HttpStatus.CONFLICT, title, detail + ".");
  }
}
