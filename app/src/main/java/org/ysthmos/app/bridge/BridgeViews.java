package org.ysthmos.app.bridge;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledEffect;
import org.ysthmos.core.bridge.CompiledLookup;
import org.ysthmos.core.bridge.CompiledPlan;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.condition.Condition;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.guard.Ceiling;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Template;
import org.ysthmos.core.recurrence.RuleSentence;
import org.ysthmos.core.recurrence.Timetable;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.rule.Source;
import org.ysthmos.core.shape.CollectionShape;

/** Bridges as people read them: rules as sentences. */
final class BridgeViews {

  private BridgeViews() {}

  /**
   * One bridge in a list.
   *
   * @param bothWays whether it keeps source and target alike
   * @param heldSince null unless it is held
   * @param heldBy who held it: a person, or {@code engine} if it held itself
   */
  record BridgeSummary(
      String id,
      String name,
      String purpose,
      int version,
      Instant since,
      String source,
      String target,
      boolean bothWays,
      @Schema(nullable = true) @Nullable Instant heldSince,
      String heldBecause,
      String heldBy) {}

  /**
   * A piece of a sentence.
   *
   * @param kind {@code words} for plain text, {@code field} for a source field, {@code fixed} for a
   *     value that is always the same
   */
  record Piece(String kind, String text, String address) {}

  /** How one target field gets its value. */
  record FieldView(String field, String name, List<Piece> source, List<String> steps) {}

  /**
   * What comes after the tasks.
   *
   * @param what what is done, as a sentence
   */
  record EffectView(
      String name,
      String what,
      List<String> conditions,
      List<String> matchKey,
      List<FieldView> fields) {}

  /** A lookup as a sentence. */
  record LookupView(String name, String sentence, String ifNone) {}

  /**
   * One of the places that are kept alike.
   *
   * @param conditions which of its tasks are made on the other side
   * @param begins whether its tasks are made on the other side at all
   * @param ifGone what becomes of the other task once one of this side is gone, in words
   */
  record KeptPlace(
      String system,
      String collection,
      List<String> events,
      List<String> conditions,
      boolean begins,
      String ifGone) {}

  /**
   * A field that is kept alike.
   *
   * @param left its name on the left
   * @param direction which way it goes: both, to-left, to-right, once
   * @param toRight what a value becomes that goes to the right, in words
   * @param bothChanged what happens where both sides changed it, in words; empty where one follows
   * @param drift what happens where the side that follows changed it; empty where both ways
   */
  record KeptField(
      String name,
      String left,
      String right,
      String direction,
      List<String> toRight,
      List<String> toLeft,
      String bothChanged,
      String drift) {}

  /**
   * Two places that are kept alike.
   *
   * @param checkSeconds how often both lists are held against what was agreed; null if only when
   *     somebody asks for it, or at times that come round
   * @param checkTimes those times as a sentence; empty if there are none
   */
  record BothWays(
      KeptPlace left,
      KeptPlace right,
      List<KeptField> fields,
      @Schema(nullable = true) @Nullable Long checkSeconds,
      String checkTimes) {}

  /**
   * A bridge with its rules.
   *
   * @param places how many places it hears, where it hears several; 0 where it hears one
   * @param times when it begins by itself, as a sentence; empty where it hears a collection
   * @param chores how each record comes round by itself, in sentences; empty where none does
   * @param bothWays the two places that it keeps alike; null where it goes one way
   * @param tasks how many tasks come of one event, in words
   * @param set whether those are a set around a day
   * @param remarks what a person should know before trusting the rules
   */
  record BridgeView(
      BridgeSummary bridge,
      String sourceCollection,
      String targetCollection,
      int places,
      List<String> events,
      String times,
      List<String> chores,
      List<LookupView> lookups,
      List<String> conditions,
      List<String> matchKey,
      List<FieldView> fields,
      List<EffectView> then,
      String tasks,
      boolean set,
      @Schema(nullable = true) @Nullable BothWays bothWays,
      List<String> remarks,
      CeilingView ceiling,
      String document) {}

