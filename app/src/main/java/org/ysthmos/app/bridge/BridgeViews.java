package org.ysthmos.app.bridge;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.rule.Source;

/** Bridges as people read them: rules as sentences. */
final class BridgeViews {

  private BridgeViews() {}

  /** One bridge in a list. */
  record BridgeSummary(
      String id,
      String name,
      String purpose,
      int version,
      Instant since,
      String source,
      String target) {}

  /**
   * A piece of a sentence.
   *
   * @param kind {@code words} for plain text, {@code field} for a source field, {@code fixed} for a
   *     value that is always the same
   */
  record Piece(String kind, String text, String address) {}

  /** How one target field gets its value. */
  record FieldView(String field, String name, List<Piece> source, List<String> steps) {}

  /** A lookup as a sentence. */
  record LookupView(String name, String sentence, String ifNone) {}

  /** A bridge with its rules. */
  record BridgeView(
      BridgeSummary bridge,
      String sourceCollection,
      String targetCollection,
      List<String> events,
      List<LookupView> lookups,
      List<String> conditions,
      List<String> matchKey,
      List<FieldView> fields,
      String ceiling,
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
        version.target().systemName());
  }

  static BridgeView view(Bridges.Live live) {
    BridgeVersion version = live.version();
    BridgeDefinition definition = version.definition();
    return new BridgeView(
        summary(live),
        version.source().name(),
        version.target().name(),
        definition.from().events(),
        version.lookups().stream().map(BridgeViews::lookup).toList(),
        conditions(version.when()),
        version.match().stream().map(field -> field.shape().name()).toList(),
        version.fields().stream().map(BridgeViews::field).toList(),
        ceiling(definition.ceiling()),
        live.document());
  }

  private static LookupView lookup(BridgeVersion.CompiledLookup lookup) {
    String by =
        String.join(" and ", lookup.by().stream().map(field -> field.shape().name()).toList());
    String ifNone =
        switch (lookup.rule().none()) {
          case FAIL -> "if not found, it fails";
          case PASS_BY -> "if not found, the event passes by";
          case GO_ON_EMPTY -> "if not found, it goes on without";
        };
    return new LookupView(
        lookup.rule().name(),
        "the %s of %s, by its %s"
            .formatted(lookup.shape().recordWord(), lookup.shape().systemName(), by),
        ifNone);
  }

  private static List<String> conditions(CompiledCondition condition) {
    return switch (condition) {
      case CompiledCondition.All all ->
          all.parts().stream().flatMap(part -> conditions(part).stream()).toList();
      case CompiledCondition.Any any ->
          List.of(
              String.join(
                  ", or ", any.parts().stream().flatMap(p -> conditions(p).stream()).toList()));
      case CompiledCondition.Not not ->
          List.of("not: " + String.join(", ", conditions(not.part())));
      case CompiledCondition.One one -> List.of(one.sentence());
    };
  }

  private static FieldView field(CompiledField field) {
    return new FieldView(
        field.target().key(), field.target().name(), source(field), field.sentences());
  }

  private static List<Piece> source(CompiledField field) {
    return switch (field.rule().source()) {
      case Source.Field source -> fields(field);
      case Source.SlotText text -> template(field, text.template());
      case Source.SlotTexts texts -> {
        List<Piece> pieces = new ArrayList<>();
        for (var template : texts.templates()) {
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
              new Piece("fixed", named(field, always.written()), ""));
    };
  }

  private static String named(CompiledField field, List<String> keys) {
    return String.join(", ", keys.stream().map(field.target()::nameOf).toList());
  }

  private static List<Piece> fields(CompiledField field) {
    return field.reads().stream()
        .map(read -> new Piece("field", read.shape().name(), read.address().toString()))
        .toList();
  }

  private static List<Piece> template(
      CompiledField field, org.ysthmos.core.rule.Template template) {
    List<Piece> pieces = new ArrayList<>();
    for (var part : template.parts()) {
      switch (part) {
        case org.ysthmos.core.rule.Template.Words words ->
            pieces.add(new Piece("words", words.text(), ""));
        case org.ysthmos.core.rule.Template.Slot slot ->
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

  private static String ceiling(BridgeDefinition.Ceiling ceiling) {
    long hours = ceiling.per().toHours();
    String per =
        ceiling.per().equals(java.time.Duration.ofHours(1))
            ? "an hour"
            : hours > 0 && ceiling.per().equals(java.time.Duration.ofHours(hours))
                ? hours + " hours"
                : ceiling.per().toMinutes() + " minutes";
    return "at most " + ceiling.creates() + " new tasks in " + per;
  }
}
