package org.ysthmos.app.gap;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A span of time of which nothing is known here.
 *
 * @param from when the copy was taken
 * @param until when it was put back
 * @param newestEvent the order number of the newest event of the copy; 0 if it has none
 * @param begun whether it is taken down what is to be read again
 * @param seenAt when a person said that no more is to be said of it; null until then
 */
public record Gap(
    long id,
    Instant from,
    Instant until,
    long newestEvent,
    boolean begun,
    @Nullable Instant seenAt) {}
