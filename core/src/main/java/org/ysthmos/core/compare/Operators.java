package org.ysthmos.core.compare;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Languages;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.text.LinearPattern;

/** Operators as documents write them: a key with what is compared. */
public final class Operators {

  /** The keys of all operators and what each asks, in the order of the reference page. */
  public static final SequencedMap<String, String> KEYS = keys();

  private Operators() {}

  private static SequencedMap<String, String> keys() {
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    keys.put("is", "`present`: there is a value and it is not blank; `empty`: there is none");
    keys.put("equal", "the value is this one; numbers are compared as numbers, days as days");
    keys.put(
        "equal-ignoring-case",
        "the text is this one, in capitals or in small letters; where a language tells them apart"
            + " in its own way, it stands beside: `{ text: ISPARTA, locale: tr }`");
    keys.put("one-of", "the value is one of these");
    keys.put("contains", "the text holds this one somewhere, or the list has this item");
    keys.put("starts-with", "the text starts with this one");
    keys.put("ends-with", "the text ends with this one");
    keys.put("matches", "this pattern (RE2 syntax) is found in the text");
    keys.put("more-than", "the number is greater");
    keys.put("at-least", "the number is greater or the same");
    keys.put("less-than", "the number is smaller");
    keys.put("at-most", "the number is smaller or the same");
    keys.put("before", "the day or moment is earlier");
    keys.put("after", "the day or moment is later");
    keys.put("between", "the number, day or moment lies between `from` and `to`, both included");
    keys.put("not", "what the operator within says does not hold");
    return Collections.unmodifiableSequencedMap(keys);
  }

  /**
   * Reads the one operator among the keys of a group; other keys of the group are not looked at.
   *
   * @throws org.ysthmos.core.document.DocumentException if there is none, or more than one
   */
  public static Operator read(DocumentNode group) {
    List<Map.Entry<String, DocumentNode>> found =
        group.group().entrySet().stream().filter(e -> KEYS.containsKey(e.getKey())).toList();
    if (found.size() != 1) {
      throw group.refuse(
          (found.isEmpty() ? "an operator is missing here" : "there is more than one operator here")
              + "; write one of "
              + String.join(", ", KEYS.sequencedKeySet()));
    }
    DocumentNode with = found.getFirst().getValue();
    return switch (found.getFirst().getKey()) {
      case "is" -> presence(with);
      case "equal" -> new Operator.Equal(Operand.read(with));
      case "equal-ignoring-case" -> ignoringCase(with);
      case "one-of" -> new Operator.OneOf(with.texts());
      case "contains" -> new Operator.Contains(Operand.read(with));
      case "starts-with" -> new Operator.AtEdge(true, Operand.read(with));
      case "ends-with" -> new Operator.AtEdge(false, Operand.read(with));
      case "matches" -> {
        with.parsed(LinearPattern::compile);
        yield new Operator.Matches(with.text());
      }
      case "between" -> {
        with.only("from", "to");
        yield new Operator.Between(Operand.read(with.need("from")), Operand.read(with.need("to")));
      }
      case "not" -> new Operator.Not(read(with.only(KEYS.keySet().toArray(String[]::new))));
      default ->
          new Operator.Ordered(
              Relation.valueOf(
                  found.getFirst().getKey().toUpperCase(Locale.ROOT).replace('-', '_')),
              Operand.read(with));
    };
  }

  private static Operator ignoringCase(DocumentNode with) {
    if (!with.isGroup()) {
      return new Operator.EqualIgnoringCase(Operand.read(with), Locale.ROOT);
    }
    with.only("text", "value", "locale");
    Operand operand =
        with.get("text")
            .<Operand>map(text -> new Operand.Fixed(text.text()))
            .orElseGet(() -> new Operand.Field(Address.read(with.need("value"))));
    if (with.get("text").isPresent() && with.get("value").isPresent()) {
      throw with.need("value").refuse("it is one text or one field, not both");
    }
    return new Operator.EqualIgnoringCase(
        operand, with.get("locale").map(Languages::read).orElse(Locale.ROOT));
  }

  private static Object written(Operator.EqualIgnoringCase equal) {
    if (equal.locale().equals(Locale.ROOT)) {
      return equal.operand().toDocument();
    }
    SequencedMap<String, Object> group = new LinkedHashMap<>();
    switch (equal.operand()) {
      case Operand.Fixed fixed -> group.put("text", fixed.written());
      case Operand.Field field -> group.put("value", field.address().toString());
    }
    group.put("locale", equal.locale().toLanguageTag());
    return group;
  }

  private static Operator presence(DocumentNode node) {
    return switch (node.text()) {
      case "present" -> new Operator.Present();
      case "empty" -> new Operator.Empty();
      default ->
          throw node.refuse(Nearest.unknown("test", node.text(), List.of("present", "empty")));
    };
  }

  /** The key and what stands under it. */
  public static Map.Entry<String, Object> written(Operator operator) {
    return switch (operator) {
      case Operator.Present present -> Map.entry("is", "present");
      case Operator.Empty empty -> Map.entry("is", "empty");
      case Operator.Equal equal -> Map.entry("equal", equal.operand().toDocument());
      case Operator.EqualIgnoringCase equal -> Map.entry("equal-ignoring-case", written(equal));
      case Operator.OneOf oneOf -> Map.entry("one-of", oneOf.written());
      case Operator.Contains contains -> Map.entry("contains", contains.operand().toDocument());
      case Operator.AtEdge edge ->
          Map.entry(edge.start() ? "starts-with" : "ends-with", edge.operand().toDocument());
      case Operator.Matches matches -> Map.entry("matches", matches.pattern());
      case Operator.Ordered ordered ->
          Map.entry(DocumentNode.wordOf(ordered.relation()), ordered.operand().toDocument());
      case Operator.Between between -> {
        SequencedMap<String, Object> ends = new LinkedHashMap<>();
        ends.put("from", between.from().toDocument());
        ends.put("to", between.to().toDocument());
        yield Map.entry("between", ends);
      }
      case Operator.Not not -> {
        Map.Entry<String, Object> inner = written(not.operator());
        yield Map.entry("not", Map.of(inner.getKey(), inner.getValue()));
      }
    };
  }
}
