package org.ysthmos.adapters.http;

import java.util.Map;
import java.util.Optional;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.json.Pointer;

/**
 * JSON over HTTP.
 *
 * @param problem where the system's own error messages stand
 * @param limitHeaders the headers in which it says what is left of its rate limit
 * @param quota where it says how full it is
 * @param directories where it says what its people, lanes, lists or labels are called, by id
 */
public record HttpProtocol(
    ProblemShape problem,
    Optional<LimitHeaders> limitHeaders,
    Optional<Quota> quota,
    Map<String, Directory> directories)
    implements SystemDescription.Protocol {

  /**
   * Where an error answer holds its message and the field it is about.
   *
   * @param full how it says that there is no room for more
   */
  public record ProblemShape(Pointer message, Pointer field, Optional<FullMark> full) {}

  /**
   * @param at where a word stands in an error answer
   * @param word the one that says that there is no room for more
   */
  public record FullMark(Pointer at, String word) {}

  /**
   * How full it is.
   *
   * @param of what is counted, in the plural
   * @param call asks for it
   * @param used where the answer holds how many there are
   * @param most where it holds how many there may be
   */
  public record Quota(String of, HttpCollection.Call call, Pointer used, Pointer most) {}

  /**
   * Where names are read.
   *
   * @param items where the list of entries stands
   * @param id where an entry holds its key
   * @param name where it holds what people call it
   */
  public record Directory(HttpCollection.Call call, Pointer items, Pointer id, Pointer name) {}

  /**
   * Headers about the rate limit.
   *
   * @param left how many calls are left
   * @param until when there are more: in seconds from now, or since 1970 where the number is that
   *     large
   */
  public record LimitHeaders(String left, String until) {}

  @Override
  public SystemGateway open(SystemDescription system, Surroundings surroundings) {
    return new HttpSystem(system, this, surroundings);
  }
}
