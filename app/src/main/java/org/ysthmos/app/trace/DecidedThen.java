package org.ysthmos.app.trace;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.store.Chunks;
import org.ysthmos.app.store.OrderNumbers;
import org.ysthmos.app.store.PackedJson;
import org.ysthmos.app.trace.DecidedMapper.DecidedRow;
import org.ysthmos.app.trace.DecidedMapper.EndedRow;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.World.PairState;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.rehearsal.AnswersJson;
import org.ysthmos.core.rehearsal.Outcome;
import org.ysthmos.core.rehearsal.Then;

/** Keeps what was decided, so that it can be compared with what other rules would make of it. */
@Component
public class DecidedThen {

  /** Ready for keeping. */
  public record Packed(byte[] outcome, byte @Nullable [] answers) {}

  /** What became of an event, by the trace that was the last to end. */
  public record Known(long trace, Then then) {}

  /**
   * How people know a trace.
   *
   * @param reason why it was passed by or failed; empty otherwise
   */
  public record Named(String id, String title, String reason) {}

  private final DecidedMapper mapper;

  DecidedThen(DecidedMapper mapper) {
    this.mapper = mapper;
  }

  /** Needs no database and takes its time. */
  public static Packed pack(Decision decision, Function<MatchKey, Optional<PairState>> pairs) {
    return new Packed(
        PackedJson.pack(Outcome.of(decision, pairs).write()),
        decision.answers().isEmpty()
            ? null
            : PackedJson.pack(AnswersJson.write(decision.answers())));
  }

  /** Inside a change. */
  public void add(long trace, Packed packed) {
    mapper.add(trace, packed.outcome(), packed.answers());
  }

  /**
   * What a bridge made of a span of events, by their order numbers. Of an event that was sent again
   * the last trace that ended counts; what is under way is not known.
   */
  public Map<Long, Known> of(String bridge, long first, long last) {
    Map<Long, EndedRow> latest = new HashMap<>();
    mapper.ended(bridge, first, last).forEach(row -> latest.put(row.eventSeq(), row));
    Map<Long, DecidedRow> decided = decided(latest.values());
    Map<Long, Known> known = HashMap.newHashMap(latest.size());
    latest.forEach((event, row) -> known.put(event, known(row, decided.get(row.traceSeq()))));
    return known;
  }

  /** By their traces; not there where it is not kept. */
  private Map<Long, DecidedRow> decided(Collection<EndedRow> ended) {
    SortedSet<Long> traces = new TreeSet<>();
    ended.forEach(row -> traces.add(row.traceSeq()));
    if (traces.isEmpty()) {
      return Map.of();
    }
    Map<Long, DecidedRow> decided = HashMap.newHashMap(traces.size());
    (OrderNumbers.areClose(traces)
            ? mapper.ofSpan(traces.first(), traces.last())
            : mapper.of(traces))
        .forEach(row -> decided.put(row.traceSeq(), row));
    return decided;
  }

  private static Known known(EndedRow ended, @Nullable DecidedRow decided) {
    if (decided == null) {
      return new Known(ended.traceSeq(), new Then(ended.verdict(), Optional.empty(), Map.of()));
    }
    byte[] answers = decided.answers();
    return new Known(
        ended.traceSeq(),
        new Then(
            ended.verdict(),
            Optional.of(outcome(decided)),
            answers == null ? Map.of() : AnswersJson.read(PackedJson.unpack(answers))));
  }

  private static Outcome outcome(DecidedRow row) {
    return Outcome.read(PackedJson.plain(row.outcome()));
  }

  /** Traces by their order numbers; one that is not kept any more is not among them. */
  public Map<Long, Named> named(List<Long> traces) {
    Map<Long, Named> named = HashMap.newHashMap(traces.size());
    Chunks.each(
        traces,
        some ->
            mapper
                .named(some)
                .forEach(
                    row -> named.put(row.seq(), new Named(row.id(), row.title(), row.reason()))));
    return named;
  }

  /** What a bridge decided of one event; empty where that is not kept. */
  public Optional<Outcome> of(String bridge, long event) {
    List<EndedRow> ended = mapper.ended(bridge, event, event);
    return ended.isEmpty()
        ? Optional.empty()
        : mapper.of(List.of(ended.getLast().traceSeq())).stream()
            .findAny()
            .map(DecidedThen::outcome);
  }
}
