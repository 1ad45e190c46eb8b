package org.ysthmos.app;

import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.time.ZoneId;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.util.unit.DataSize;
import org.ysthmos.adapters.system.Outgoing;
import org.ysthmos.core.delivery.DeliveryRules;
import org.ysthmos.core.failure.BackOff;

/**
 * What can be set from outside.
 *
 * @param data the folder that holds everything the application keeps
 * @param setup a folder with documents to load when they are not known yet; none if absent
 * @param connections a file with addresses and secrets of systems; none if absent
 * @param zone in which times are shown to people
 * @param hosts the host names under which the application may be called
 * @param address where people reach it, for links in messages
 * @param settableClock whether the time can be set
 * @param restored whether the data was restored from a copy of one that went on
 * @param reserve what stays free on the disk; below it nothing new is begun
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
    URI address,
    boolean settableClock,
    Duration clockBehind,
    Intake intake,
    Work work,
    Retry retry,
    boolean restored,
    DataSize reserve,
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

  /**
   * How work is shared out.
   *
   * @param lease how long a claim lasts that nobody renews
   * @param drain how long a stop waits for what is under way
   * @param perSystem how many deliveries to one system are sent at a time
   * @param perBridge how many events of one bridge are decided at a time
   */
  public record Work(Duration lease, Duration drain, int perSystem, int perBridge) {}

  /**
   * How failed calls are tried again.
   *
   * @param looks when it is looked for what a try may have made whose answer was lost, counted from
   *     then
   * @param breaker how many failures in a row close a system off
   * @param breaks how often a piece may break through a fault of ours before it is given up
   */
  public record Retry(
      Duration first, Duration longest, int tries, List<Duration> looks, int breaker, int breaks) {
    public BackOff backOff() {
      return new BackOff(first, longest, tries);
    }

    /** How long a piece waits that broke through a fault of ours, longer each time. */
    public Duration afterABreak(int times) {
      Duration wait = first.multipliedBy(5L << Math.min(times - 1, 10));
      return wait.compareTo(longest) > 0 ? longest : wait;
    }

    public DeliveryRules rules() {
      return new DeliveryRules(looks);
    }
  }
}
