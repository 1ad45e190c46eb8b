package org.ysthmos.app.pair;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.stereotype.Component;
import org.ysthmos.app.store.KeptFields;

/** What was written to records, for whichever pairs, and what tells of it. */
@Component
public class Writings {

  /**
   * What was written to a record, by whichever bridges.
   *
   * @param stored the fields as the system said it keeps them when they were last written, as text
   * @param marks of the last states that it was brought to
   */
  public record Written(Map<String, String> stored, Set<String> marks) {

    /** Whether the record as it is now holds something other than when it was last written. */
    public boolean differsFrom(JsonNode record) {
      return Pairs.differs(stored, record);
    }
  }

  private final PairMapper mapper;

  Writings(PairMapper mapper) {
    this.mapper = mapper;
  }

  /**
   * Whether one of these marks tells a state of a task that it was brought to from here.
   *
   * @param collections those in which the task may stand
   */
  public boolean isOwnWrite(
      String system, Set<String> collections, String record, List<String> marks) {
    return mapper.marks(system, record).stream()
        .filter(row -> collections.contains(row.targetCollection()))
        .flatMap(row -> row.marks().lines())
        .anyMatch(marks::contains);
  }

  /**
   * A trace that wrote to a record.
   *
   * @param marks of the states that it was brought to
   */
  public record Writer(long trace, Set<String> marks) {}

  /**
   * The traces that wrote to a record last, one for each pair of it, the newest first.
   *
   * @param collections those in which the record may stand
   */
  public List<Writer> writers(String system, Set<String> collections, String record) {
    return mapper.marks(system, record).stream()
        .filter(row -> row.traceSeq() != null && collections.contains(row.targetCollection()))
        .map(row -> new Writer(row.traceSeq(), Set.copyOf(row.marks().lines().toList())))
        .sorted(Comparator.comparingLong(Writer::trace).reversed())
        .toList();
  }

  /** The fields of a record that others write too than one pair of one bridge. */
  public Set<String> alsoWrittenBy(
      String system, String collection, String record, String bridge, String hash) {
    Set<String> fields = new HashSet<>();
    for (PairMapper.WrittenRow row : mapper.written(system, record)) {
      boolean same = row.bridgeId().equals(bridge) && row.matchHash().equals(hash);
      if (!same && row.targetCollection().equals(collection)) {
        fields.addAll(KeptFields.read(row.agreed()).keySet());
      }
    }
    return fields;
  }

  /** What was written to a record of a collection; of a field what was written last. */
  public Written written(String system, String collection, String record) {
    Map<String, String> stored = new TreeMap<>();
    Set<String> marks = new HashSet<>();
    for (PairMapper.WrittenRow row : mapper.written(system, record)) {
      if (row.targetCollection().equals(collection)) {
        stored.putAll(KeptFields.readTexts(row.stored()));
        row.marks().lines().forEach(marks::add);
      }
    }
    return new Written(stored, marks);
  }
}
