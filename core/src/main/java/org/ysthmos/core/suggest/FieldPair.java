package org.ysthmos.core.suggest;

import org.ysthmos.core.rule.FieldRule;

/**
 * A target field and a rule that would likely fill it.
 *
 * @param rule can be compiled as it is
 * @param score from 0 to 1; only for putting several in order
 * @param because what speaks for it, in words
 */
public record FieldPair(FieldRule rule, double score, String because) {}
