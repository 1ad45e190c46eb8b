package org.ysthmos.adapters.http;

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
 */
public record HttpProtocol(ProblemShape problem, Optional<LimitHeaders> limitHeaders)
    implements SystemDescription.Protocol {

  /** Where an error answer holds its message and the field it is about. */
  public record ProblemShape(Pointer message, Pointer field) {}

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
