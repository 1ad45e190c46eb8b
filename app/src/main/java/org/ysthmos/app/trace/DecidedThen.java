package org.ysthmos.app.trace;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.store.PackedJson;
import org.ysthmos.app.trace.DecidedMapper.DecidedRow;
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

  /** What became of an event, by the trace that was the last to end; read when it is asked for. */
  public static final class Known {
    private final DecidedRow row;

    Known(DecidedRow row) {
      this.row = row;
    }

    public String traceId() {
      return row.traceId();
    }

    public String title() {
      return row.title() == null ? "" : row.title();
    }

    /** Why it was passed by or failed; empty otherwise. */
    public String reason() {
      return row.reason() == null ? "" : row.reason();
    }

    /** Takes its time, each time. */
    public Then then() {
      byte[] answers = row.answers();
      return new Then(
          row.verdict(),
          decided(),
          answers == null ? Map.of() : AnswersJson.read(PackedJson.unpack(answers)));
    }

    private Optional<Outcome> decided() {
      byte[] outcome = row.outcome();
      return outcome == null
          ? Optional.empty()
          : Optional.of(Outcome.read(PackedJson.unpack(outcome)));
    }
  }

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
    List<DecidedRow> rows = mapper.of(bridge, first, last);
    Map<Long, DecidedRow> latest = new HashMap<>(rows.size() * 2);
    rows.forEach(row -> latest.put(row.eventSeq(), row));
    Map<Long, Known> known = new HashMap<>(latest.size() * 2);
    latest.forEach((event, row) -> known.put(event, new Known(row)));
    return known;
  }

  /** What a bridge decided of one event; empty where that is not kept. */
  public Optional<Outcome> of(String bridge, long event) {
    return Optional.ofNullable(of(bridge, event, event).get(event)).flatMap(Known::decided);
  }
}
