package org.ysthmos.core.step;

import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.ysthmos.core.compare.Operand;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.compare.Operators;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Languages;

/**
 * The options of one step in a document, read one by one; what is wrong is refused at its place.
 */
public final class StepOptions {

  private final StepKind kind;
  private final DocumentNode place;
  private final Map<String, DocumentNode> given;

  private StepOptions(StepKind kind, DocumentNode place, Map<String, DocumentNode> given) {
    this.kind = kind;
    this.place = place;
    this.given = given;
  }

  /** The options of a step that was written as its name alone. */
  static StepOptions none(StepKind kind, DocumentNode place) {
    if (!kind.bareName()) {
      throw place.refuse(
          "the step “" + kind.name() + "” needs options, for example " + exampleOf(kind));
    }
    return new StepOptions(kind, place, Map.of());
  }

  /** The options under a step's name. */
  static StepOptions of(StepKind kind, DocumentNode under) {
    if (kind.bare() && (!under.isGroup() || isGroup(kind.options().getFirst()))) {
      return new StepOptions(kind, under, Map.of(kind.options().getFirst().name(), under));
    }
    if (!under.isGroup()) {
      throw under.refuse(
          kind.options().isEmpty()
              ? "the step “" + kind.name() + "” has no options; write its name alone"
              : "expected options here, for example " + exampleOf(kind));
    }
    List<String> known = new ArrayList<>(kind.options().stream().map(Option::name).toList());
    if (kind.testing()) {
      known.addAll(Operators.KEYS.keySet());
    }
    under.only(known.toArray(String[]::new));
    for (Option option : kind.options()) {
      if (option.required()) {
        under.need(option.name());
      }
    }
    return new StepOptions(kind, under, under.group());
  }

  private static boolean isGroup(Option option) {
    return option.type() == Option.Plain.BANDS;
  }

  private static String exampleOf(StepKind kind) {
    return kind.examples().getFirst().written();
  }

  DocumentException refuse(String message) {
    return place.refuse(message);
  }

  boolean has(String name) {
    return given.containsKey(name);
  }

  /** What stands under a name; one that may be left out is asked for with {@link #get}. */
  DocumentNode node(String name) {
    DocumentNode node = given.get(name);
    if (node == null) {
      throw place.refuse("the step “" + kind.name() + "” needs “" + name + "”");
    }
    return node;
  }

  Optional<DocumentNode> get(String name) {
    return Optional.ofNullable(given.get(name));
  }

  String text(String name) {
    return node(name).text();
  }

  String text(String name, String otherwise) {
    return get(name).map(DocumentNode::text).orElse(otherwise);
  }

  boolean flag(String name) {
    return get(name).map(DocumentNode::flag).orElse(false);
  }

  int whole(String name, int least, int most) {
    DocumentNode node = node(name);
    int number = node.wholeNumber();
    if (number < least || number > most) {
      throw node.refuse("“%s” is from %d to %d, found %d".formatted(name, least, most, number));
    }
    return number;
  }

  <E extends Enum<E>> E word(String name, Class<E> kindOfWord, E otherwise) {
    return get(name).map(node -> node.word(kindOfWord)).orElse(otherwise);
  }

  /** A language by its BCP 47 tag; English where none is said. */
  Locale locale() {
    return get("locale").map(Languages::read).orElse(Locale.ENGLISH);
  }

  ZoneId zone(String name) {
    DocumentNode node = node(name);
    try {
      return ZoneId.of(node.text());
    } catch (DateTimeException e) {
      throw node.refuse(
          "“" + node.text() + "” is no IANA time zone; write for example Europe/Lisbon");
    }
  }

  <T> T parsed(String name, Function<String, T> parse) {
    return node(name).parsed(parse);
  }

  List<Step> steps(String name) {
    return node(name).each(StepKinds::read);
  }

  Operand operand(String name) {
    return Operand.read(node(name));
  }

  /** The one operator among the options. */
  Operator operator() {
    return Operators.read(place);
  }
}
