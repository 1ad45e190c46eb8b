package org.ysthmos.core.gateway;

import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.load.RateLimiter;

/** All that is spoken with one outside system. */
public interface SystemGateway extends RecordGateway, TaskGateway, ChangeGateway, AutoCloseable {

  /** Through which all calls to the system go. */
  RateLimiter limiter();

  /** How full the system is; empty if its description does not say where that is read. */
  default Optional<QuotaReading> quota(CallLog calls) {
    return Optional.empty();
  }

  /** The directories that the system's description names, by their ids. */
  default Map<String, DirectoryReading> directories(CallLog calls) {
    return Map.of();
  }

  @Override
  void close();
}
