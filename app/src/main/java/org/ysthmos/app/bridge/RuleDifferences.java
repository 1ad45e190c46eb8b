package org.ysthmos.app.bridge;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.SequencedSet;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.ysthmos.app.bridge.BridgeViews.BothWays;
import org.ysthmos.app.bridge.BridgeViews.BridgeView;
import org.ysthmos.app.bridge.BridgeViews.KeptField;
import org.ysthmos.app.bridge.BridgeViews.KeptPlace;
import org.ysthmos.app.bridge.BridgeViews.Piece;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.guard.CeilingWords;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.shape.CollectionShape;

/** What differs between two versions of a bridge, part by part, in sentences. */
public final class RuleDifferences {

  /**
   * A part that differs.
   *
   * @param part what it is: a field, the condition, a lookup, …
   * @param before as it was; empty if it was not there
   * @param after as it is; empty if it is not there any more
   */
  public record RuleDifference(String part, String before, String after) {}

  private static final int MOST_NAMED = 12;

  private RuleDifferences() {}

  public static List<RuleDifference> between(BridgeVersion before, BridgeVersion after) {
    SequencedMap<String, String> was = parts(before);
    SequencedMap<String, String> is = parts(after);
    SequencedSet<String> all = new LinkedHashSet<>(is.sequencedKeySet());
    all.addAll(was.sequencedKeySet());
    List<RuleDifference> differences = new ArrayList<>();
    places(before, after).ifPresent(differences::add);
    for (String part : all) {
      String then = was.getOrDefault(part, "");
      String now = is.getOrDefault(part, "");
      if (!then.equals(now)) {
        differences.add(new RuleDifference(part, then, now));
      }
    }
    return differences;
  }

  /** Which places are heard no more, and which are heard from now on. */
  private static Optional<RuleDifference> places(BridgeVersion before, BridgeVersion after) {
    if (before.places().isEmpty() && after.places().isEmpty()) {
      return Optional.empty();
    }
    String then = namesOf(before, after.heard());
    String now = namesOf(after, before.heard());
    return then.isEmpty() && now.isEmpty()
        ? Optional.empty()
        : Optional.of(new RuleDifference("Places", then, now));
  }

  /** What people call the places that a version hears but for some. */
  private static String namesOf(BridgeVersion version, List<String> butFor) {
    List<String> names =
        version.views().stream()
            .map(BridgeVersion::source)
            .filter(place -> !butFor.contains(place.collection()))
            .map(CollectionShape::name)
            .toList();
    return names.size() <= MOST_NAMED
        ? String.join(", ", names)
        : "%s and %d more"
            .formatted(String.join(", ", names.subList(0, MOST_NAMED)), names.size() - MOST_NAMED);
  }

  private static SequencedMap<String, String> parts(BridgeVersion version) {
    BridgeView view = BridgeViews.view(version);
    SequencedMap<String, String> parts = new LinkedHashMap<>();
    parts.put("Name", version.definition().name());
    parts.put("Purpose", version.definition().purpose());
    BothWays both = view.bothWays();
    if (both != null) {
      parts.putAll(parts(both));
      parts.put("Ceiling", ceiling(version.definition().ceiling()));
      return parts;
    }
    parts.put("From", view.sourceCollection() + " of " + view.bridge().source());
    parts.put("To", view.targetCollection() + " of " + view.bridge().target());
    parts.put("When one is", String.join(" or ", view.events()));
    parts.put("Begins by itself", view.times());
    parts.put("Comes round", String.join("; ", view.chores()));
    view.lookups()
        .forEach(
            lookup ->
                parts.put(
                    "Lookup “" + lookup.name() + "”", lookup.sentence() + "; " + lookup.ifNone()));
    for (int i = 0; i < version.values().size(); i++) {
      CompiledValue value = version.values().get(i);
      parts.put(
          "Value “" + version.valueNames().get(i) + "”",
          sentence(BridgeViews.source(value, UnaryOperator.identity()), value.chain().sentences()));
    }
    parts.put("Only when", String.join("; ", view.conditions()));
    parts.put("The same thing when", String.join(" and ", view.matchKey()));
    parts.put("Tasks", view.tasks());
    Map<String, Integer> times = new LinkedHashMap<>();
    for (BridgeViews.FieldView field : view.fields()) {
      // In a set each member may have a rule for the same field.
      int time = times.merge(field.field(), 1, Integer::sum);
      parts.put(
          time == 1 ? field.name() : field.name() + " (" + time + ")",
          sentence(field.source(), field.steps()));
    }
    view.then().forEach(effect -> parts.put("Then “" + effect.name() + "”", sentence(effect)));
    parts.put("Ceiling", ceiling(version.definition().ceiling()));
    return parts;
  }

  /** Of two places that are kept alike: each of them, each field, and when both are checked. */
  private static SequencedMap<String, String> parts(BothWays both) {
    SequencedMap<String, String> parts = new LinkedHashMap<>();
    parts.put("Left", place(both.left()));
    parts.put("Right", place(both.right()));
    for (KeptField field : both.fields()) {
      parts.put(field.name(), field(field));
    }
    Long every = both.checkSeconds();
    parts.put(
        "Full check",
        every == null
            ? both.checkTimes()
            : "every " + CeilingWords.span(Duration.ofSeconds(every)));
    return parts;
  }

  private static String place(KeptPlace place) {
    return joined(
        place.collection() + " of " + place.system(),
        "when one is " + String.join(" or ", place.events()),
        place.conditions().isEmpty() ? "" : "only when " + String.join("; ", place.conditions()),
        place.begins() ? "" : "what begins here is not made on the other side",
        "once one is gone, " + place.ifGone());
  }

  private static String field(KeptField field) {
    return joined(
        field.left().equals(field.right()) ? field.left() : field.left() + " and " + field.right(),
        switch (field.direction()) {
          case "both" -> "both ways";
          case "once" -> "once, when a task is made";
          default -> field.direction().replace("to-", "to the ") + " alone";
        },
        field.toRight().isEmpty() ? "" : "to the right: " + String.join(", ", field.toRight()),
        field.toLeft().isEmpty() ? "" : "to the left: " + String.join(", ", field.toLeft()),
        field.bothChanged().isEmpty() ? "" : "where both changed it, " + field.bothChanged(),
        field.drift());
  }

  private static String joined(String... parts) {
    return Stream.of(parts).filter(part -> !part.isEmpty()).collect(Collectors.joining("; "));
  }

  private static String ceiling(Optional<BridgeDefinition.Ceiling> stated) {
    return stated
        .map(
            ceiling ->
                ceiling.most().entrySet().stream()
                        .map(one -> CeilingWords.counted(one.getKey(), one.getValue()))
                        .collect(Collectors.joining(", ", "at most ", " in "))
                    + CeilingWords.span(ceiling.per()))
        .orElse("reckoned from the busiest time");
  }

  private static String sentence(BridgeViews.EffectView effect) {
    List<String> parts = new ArrayList<>(List.of(effect.what()));
    if (!effect.conditions().isEmpty()) {
      parts.add("only when " + String.join("; ", effect.conditions()));
    }
    if (!effect.matchKey().isEmpty()) {
      parts.add("once for " + String.join(" and ", effect.matchKey()));
    }
    effect
        .fields()
        .forEach(field -> parts.add(field.name() + ": " + sentence(field.source(), field.steps())));
    return String.join(", ", parts);
  }

  static String sentence(List<Piece> pieces, List<String> steps) {
    String source = pieces.stream().map(Piece::text).collect(Collectors.joining());
    return steps.isEmpty() ? source : source + ", " + String.join(", ", steps);
  }
}
