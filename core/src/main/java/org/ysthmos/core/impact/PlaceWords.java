package org.ysthmos.core.impact;

import java.util.List;
import java.util.Optional;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;

/** Places of a bridge's document in words, as people know its parts. */
public final class PlaceWords {

  private PlaceWords() {}

  /**
   * @param place for example {@code fields/priority}
   * @return for example {@code Priority}
   */
  public static String of(BridgeVersion bridge, String place) {
    List<String> parts = List.of(place.split("/", -1));
    String name = parts.size() > 1 ? parts.get(1) : "";
    return switch (parts.getFirst()) {
      case "from" -> parts.size() > 1 ? "when it comes round" : "what it hears";
      case "to" -> parts.size() > 1 ? "which record is changed" : "where it writes";
      case "when" -> "only when";
      case "match" -> "the same thing";
      case "lookups" -> "the lookup " + plain(name);
      case "values" -> "the value " + plain(name);
      case "for-each" -> "one for each";
      case "set" -> inSet(bridge, parts);
      case "then" -> inThen(bridge, parts);
      case "between" -> inBetween(bridge, parts);
      case "duplicates" -> "what reads nearly the same";
      case "fields" -> field(bridge, name);
      default -> place;
    };
  }

  private static String field(BridgeVersion bridge, String key) {
    return bridge
        .between()
        .flatMap(
            both ->
                both.fields().stream()
                    .filter(one -> one.rule().name().equals(key))
                    .findFirst()
                    .map(one -> one.at().left().shape().name()))
        .orElseGet(() -> nameOf(bridge.target(), key));
  }

  private static String nameOf(CollectionShape shape, String key) {
    return shape.field(key).map(FieldShape::name).orElse(key);
  }

  private static String inSet(BridgeVersion bridge, List<String> parts) {
    if (parts.size() < 3) {
      return "the anchor day";
    }
    String member = plain(parts.get(2));
    return parts.size() > 4
        ? member + ": " + nameOf(bridge.target(), parts.get(4))
        : "the day of " + member;
  }

  private static String inThen(BridgeVersion bridge, List<String> parts) {
    String name = parts.get(1);
    String then = "then " + plain(name);
    Optional<CollectionShape> target =
        bridge.then().stream()
            .filter(effect -> effect.rule().name().equals(name))
            .findFirst()
            .map(effect -> effect.target());
    return switch (parts.size() > 2 ? parts.get(2) : "") {
      case "fields" ->
          parts.size() > 3
              ? then + ": " + target.map(shape -> nameOf(shape, parts.get(3))).orElse(parts.get(3))
              : then;
      case "when" -> then + ", only when";
      case "match" -> then + ", the same thing";
      default -> then;
    };
  }

  private static String inBetween(BridgeVersion bridge, List<String> parts) {
    String side =
        parts.size() > 1 && parts.get(1).equals("right")
            ? bridge.target().systemName()
            : bridge.source().systemName();
    return parts.size() > 2 ? "only when, at " + side : "what it keeps alike at " + side;
  }

  private static String plain(String name) {
    return name.replace('-', ' ');
  }
}
