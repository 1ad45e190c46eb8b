package org.ysthmos.core.testkit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.ValueType;

/**
 * Bridges of a seed between the collections of the {@link Garden}, whose rules name fields in every
 * place where a rule can: as what it starts from, in slots, in the options of steps, in what a test
 * compares with, in keys of lookups and in values that other rules name.
 */
public final class AnyBridge {

  private static final List<String> SOURCES =
      List.of(
          "garden-chat/messages",
          "garden-chat/reactions",
          "post-room/mails",
          "friends-register/pledges",
          "climate-desk/tickets",
          "exhibitions/programme",
          "chore-table/rounds");

  private final Random random;
  private final CollectionShape source;
  private final Optional<CollectionShape> found;
  private boolean named;

  private AnyBridge(long seed) {
    random = new Random(seed);
    source = shape(any(SOURCES));
    found = random.nextBoolean() ? Optional.of(shape(any(SOURCES))) : Optional.empty();
  }

  /** The document of a bridge that can be used. */
  public static String document(long seed) {
    return new AnyBridge(seed).document();
  }

  private static CollectionShape shape(String place) {
    String[] parts = place.split("/", -1);
    return Garden.CATALOG.collection(parts[0], parts[1]).orElseThrow();
  }

  private <T> T any(List<T> of) {
    return of.get(random.nextInt(of.size()));
  }

  private List<String> keys(CollectionShape shape) {
    return shape.eventFields().stream()
        .filter(field -> field.type().equals(ValueType.TEXT))
        .map(FieldShape::key)
        .toList();
  }

  /** The address of a text: of the event, of what was looked up, or a value by its name. */
  private String text() {
    if (named && random.nextInt(4) == 0) {
      return "values/chosen";
    }
    return found.isPresent() && random.nextInt(3) == 0
        ? "found" + any(keys(found.get()))
        : any(keys(source));
  }

  private String step() {
    return switch (random.nextInt(6)) {
      case 0 -> "if: { equal: { value: %s }, use: { value: %s } }".formatted(text(), text());
      case 1 -> "put: \"{value}, {%s} and {%s}\"".formatted(text(), text());
      case 2 -> "fail-if: { equal: { value: %s }, message: No }".formatted(text());
      case 3 ->
          "by-table: { table: mail-lanes, with: [%s], take: days, not-found: empty }, write-number"
              .formatted(text());
      case 4 -> "if: { starts-with: { value: %s }, use: x }".formatted(text());
      default -> "trim";
    };
  }

  private String rule() {
    return switch (random.nextInt(4)) {
      case 0 -> "{ text: \"{%s} ({%s})\", steps: [%s] }".formatted(text(), text(), step());
      case 1 -> "{ value: %s, steps: [%s, %s] }".formatted(text(), step(), step());
      case 2 ->
          "{ cases: [{ when: %s, then: { value: %s, steps: [%s] } }], otherwise: { value: %s } }"
              .formatted(test(), text(), step(), text());
      default ->
          "{ texts: [\"{%s}\", \"at {%s}\"], steps: [join: \", \"] }".formatted(text(), text());
    };
  }

  private String test() {
    return switch (random.nextInt(4)) {
      case 0 -> "{ value: %s, is: present }".formatted(text());
      case 1 -> "{ value: %s, equal: { value: %s } }".formatted(text(), text());
      case 2 -> "{ not: { value: %s, steps: [%s], contains: x } }".formatted(text(), step());
      default ->
          "{ any: [{ value: %s, is: empty }, { value: %s, equal: a }] }".formatted(text(), text());
    };
  }

  private String document() {
    List<String> lines = new ArrayList<>();
    lines.add("bridge: any");
    lines.add("name: Any");
    lines.add("purpose: It names things");
    lines.add(
        "from: { system: %s, collection: %s, event: changed }"
            .formatted(source.system(), source.collection()));
    lines.add("to: { system: works-ledger, collection: jobs }");
    found.ifPresent(
        shape ->
            lines.add(
                "lookups: { found: { in: %s/%s, from: events, by: { %s: { value: %s } }, none: empty } }"
                    .formatted(
                        shape.system(), shape.collection(), any(keys(shape)), any(keys(source)))));
    if (random.nextBoolean()) {
      lines.add("values: { chosen: %s }".formatted(rule()));
      named = true;
    }
    lines.add("when: " + test());
    lines.add("match: [%s]".formatted(any(keys(source))));
    lines.add("fields:");
    lines.add("  title: " + rule());
    if (random.nextBoolean()) {
      lines.add("  description: " + rule());
    }
    if (random.nextBoolean()) {
      lines.add("  labels: { value: %s, steps: [%s, in-list] }".formatted(text(), step()));
    }
    if (random.nextBoolean()) {
      lines.add(
          "  due: { always: \"2026-12-01\", steps: [read-day: iso, move-working-days: { days: 2, calendar: office }] }");
    }
    if (random.nextBoolean()) {
      lines.add("then:");
      lines.add("  tell:");
      lines.add("    to: { system: works-ledger, collection: jobs }");
      lines.add("    when: " + test());
      lines.add("    match: [%s]".formatted(any(keys(source))));
      lines.add("    fields: { title: %s, parent: made/id }".formatted(rule()));
    }
    lines.add("ceiling: { creates: 40, per: PT1H }");
    return String.join("\n", lines) + "\n";
  }
}
