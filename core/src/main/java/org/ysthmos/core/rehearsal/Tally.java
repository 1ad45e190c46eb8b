package org.ysthmos.core.rehearsal;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.decide.Verdict;

/** What a rehearsal comes to, counted. */
public final class Tally {

  /**
   * How many events came to a verdict then and to one now.
   *
   * @param then empty if the bridge did not hear them
   */
  public record Cell(Optional<Verdict> then, Verdict now, long events) {}

  /**
   * In how many events a field is otherwise.
   *
   * @param member which of several tasks; empty where there is one
   */
  public record OfField(String member, String field, long events) {}

  private record Field(String member, String name) {}

  private final Map<Verdict, long[]> unheard = new EnumMap<>(Verdict.class);
  private final Map<Verdict, Map<Verdict, long[]>> heard = new EnumMap<>(Verdict.class);
  private final Map<Field, long[]> fields = new LinkedHashMap<>();
  private long events;
  private long differing;

  public void add(Rehearsed one) {
    events++;
    differing += one.differs() ? 1 : 0;
    Map<Verdict, long[]> row =
        one.then()
            .map(then -> heard.computeIfAbsent(then, any -> new EnumMap<>(Verdict.class)))
            .orElse(unheard);
    row.computeIfAbsent(one.now(), any -> new long[1])[0]++;
    for (Rehearsed.FieldDifference field : one.fields()) {
      fields.computeIfAbsent(new Field(field.member(), field.field()), any -> new long[1])[0]++;
    }
  }

  public long events() {
    return events;
  }

  /** How many of them are otherwise than they were. */
  public long differing() {
    return differing;
  }

  /** In the order of the verdicts, those that were not heard last. */
  public List<Cell> cells() {
    List<Cell> cells = new ArrayList<>();
    heard.forEach((then, row) -> cells(Optional.of(then), row, cells));
    cells(Optional.empty(), unheard, cells);
    return cells;
  }

  private static void cells(Optional<Verdict> then, Map<Verdict, long[]> row, List<Cell> cells) {
    row.forEach((now, count) -> cells.add(new Cell(then, now, count[0])));
  }

  /** The fields that differ most often first. */
  public List<OfField> fields() {
    return fields.entrySet().stream()
        .map(one -> new OfField(one.getKey().member(), one.getKey().name(), one.getValue()[0]))
        .sorted(Comparator.comparingLong(OfField::events).reversed())
        .toList();
  }
}
