package org.ysthmos.core.bridge;

import java.util.Optional;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.rule.CompiledValue;

/**
 * How each row says when it comes round, made into functions.
 *
 * @param calendar the one that the rules name
 */
public record CompiledChores(
    ChoreRules rules,
    CompiledValue every,
    CompiledValue zone,
    Optional<CompiledValue> at,
    Optional<CompiledValue> start,
    Optional<CompiledValue> done,
    Optional<CompiledValue> lead,
    Optional<WorkingCalendar> calendar) {}
