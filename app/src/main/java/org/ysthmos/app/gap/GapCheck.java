package org.ysthmos.app.gap;

/**
 * A bridge that goes both ways, whose pairs are checked because time is missing.
 *
 * @param begun whether the check was begun
 */
public record GapCheck(String bridge, boolean begun) {}
