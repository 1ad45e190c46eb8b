package org.ysthmos.core.sync;

/**
 * A field that is kept alike.
 *
 * @param name by which both sides have it here
 * @param both what happens where both sides changed it; only of account where it goes both ways
 * @param drift what happens where the side that only follows changed it
 */
public record SyncField(String name, Direction direction, BothChanged both, Drift drift, Way way) {}
