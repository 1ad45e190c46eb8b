package org.ysthmos.app.trace;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.trace.TraceCauseMapper.LinkRow;

/**
 * Which traces caused which. What one trace wrote somewhere may come back as an event of another;
 * the links between them make chains.
 */
@Component
public class TraceCauses {

  /** How many links of a chain are shown at the most; what was before them is counted. */
  private static final int MOST_SHOWN = 4;

  private static final int MOST_CAUSED = 20;

  /**
   * What caused an event.
   *
   * @param trace the order number of the trace that wrote what the event tells of
   * @param depth how many traces came before, one caused by the other
   * @param again how many of those are of the bridge that the event concerns
   * @param bridges the ids of the bridges from the last time it was that one, or from the first of
   *     the chain, to the one that wrote last
   */
  public record Cause(long trace, int depth, int again, List<String> bridges) {}

  /**
   * The chain in which a trace stands.
   *
   * @param before the traces that led to it, the first first
   * @param earlier how many came before those
   * @param caused the traces that it led to directly
   */
  public record Chain(List<TraceRow> before, int earlier, List<TraceRow> caused) {}

  private final TraceCauseMapper mapper;
  private final TraceMapper traces;

  TraceCauses(TraceCauseMapper mapper, TraceMapper traces) {
    this.mapper = mapper;
    this.traces = traces;
  }

  /**
   * How a bridge's event stands in the chain of what caused it.
   *
   * @param wrote the order number of the trace that wrote what the event tells of
   */
  public Optional<Cause> cause(String bridge, long wrote) {
    LinkRow last = mapper.link(wrote);
    if (last == null) {
      return Optional.empty();
    }
    List<String> bridges = new ArrayList<>();
    int again = 0;
    LinkRow link = last;
    while (link != null) {
      bridges.addFirst(link.bridgeId());
      if (link.bridgeId().equals(bridge)) {
        again = link.again() + 1;
        break;
      }
      link = before(link);
    }
    return Optional.of(new Cause(wrote, last.depth() + 1, again, List.copyOf(bridges)));
  }

  private @Nullable LinkRow before(LinkRow link) {
    return link.causeSeq() == null ? null : mapper.link(link.causeSeq());
  }

  /** Keeps what caused a trace; inside a change. */
  public void add(long trace, Cause cause) {
    mapper.add(trace, cause.trace(), cause.depth(), cause.again());
  }

  /** The chain in which a trace stands; nothing before and after it for most. */
  Chain chain(long trace) {
    List<Long> before = new ArrayList<>();
    LinkRow self = mapper.link(trace);
    LinkRow link = self == null ? null : before(self);
    while (link != null && before.size() < MOST_SHOWN) {
      before.addFirst(link.seq());
      link = before(link);
    }
    int earlier = link == null ? 0 : link.depth() + 1;
    return new Chain(rows(before), earlier, rows(mapper.causedBy(trace, MOST_CAUSED)));
  }

  private List<TraceRow> rows(List<Long> seqs) {
    if (seqs.isEmpty()) {
      return List.of();
    }
    return traces.of(seqs).stream()
        .sorted((one, other) -> Integer.compare(seqs.indexOf(one.seq()), seqs.indexOf(other.seq())))
        .toList();
  }
}
