package org.ysthmos.core.recall;

import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.gateway.CollectionRef;

/**
 * An effect that was made.
 *
 * @param delivery the order number of its delivery: a later effect has a greater one
 * @param trace the order number of the trace that it is of
 * @param pair what tells its pair from all others
 * @param record the id of the record that it made or changed
 */
public record MadeEffect(
    long delivery, long trace, String pair, CollectionRef at, String record, EffectKind kind) {}
