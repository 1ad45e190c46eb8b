package org.ysthmos.adapters.system;

import java.time.Duration;
import java.util.List;
import org.ysthmos.core.json.Pointer;

/**
 * How a collection is asked what changed.
 *
 * @param every how often, where a bridge says nothing else
 * @param id where a record holds its id
 * @param version where a record holds the mark that tells one change of it from the next; an
 *     address where nothing stands if the system tells it otherwise
 * @param byMoment whether the mark to go on from is a moment, so that nothing from before needs to
 *     be asked for
 * @param shifting whether pages are counted, so that a record that moves can push another past the
 *     reader
 * @param kinds the kinds of event that come of it
 */
public record PollSpec(
    Duration every,
    Pointer id,
    Pointer version,
    boolean byMoment,
    boolean shifting,
    List<String> kinds) {

  public static final List<String> USUAL_KINDS = List.of("created", "changed");

  public static final Duration USUAL_INTERVAL = Duration.ofMinutes(5);

  public PollSpec {
    kinds = List.copyOf(kinds);
  }
}
