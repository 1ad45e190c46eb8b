package org.ysthmos.core.load;

import java.time.Instant;

/**
 * An event that came, and how many calls it costs in one system.
 *
 * @param calls 0 for an event that asks nothing of that system
 */
public record Arrival(Instant at, int calls) {}
