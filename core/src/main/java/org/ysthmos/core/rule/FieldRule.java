package org.ysthmos.core.rule;

/**
 * How one target field gets its value.
 *
 * @param field the key of the target field
 */
public record FieldRule(String field, ValueRule value) {}