  static BridgeSummary summary(Bridges.Live live) {
    BridgeVersion version = live.version();
    return new BridgeSummary(
        version.definition().id(),
        version.definition().name(),
        version.definition().purpose(),
        version.number(),
        live.since(),
        version.source().systemName(),
        version.target().systemName(),
        version.between().isPresent(),
        live.hold().map(Bridges.Hold::since).orElse(null),
        live.hold().map(Bridges.Hold::because).orElse(""),
        live.hold().map(Bridges.Hold::by).orElse(""));
  }

  /** A version that need not be live. */
  static BridgeView view(BridgeVersion version) {
    Ceiling ceiling = Ceiling.of(version.definition().ceiling(), Map.of());
    return view(
        new Bridges.Live(version, "", Instant.EPOCH, ceiling, Optional.empty(), 0), Map.of());
  }

  /**
   * @param used what the bridge did in the span of its ceiling that ends now
   */
  static BridgeView view(Bridges.Live live, Map<EffectKind, Long> used) {
    BridgeVersion version = live.version();
    BridgeDefinition definition = version.definition();
    return new BridgeView(
        summary(live),
        version.sourceName(),
        version.targetName(),
        version.places().size(),
        definition.from().events(),
        definition.from().times().map(Timetable::times).map(RuleSentence::of).orElse(""),
        version.chores().map(ChoreViews::sentences).orElse(List.of()),
        version.lookups().stream().map(BridgeViews::lookup).toList(),
        conditions(version.when()),
        version.match().stream().map(field -> field.shape().name()).toList(),
        version.plan().allFields().stream().map(BridgeViews::field).toList(),
        version.then().stream().map(effect -> effect(effect, version)).toList(),
        plan(version),
        version.plan() instanceof CompiledPlan.Set,
        version.between().map(BothWaysViews::of).orElse(null),
        version.remarks().stream().map(DocumentProblem::toString).toList(),
        CeilingView.of(live.ceiling(), kind -> used.getOrDefault(kind, 0L)),
        live.document());
  }

  private static EffectView effect(CompiledEffect effect, BridgeVersion version) {
    return new EffectView(
        effect.rule().name(),
        what(effect, version.definition().from()),
        effect.rule().when().equals(Condition.ALWAYS) ? List.of() : conditions(effect.when()),
        effect.rule().match().isEmpty()
            ? List.of()
            : effect.match().stream().map(field -> field.shape().name()).toList(),
        effect.fields().stream().map(BridgeViews::field).toList());
  }

  private static String what(CompiledEffect effect, BridgeDefinition.From from) {
    CollectionShape at = effect.target();
    if (effect.rule().to().isRecordOf(from)) {
      return "the %s that it came from is changed".formatted(at.recordWord());
    }
    return effect
        .changed()
        .map(record -> changed(record, at))
        .orElseGet(
            () -> "a %s is made at %s, %s".formatted(at.recordWord(), at.systemName(), at.name()));
  }

  private static String changed(BoundField record, CollectionShape at) {
    return "the %s of %s with the id in “%s” of the %s is changed"
        .formatted(at.recordWord(), at.systemName(), record.shape().name(), record.where());
  }

  private static LookupView lookup(CompiledLookup lookup) {
    List<String> by = new ArrayList<>();
    for (int i = 0; i < lookup.keys().size(); i++) {
      List<BoundField> reads = lookup.by().get(i).reads();
      by.add(reads.isEmpty() ? lookup.keys().get(i) : reads.getFirst().shape().name());
    }
    String where =
        switch (lookup.rule().origin()) {
          case SYSTEM -> "the %s of %s, by its %s";
          case EVENTS -> "the %s of %s among the events received, by its %s";
          case TASKS -> "the %s that the %s made, by %s";
        };
    return new LookupView(
        lookup.rule().name(),
        where.formatted(
            lookup.shape().recordWord(), lookup.shape().systemName(), String.join(" and ", by)),
        ifNone(lookup.rule()));
  }

