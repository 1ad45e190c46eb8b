package org.ysthmos.app;

import java.nio.file.Path;
import java.time.Duration;
import java.time.ZoneId;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.ysthmos.adapters.system.Outgoing;
import org.ysthmos.core.failure.BackOff;

/**
 * What can be set from outside.
 *
 * @param data the folder that holds everything the application keeps
 * @param setup a folder with documents to load when they are not known yet; none if absent
 * @param connections a file with addresses and secrets of systems; none if absent
 * @param zone in which times are shown to people
 * @param hosts the host names under which the application may be called
 * @param settableClock whether the time can be set
 * @param clockBehind how far behind the machine's time the clock begins, where it can be set
 */
@ConfigurationProperties("ysthmos")
public record Settings(
    int port,
    Path data,
    @Nullable Path setup,
    @Nullable Path connections,
    ZoneId zone,
    List<String> hosts,
    boolean settableClock,
    Duration clockBehind,
    Intake intake,
    Retry retry,
    Calls outgoing) {

  /**
   * Taking in events.
   *
   * @param largestBody in bytes
   */
  public record Intake(int largestBody) {}

  /**
   * Which hosts may be called; see {@link Outgoing}.
   *
   * @param only the hosts; empty for all
   */
  public record Calls(List<String> only, boolean toPrivate) {
    public Outgoing policy() {
      return new Outgoing(only, toPrivate);
    }
  }

  /** The folder below which files are dropped, a folder for each system. */
  public Path drops() {
    return data.resolve("drops");
  }

  /** How failed calls are tried again. */
  public record Retry(Duration first, Duration longest, int tries) {
    public BackOff backOff() {
      return new BackOff(first, longest, tries);
    }
  }
}
