package org.ysthmos.core.gateway;

import org.ysthmos.core.failure.Failure;

/** What a system says of how full it is. */
public sealed interface QuotaReading {

  /**
   * @param of what is counted, in the plural: open tasks
   * @param used how many there are
   * @param most how many there may be, at least 1
   */
  record Filled(String of, long used, long most) implements QuotaReading {

    /** From here on somebody should know before it is full. Common practice, no source. */
    private static final double NEARLY = 0.9;

    public boolean nearlyFull() {
      return used >= most * NEARLY;
    }
  }

  /** It did not say. */
  record Unread(Failure failure) implements QuotaReading {}
}
