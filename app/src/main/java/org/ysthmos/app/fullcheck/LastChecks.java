package org.ysthmos.app.fullcheck;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.fullcheck.FullCheckMapper.CheckRow;

/** What the last full check of each bridge came to, where that is for a person to see. */
@Component
public class LastChecks {

  /**
   * A check that found what is not put right yet, or broke off.
   *
   * @param open how many differences are not put right
   * @param problem why it broke off; empty if it did not
   */
  public record CheckLine(String bridge, String name, Instant begunAt, int open, String problem) {}

  private final FullCheckMapper mapper;
  private final CheckItemMapper items;
  private final Bridges bridges;

  LastChecks(FullCheckMapper mapper, CheckItemMapper items, Bridges bridges) {
    this.mapper = mapper;
    this.items = items;
    this.bridges = bridges;
  }

  /** Those of the live bridges, in their order. */
  public List<CheckLine> lines() {
    return bridges.live().stream()
        .filter(live -> live.version().between().isPresent())
        .flatMap(live -> line(live).stream())
        .toList();
  }

  private Optional<CheckLine> line(Bridges.Live live) {
    String bridge = live.version().definition().id();
    return mapper.ofBridge(bridge, 1).stream()
        .flatMap(check -> line(check, live.version().definition().name()))
        .findFirst();
  }

  private Stream<CheckLine> line(CheckRow check, String name) {
    String problem = check.state() == CheckState.FAILED ? String.valueOf(check.problem()) : "";
    int open = check.state() == CheckState.ENDED ? items.open(check.id()) : 0;
    return open == 0 && problem.isEmpty()
        ? Stream.empty()
        : Stream.of(new CheckLine(check.bridgeId(), name, check.begunAt(), open, problem));
  }
}
