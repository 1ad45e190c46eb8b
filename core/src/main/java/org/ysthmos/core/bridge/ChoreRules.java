package org.ysthmos.core.bridge;

import java.time.Duration;
import java.util.Optional;
import org.ysthmos.core.recurrence.CatchUp;
import org.ysthmos.core.recurrence.OffDays;
import org.ysthmos.core.rule.ValueRule;

/**
 * How each row of a collection says when it comes round.
 *
 * @param every gives how often, in words or as a rule of RFC 5545
 * @param zone gives the zone in which its times are
 * @param at gives the time of day, where the words say none; midnight if it is empty
 * @param start gives the day from which it counts
 * @param done gives the day, or the moment, when it was done last
 * @param lead gives how long before it is due its task is made
 * @param offDays what becomes of times on days that are no working days
 * @param calendar the id of the calendar that says which days those are
 * @param spread over which span those are made that would be made at one moment
 * @param catchUp which of the times that were missed are made up for
 */
public record ChoreRules(
    ValueRule every,
    ValueRule zone,
    Optional<ValueRule> at,
    Optional<ValueRule> start,
    Optional<ValueRule> done,
    Optional<ValueRule> lead,
    OffDays offDays,
    Optional<String> calendar,
    Duration spread,
    CatchUp catchUp) {}
