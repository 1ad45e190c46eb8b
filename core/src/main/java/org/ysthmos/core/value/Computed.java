package org.ysthmos.core.value;

/**
 * What a source or a step gives: a value, a value with a remark, or a problem. A step never throws
 * for what it finds in an event.
 */
public sealed interface Computed permits Value, Warned, Problem {}
