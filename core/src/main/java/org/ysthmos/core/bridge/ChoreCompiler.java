package org.ysthmos.core.bridge;

import java.time.DateTimeException;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.chore.ChoreWords;
import org.ysthmos.core.chore.Lead;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.recurrence.OffDays;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.rule.RuleCompiler;
import org.ysthmos.core.rule.ValueRule;
import org.ysthmos.core.value.ValueType;

/** Compiles how the rows of a collection come round. */
final class ChoreCompiler {

  private static final List<ValueType> TEXT = List.of(ValueType.TEXT);
  private static final List<ValueType> NAMES = List.of(ValueType.TEXT, ValueType.CHOICE);
  private static final List<ValueType> AMOUNTS = List.of(ValueType.TEXT, ValueType.NUMBER);
  private static final List<ValueType> DAY = List.of(ValueType.DAY);
  private static final List<ValueType> DONE = List.of(ValueType.DAY, ValueType.MOMENT);

  private final BridgeCompiler compiler;
  private final DocumentNode chores;
  private final BridgeScope scope;

  /**
   * @param chores what the document says of them
   */
  ChoreCompiler(BridgeCompiler compiler, DocumentNode chores, BridgeScope scope) {
    this.compiler = compiler;
    this.chores = chores;
    this.scope = scope;
  }

  /** Empty if anything is wrong with it, which is kept with the compiler then. */
  Optional<CompiledChores> compile(ChoreRules rules) {
    Optional<CompiledValue> every =
        value(ChoreDocument.EVERY, Optional.of(rules.every()), NAMES, ChoreWords::read);
    Optional<CompiledValue> zone =
        value(ChoreDocument.ZONE, Optional.of(rules.zone()), NAMES, ChoreCompiler::zone);
    Optional<CompiledValue> at = value(ChoreDocument.AT, rules.at(), TEXT, ChoreCompiler::time);
    Optional<CompiledValue> start = value(ChoreDocument.START, rules.start(), DAY, text -> {});
    Optional<CompiledValue> done = value(ChoreDocument.DONE, rules.done(), DONE, text -> {});
    Optional<CompiledValue> lead = value(ChoreDocument.LEAD, rules.lead(), AMOUNTS, Lead::read);
    Optional<WorkingCalendar> calendar = calendar(rules);
    if (every.isEmpty() || zone.isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        new CompiledChores(rules, every.get(), zone.get(), at, start, done, lead, calendar));
  }

  private Optional<WorkingCalendar> calendar(ChoreRules rules) {
    boolean working =
        rules.offDays() != OffDays.KEEP
            || rules.lead().flatMap(ChoreDocument::constant).filter(this::isWorking).isPresent();
    if (working && rules.calendar().isEmpty()) {
      compiler.problem(
          chores.problem("say which days are working days: calendar: the id of a calendar"));
    }
    return rules
        .calendar()
        .flatMap(
            id -> compiler.attempt(chores.need(ChoreDocument.CALENDAR), () -> scope.calendar(id)));
  }

  private boolean isWorking(String lead) {
    return lead.contains("working");
  }

  /**
   * @param check reads what is meant itself, where it is not found in the row
   */
  private Optional<CompiledValue> value(
      String key, Optional<ValueRule> rule, List<ValueType> types, Consumer<String> check) {
    return rule.flatMap(one -> compiler.attempt(chores.need(key), () -> value(one, types, check)));
  }

  private CompiledValue value(ValueRule rule, List<ValueType> types, Consumer<String> check) {
    ChoreDocument.constant(rule).ifPresent(text -> checked(text, check));
    UseRecorder.Needing<CompiledValue> needing =
        compiler
            .uses()
            .needing(() -> RuleCompiler.value(rule, Optional.of(types.getFirst()), scope));
    CompiledValue value = needing.compiled();
    if (!types.contains(value.gives())) {
      throw new Misfit(
          "a %s belongs here, and the rule gives a %s%s"
              .formatted(
                  types.getFirst(),
                  value.gives(),
                  types.contains(ValueType.DAY) && value.gives().equals(ValueType.TEXT)
                      ? "; read it: read-day"
                      : ""));
    }
    if (needing.lastLookup() >= 0) {
      throw new Misfit("when a row comes round is said by the row alone, and by no lookup");
    }
    for (BoundField read : value.reads()) {
      if (ChoreDocument.isOfOccurrence(read.address())) {
        throw new Misfit("“%s” is known only once it is due".formatted(read.address()));
      }
    }
    return value;
  }

  private static void checked(String text, Consumer<String> check) {
    try {
      check.accept(text);
    } catch (DateTimeException e) {
      throw new Misfit("“%s” is none: %s".formatted(text, e.getMessage()));
    } catch (IllegalArgumentException e) {
      throw new Misfit(String.valueOf(e.getMessage()));
    }
  }

  private static void zone(String text) {
    ZoneId unused = ZoneId.of(text);
  }

  private static void time(String text) {
    LocalTime unused = LocalTime.parse(text);
  }
}