  private static String ifNone(LookupRule rule) {
    String otherwise =
        switch (rule.none()) {
          case FAIL -> "if not found, it fails";
          case PASS_BY -> "if not found, the event passes by";
          case EMPTY -> "if not found, it goes on without";
          case MAKE -> "if it was not made there by then, it fails";
        };
    String none =
        rule.waits()
            .map(
                span ->
                    "if not there yet, it is %s %s; then, %s"
                        .formatted(
                            rule.none() == LookupRule.NoneFound.MAKE
                                ? "to be made, and waited for"
                                : "waited for",
                            span,
                            otherwise))
            .orElse(otherwise);
    return rule.several()
        .firstBy()
        .map(field -> none + "; of several, the first by " + field.lastToken())
        .orElse(none);
  }

  static List<String> conditions(CompiledCondition condition) {
    return condition instanceof CompiledCondition.All all
        ? all.parts().stream().map(CompiledCondition::sentence).toList()
        : List.of(condition.sentence());
  }

  private static FieldView field(CompiledField field) {
    return new FieldView(
        field.target().key(),
        field.target().name(),
        source(field.value(), field.target()::nameOf),
        field.value().chain().sentences());
  }

  /**
   * @param nameOf what people call a key of a choice or a person
   */
  static List<Piece> source(CompiledValue field, UnaryOperator<String> nameOf) {
    return switch (field.rule().source()) {
      case Source.Field source -> fields(field);
      case Source.SlottedText text -> template(field, text.template());
      case Source.SlottedTexts texts -> {
        List<Piece> pieces = new ArrayList<>();
        for (Template template : texts.templates()) {
          if (!pieces.isEmpty()) {
            pieces.add(new Piece("words", " · ", ""));
          }
          pieces.addAll(template(field, template));
        }
        yield pieces;
      }
      case Source.Always always ->
          List.of(
              new Piece("words", "always ", ""),
              new Piece(
                  "fixed", String.join(", ", always.written().stream().map(nameOf).toList()), ""));
      case Source.Cases cases -> withWords("by case, from ", field);
      case Source.Each each -> withWords("for each of ", field);
    };
  }

  private static List<Piece> withWords(String words, CompiledValue field) {
    List<Piece> pieces = new ArrayList<>();
    pieces.add(new Piece("words", words, ""));
    pieces.addAll(fields(field));
    return pieces;
  }

  private static List<Piece> fields(CompiledValue field) {
    return field.reads().stream()
        .map(read -> new Piece("field", read.shape().name(), read.address().toString()))
        .toList();
  }

  private static List<Piece> template(CompiledValue field, Template template) {
    List<Piece> pieces = new ArrayList<>();
    for (var part : template.parts()) {
      switch (part) {
        case Template.Words words -> pieces.add(new Piece("words", words.text(), ""));
        case Template.InHand inHand -> pieces.add(new Piece("words", "{value}", ""));
        case Template.Slot slot ->
            field.reads().stream()
                .filter(read -> read.address().equals(slot.address()))
                .findFirst()
                .ifPresent(
                    read ->
                        pieces.add(
                            new Piece("field", read.shape().name(), read.address().toString())));
      }
    }
    return pieces;
  }

  private static String plan(BridgeVersion version) {
    return switch (version.plan()) {
      case CompiledPlan.One one when one.changed().isPresent() ->
          version.definition().to().isRecordOf(version.definition().from())
              ? "the record that an event came from is changed"
              : changed(one.changed().get(), version.target());
      case CompiledPlan.One one -> "one task for each event";
      case CompiledPlan.EachRecord each -> "a task for each of " + each.list().shape().name();
      case CompiledPlan.EachValue each -> "a task for each item of a list";
      case CompiledPlan.Set set -> set.members().size() + " tasks around an anchor day";
    };
  }
}
