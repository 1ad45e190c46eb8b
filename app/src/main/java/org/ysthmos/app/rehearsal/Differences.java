package org.ysthmos.app.rehearsal;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.rehearsal.Past.PastEvent;
import org.ysthmos.app.rehearsal.RehearsalMapper.DifferenceRow;
import org.ysthmos.app.store.PackedJson;
import org.ysthmos.app.trace.DecidedThen;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.rehearsal.Rehearsed;
import org.ysthmos.core.rehearsal.Rehearsed.FieldDifference;
import org.ysthmos.core.value.ValueJson;

/**
 * The differences of a rehearsal that are kept: of each change of verdict and of each field the
 * first few hundred, so that what is rare is not lost among what is frequent.
 */
final class Differences {

  /** So many of each sort. */
  static final int MOST_OF_A_SORT = 500;

  private record Change(Optional<Verdict> then, Verdict now) {}

  /** One that is not kept yet. */
  private record Found(
      int number,
      long event,
      String record,
      Instant receivedAt,
      Optional<Long> trace,
      Rehearsed rehearsed) {}

  private final long rehearsal;
  private final Map<Object, Integer> kept = new HashMap<>();
  private List<Found> found = new ArrayList<>();
  private int number;

  Differences(long rehearsal) {
    this.rehearsal = rehearsal;
  }

  void add(PastEvent past, Rehearsed one) {
    if (one.differs() && isWanted(one)) {
      EventRow event = past.row();
      found.add(
          new Found(
              ++number,
              event.seq(),
              event.recordId(),
              event.receivedAt(),
              past.then().map(DecidedThen.Known::trace),
              one));
    }
  }

  /** A field as the screens ask for it. */
  static String name(FieldDifference field) {
    return name(field.member(), field.field());
  }

  static String name(String member, String field) {
    return member.isEmpty() ? field : member + "/" + field;
  }

  private boolean isWanted(Rehearsed one) {
    boolean wanted = false;
    if (!one.then().equals(Optional.of(one.now()))) {
      wanted = hasRoom(new Change(one.then(), one.now()));
    }
    for (FieldDifference field : one.fields()) {
      wanted |= hasRoom(name(field));
    }
    return wanted;
  }

  private boolean hasRoom(Object sort) {
    return kept.merge(sort, 1, Integer::sum) <= MOST_OF_A_SORT;
  }

  private static ArrayNode json(List<FieldDifference> fields) {
    ArrayNode all = JsonNodeFactory.instance.arrayNode();
    for (FieldDifference field : fields) {
      ObjectNode one = all.addObject().put("member", field.member()).put("field", field.field());
      one.set("then", ValueJson.write(field.then()));
      one.set("now", ValueJson.write(field.now()));
    }
    return all;
  }

  static List<FieldDifference> fields(DifferenceRow row) {
    List<FieldDifference> fields = new ArrayList<>();
    PackedJson.unpack(row.fields())
        .forEach(
            one ->
                fields.add(
                    new FieldDifference(
                        one.path("member").asText(),
                        one.path("field").asText(),
                        ValueJson.read(one.path("then")),
                        ValueJson.read(one.path("now")))));
    return fields;
  }

  /**
   * Those that came since this was asked last.
   *
   * @param naming how people know traces, by their order numbers
   */
  List<DifferenceRow> fresh(Function<List<Long>, Map<Long, DecidedThen.Named>> naming) {
    List<Found> fresh = found;
    found = new ArrayList<>();
    Map<Long, DecidedThen.Named> named =
        naming.apply(fresh.stream().flatMap(one -> one.trace().stream()).toList());
    return fresh.stream().map(one -> row(one, one.trace().map(named::get))).toList();
  }

  private DifferenceRow row(Found one, Optional<DecidedThen.Named> then) {
    Rehearsed rehearsed = one.rehearsed();
    return new DifferenceRow(
        rehearsal,
        one.number(),
        one.event(),
        one.record(),
        one.receivedAt(),
        then.map(DecidedThen.Named::id).orElse(null),
        then.map(DecidedThen.Named::title).orElse(""),
        rehearsed.then().orElse(null),
        rehearsed.now(),
        then.map(DecidedThen.Named::reason).orElse(""),
        Words.limited(Words.capital(rehearsed.because()), 2000),
        rehearsed.fields().stream()
            .map(field -> "|" + name(field) + "|")
            .distinct()
            .collect(Collectors.joining()),
        PackedJson.pack(json(rehearsed.fields())));
  }
}
