package org.ysthmos.app.desk.trial;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.bridge.StatusField;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.sync.FieldOutcome;
import org.ysthmos.core.sync.PlayThrough.Played;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.sync.StatusFinding;
import org.ysthmos.core.sync.StatusFinding.Lost;
import org.ysthmos.core.sync.StatusFinding.NeverReached;
import org.ysthmos.core.sync.StatusFinding.NotMapped;
import org.ysthmos.core.sync.StatusFinding.NotSeen;

/** Tables of statuses of a draft, with what is surprising about them, in the words of the desk. */
final class StatusGrids {

  /** One status, under the key that is written in the document. */
  record StatusName(String key, String name) {}

  /**
   * One side of a table of statuses.
   *
   * @param of the system
   * @param field what the system calls the field
   * @param goes whether changes of this side are looked up for the other
   * @param across for statuses of this side the key on the other, all others included
   */
  record GridSide(
      String of,
      String field,
      boolean goes,
      List<StatusName> statuses,
      Map<String, String> across) {}

  /**
   * A field whose values are looked up.
   *
   * @param field its name in the document
   * @param findings sentences that say what of it may surprise
   */
  record StatusGrid(String field, GridSide left, GridSide right, List<String> findings) {}

  /**
   * What a change came to.
   *
   * @param side on which somebody set a status
   * @param wrote the side that was written for it; null if none was
   * @param words what became of it
   */
  record PlayedStep(Side side, String left, String right, @Nullable Side wrote, String words) {}

  private static final int MOST_CHANGES = 200;

  private final CompiledTwoWay both;
  private final StatusField field;

  private StatusGrids(CompiledTwoWay both, StatusField field) {
    this.both = both;
    this.field = field;
  }

  /** All tables of a version; none where it goes one way. */
  static List<StatusGrid> of(Optional<BridgeVersion> version) {
    return all(version).map(StatusGrids::grid).toList();
  }

  /** The table of a field, by its name in the document. */
  static Optional<StatusGrids> find(Optional<BridgeVersion> version, String name) {
    return all(version).filter(one -> one.field.field().rule().name().equals(name)).findFirst();
  }

  private static Stream<StatusGrids> all(Optional<BridgeVersion> version) {
    return version.flatMap(BridgeVersion::between).stream()
        .flatMap(
            both ->
                both.fields().stream()
                    .flatMap(field -> StatusField.of(field).stream())
                    .map(table -> new StatusGrids(both, table)));
  }

  private StatusGrid grid() {
    return new StatusGrid(
        field.field().rule().name(), side(Side.LEFT), side(Side.RIGHT), findings());
  }

  private GridSide side(Side side) {
    return new GridSide(
        system(side),
        field.shape(side).name(),
        field.goes(side),
        field.statuses().of(side).stream()
            .map(status -> new StatusName(status, name(side, status)))
            .toList(),
        field.table().from(side));
  }

  private String system(Side side) {
    return both.place(side).shape().systemName();
  }

  private String name(Side side, String status) {
    return status.isEmpty() ? "nothing" : field.shape(side).nameOf(status);
  }

  private String quoted(Side side, String status) {
    return "“" + name(side, status) + "”";
  }

  private List<String> findings() {
    List<String> lost = new ArrayList<>();
    // What holds of several statuses alike is told once.
    Map<StatusFinding, SequencedSet<String>> alike = new LinkedHashMap<>();
    for (StatusFinding finding : field.findings()) {
      switch (finding) {
        case Lost one -> lost.add(lost(one));
        case NotMapped one -> add(alike, new NotMapped(one.side(), ""), one.side(), one.status());
        case NeverReached one ->
            add(alike, new NeverReached(one.side(), ""), one.side(), one.status());
        case NotSeen one ->
            add(
                alike,
                new NotSeen(one.side(), "", "", one.across()),
                one.side(),
                one.from(),
                one.to());
      }
    }
    List<String> said = new ArrayList<>();
    alike.forEach((kind, statuses) -> said.add(alike(kind, statuses)));
    said.addAll(lost);
    return said;
  }

