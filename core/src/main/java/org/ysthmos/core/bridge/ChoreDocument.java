package org.ysthmos.core.bridge;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.recurrence.CatchUp;
import org.ysthmos.core.recurrence.OffDays;
import org.ysthmos.core.rule.RuleDocument;
import org.ysthmos.core.rule.Source;
import org.ysthmos.core.rule.ValueRule;

/**
 * Reads and writes how the rows of a collection come round: {@code chores: { every: /cells/every,
 * zone: Europe/Lisbon, at: 06:00, lead: 3 working days, calendar: garden }}. A text is what is
 * meant itself, unless it is the address of a field; a group is a rule.
 */
final class ChoreDocument {

  static final String EVERY = "every";
  static final String ZONE = "zone";
  static final String AT = "at";
  static final String START = "start";
  static final String DONE = "done";
  static final String LEAD = "lead";
  static final String CALENDAR = "calendar";

  private static final String OFF_DAYS = "off-days";
  private static final String SPREAD = "spread";

  /** What is spread farther comes on another day. */
  private static final Duration WIDEST = Duration.ofHours(12);

  private ChoreDocument() {}

  static ChoreRules read(DocumentNode node, CatchUp catchUp) {
    node.only(EVERY, ZONE, AT, START, DONE, LEAD, OFF_DAYS, CALENDAR, SPREAD);
    return new ChoreRules(
        rule(node.need(EVERY)),
        rule(node.need(ZONE)),
        node.get(AT).map(ChoreDocument::rule),
        node.get(START).map(ChoreDocument::rule),
        node.get(DONE).map(ChoreDocument::rule),
        node.get(LEAD).map(ChoreDocument::rule),
        node.get(OFF_DAYS).map(word -> word.word(OffDays.class)).orElse(OffDays.KEEP),
        node.get(CALENDAR).map(DocumentNode::id),
        node.get(SPREAD).map(ChoreDocument::spread).orElse(Duration.ZERO),
        catchUp);
  }

  private static ValueRule rule(DocumentNode node) {
    if (node.isText() && !node.text().startsWith("/")) {
      return new ValueRule(new Source.Always(List.of(node.text()), false), List.of());
    }
    return RuleDocument.read(node);
  }

  private static Duration spread(DocumentNode node) {
    Duration spread = BridgeReader.span(node);
    if (spread.isNegative() || spread.compareTo(WIDEST) > 0) {
      throw node.refuse("they are spread over twelve hours (PT12H) at the most");
    }
    return spread;
  }

  static SequencedMap<String, Object> write(ChoreRules rules) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    written.put(EVERY, written(rules.every()));
    written.put(ZONE, written(rules.zone()));
    put(written, AT, rules.at());
    put(written, START, rules.start());
    put(written, DONE, rules.done());
    put(written, LEAD, rules.lead());
    if (rules.offDays() != OffDays.KEEP) {
      written.put(OFF_DAYS, DocumentNode.wordOf(rules.offDays()));
    }
    rules.calendar().ifPresent(id -> written.put(CALENDAR, id));
    if (!rules.spread().isZero()) {
      written.put(SPREAD, rules.spread().toString());
    }
    return written;
  }

  private static void put(SequencedMap<String, Object> into, String key, Optional<ValueRule> rule) {
    rule.ifPresent(one -> into.put(key, written(one)));
  }

  /** What is meant itself, if a rule says it; empty if it is found in the row. */
  static Optional<String> constant(ValueRule rule) {
    return rule.steps().isEmpty() && rule.source() instanceof Source.Always always
        ? Optional.of(always.written().getFirst()).filter(text -> !text.startsWith("/"))
        : Optional.empty();
  }

  private static Object written(ValueRule rule) {
    return constant(rule).<Object>map(text -> text).orElseGet(() -> RuleDocument.written(rule));
  }

  /** As an address in an event has it, what stands in a row. */
  static boolean isOfOccurrence(Address address) {
    return address.toString().startsWith("/" + TimeSource.OCCURRENCE + "/");
  }
}