  private void add(
      Map<StatusFinding, SequencedSet<String>> alike,
      StatusFinding kind,
      Side side,
      String... statuses) {
    SequencedSet<String> all = alike.computeIfAbsent(kind, any -> new LinkedHashSet<>());
    for (String status : statuses) {
      all.add(quoted(side, status));
    }
  }

  private String alike(StatusFinding kind, SequencedSet<String> statuses) {
    return switch (kind) {
      case NotMapped one ->
          "Nothing is stated for %s in %s: %s nothing in %s."
              .formatted(
                  listed(statuses, "and"),
                  system(one.side()),
                  statuses.size() == 1 ? "it changes" : "they change",
                  system(one.side().across()));
      case NeverReached one ->
          "No change in %s ever makes a task %s in %s."
              .formatted(system(one.side().across()), listed(statuses, "or"), system(one.side()));
      case NotSeen one ->
          "A change between %s in %s is not seen in %s, where %s are “%s”."
              .formatted(
                  listed(statuses, "and"),
                  system(one.side()),
                  system(one.side().across()),
                  statuses.size() == 2 ? "both" : "all",
                  name(one.side().across(), one.across()));
      case Lost one -> lost(one);
    };
  }

  private static String listed(SequencedSet<String> statuses, String word) {
    List<String> all = List.copyOf(statuses);
    String last = all.getLast();
    return all.size() == 1
        ? last
        : String.join(", ", all.subList(0, all.size() - 1)) + " " + word + " " + last;
  }

  private String lost(Lost one) {
    Side there = one.side().across();
    return "%s in %s is lost once %s goes from %s to %s and back: it is %s then."
        .formatted(
            quoted(one.side(), one.status()),
            system(one.side()),
            system(there),
            quoted(there, one.across()),
            one.over().stream()
                .map(over -> quoted(there, over))
                .collect(Collectors.joining(", then to ")),
            quoted(one.side(), one.becomes()));
  }

  /**
   * What both sides become as statuses are set.
   *
   * @throws ApiProblem if a status is none of its side
   */
  List<PlayedStep> play(String left, String right, List<StatusField.Setting> settings) {
    if (settings.size() > MOST_CHANGES) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY,
          "Too many changes",
          "At most %d changes are played through; begin anew.".formatted(MOST_CHANGES));
    }
    known(Side.LEFT, left);
    known(Side.RIGHT, right);
    settings.forEach(one -> known(one.side(), one.status()));
    return field.play(left, right, settings).stream().map(this::step).toList();
  }

  private void known(Side side, String status) {
    SequencedSet<String> statuses = field.statuses().of(side);
    if (!statuses.contains(status)) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY,
          "No such status",
          "%s of %s: %s"
              .formatted(
                  field.shape(side).name(),
                  system(side),
                  Nearest.unknown("status", status, statuses)));
    }
  }

  private PlayedStep step(Played played) {
    return new PlayedStep(
        played.change().side(),
        name(Side.LEFT, played.left().display()),
        name(Side.RIGHT, played.right().display()),
        played.outcome() instanceof FieldOutcome.Carried carried ? carried.to() : null,
        words(played));
  }

  private String words(Played played) {
    return switch (played.outcome()) {
      case FieldOutcome.Carried carried ->
          "%s is set to %s"
              .formatted(system(carried.to()), quoted(carried.to(), carried.value().display()));
      case FieldOutcome.Adopted adopted -> "Nothing is written: the two stand for each other";
      case FieldOutcome.Unchanged unchanged -> "Nothing is written: nothing changed";
      case FieldOutcome.NotCarried not -> "Nothing is written: " + not.because();
      case FieldOutcome.Conflict conflict -> "A person is asked: " + conflict.because();
      case FieldOutcome.Merged merged -> "Both are brought together";
      case FieldOutcome.Waiting waiting -> "It waits: " + waiting.on().because();
      case FieldOutcome.Failed failed -> "It fails: " + failed.problem().message();
    };
  }
}
