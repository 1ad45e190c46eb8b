package org.ysthmos.core.incident;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeParseException;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.document.Problems;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * Who is told of incidents, and how.
 *
 * @param quiet how long nothing more is told after a message; what opens meanwhile is told together
 * @param digest when all that is open is told once a day; empty if it is not
 * @param ways in the order in which they are tried: the first that works is the only one used
 */
public record AlarmPlan(Duration quiet, List<Way> ways, Optional<Digest> digest) {

  /** Nobody is told; incidents stand on the screens alone. */
  public static final AlarmPlan NONE = new AlarmPlan(Duration.ZERO, List.of(), Optional.empty());

  /** When all that is open, and what closed since, is told once a day. */
  public record Digest(LocalTime at, ZoneId zone) {

    /**
     * The last moment of a digest that is not after another; as RFC 5545 has it at a clock change.
     */
    public Instant before(Instant now) {
      LocalDate day = LocalDate.ofInstant(now, zone);
      Instant today = on(day);
      return today.isAfter(now) ? on(day.minusDays(1)) : today;
    }

    /** The first moment of a digest after another. */
    public Instant after(Instant now) {
      LocalDate day = LocalDate.ofInstant(now, zone);
      Instant today = on(day);
      return today.isAfter(now) ? today : on(day.plusDays(1));
    }

    private Instant on(LocalDate day) {
      return ZonedDateTime.of(day, at, zone).toInstant();
    }
  }

  private static final Duration USUAL_QUIET = Duration.ofMinutes(15);

  private static final Pattern SLOT = Pattern.compile("\\{([^{}]*)}");
  private static final ValueType TEXTS = ValueType.listOf(ValueType.TEXT);
  private static final List<String> SLOTS = List.of("headline", "text");

  /** A field of a message, with slots for what is told; a list stands with commas. */
  record Template(ValueType type, String text) {

    Value of(String words) {
      if (type.equals(ValueType.CHOICE)) {
        return new Choice(words);
      }
      return type.equals(ValueType.TEXT)
          ? new Text(words)
          : new ListValue(
              ValueType.TEXT,
              Arrays.stream(words.split(",", -1))
                  .<Value>map(one -> new Text(one.strip()))
                  .toList());
    }
  }

  /**
   * A place where a message is made.
   *
   * @param fields what is written, by the keys of its fields
   */
  public record Way(String system, String collection, SequencedMap<String, Template> fields) {

    /** The fields of a message. */
    public SequencedMap<String, Value> filled(String headline, String text) {
      SequencedMap<String, Value> filled = new LinkedHashMap<>();
      fields.forEach(
          (key, template) -> {
            String words =
                SLOT.matcher(template.text())
                    .replaceAll(
                        slot ->
                            Matcher.quoteReplacement(
                                slot.group(1).equals("headline") ? headline : text));
            filled.put(key, template.of(words));
          });
      return filled;
    }
  }

  public AlarmPlan {
    ways = List.copyOf(ways);
  }

  /**
   * Reads a document: {@code quiet: PT15M}, {@code digest: { at: "08:00", zone: Europe/Lisbon }}
   * and {@code ways}, a list of {@code in: system/collection} with {@code fields}, whose texts may
   * have the slots {@code {headline}} and {@code {text}}.
   *
   * @throws org.ysthmos.core.document.DocumentException with all that is wrong, each at its place
   */
  public static AlarmPlan read(String document, Shapes shapes) {
    DocumentNode root = DocumentNode.parse(document).only("quiet", "digest", "ways");
    Duration quiet = root.get("quiet").map(AlarmPlan::span).orElse(USUAL_QUIET);
    Problems problems = new Problems();
    Optional<Digest> digest = root.get("digest").flatMap(node -> problems.part(() -> digest(node)));
    List<Way> ways =
        root.need("ways").list().stream()
            .flatMap(node -> problems.part(() -> way(node, shapes)).stream())
            .toList();
    problems.refuse();
    return new AlarmPlan(quiet, ways, digest);
  }

  private static Digest digest(DocumentNode node) {
    node.only("at", "zone");
    DocumentNode at = node.need("at");
    DocumentNode zone = node.need("zone");
    try {
      return new Digest(LocalTime.parse(at.text()), ZoneId.of(zone.text()));
    } catch (DateTimeParseException e) {
      throw at.refuse("“" + at.text() + "” is no time of day; write 08:00");
    } catch (DateTimeException e) {
      throw zone.refuse("“" + zone.text() + "” is no time zone; write one such as Europe/Lisbon");
    }
  }

  private static Duration span(DocumentNode node) {
    try {
      Duration span = Duration.parse(node.text());
      if (span.isNegative()) {
        throw node.refuse("no time is shorter than none");
      }
      return span;
    } catch (DateTimeParseException e) {
      throw node.refuse("“" + node.text() + "” is no span of time; write PT15M or PT1H");
    }
  }

  private static Way way(DocumentNode node, Shapes shapes) {
    node.only("in", "fields");
    DocumentNode in = node.need("in");
    String[] parts = in.text().split("/", -1);
    if (parts.length != 2) {
      throw in.refuse("write a system and its collection, such as garden-chat/messages");
    }
    CollectionShape shape =
        shapes.find(parts[0], parts[1]).orElseThrow(() -> unknown(in, parts, shapes));
    if (shape.abilities().filter(CollectionShape.Abilities::makes).isEmpty()) {
      throw in.refuse("nothing can be made in “" + in.text() + "”");
    }
    return new Way(parts[0], parts[1], fields(node.need("fields"), shape.written()));
  }

  private static RuntimeException unknown(DocumentNode in, String[] parts, Shapes shapes) {
    return shapes.collections(parts[0]).isEmpty()
        ? in.refuse(Nearest.unknown("system", parts[0], shapes.systems()))
        : in.refuse(Nearest.unknown("collection", parts[1], shapes.collections(parts[0])));
  }

  private static SequencedMap<String, Template> fields(DocumentNode node, CollectionShape shape) {
    Problems problems = new Problems();
    SequencedMap<String, Template> fields = new LinkedHashMap<>();
    node.group()
        .forEach(
            (key, value) ->
                problems
                    .part(() -> template(value, key, shape))
                    .ifPresent(template -> fields.put(key, template)));
    for (FieldShape field : shape.fields()) {
      if (field.required() && !node.group().containsKey(field.key())) {
        problems.add(node.problem("“" + field.key() + "” is missing here, and it is required"));
      }
    }
    problems.refuse();
    return Collections.unmodifiableSequencedMap(fields);
  }

  private static Template template(DocumentNode value, String key, CollectionShape shape) {
    Optional<FieldShape> field = shape.field(key);
    if (field.isEmpty()) {
      throw value.refuse(
          Nearest.unknown("field", key, shape.fields().stream().map(FieldShape::key).toList()));
    }
    ValueType type = field.get().type();
    boolean choice = type.equals(ValueType.CHOICE);
    if (choice && !field.get().names().isEmpty()) {
      String chosen = value.text();
      if (!field.get().names().containsKey(chosen)) {
        throw value.refuse(Nearest.unknown("choice", chosen, field.get().names().keySet()));
      }
    } else if (!choice && !type.equals(ValueType.TEXT) && !type.equals(TEXTS)) {
      throw value.refuse(
          "a field of a message is a text, a choice or a list of texts; this one is a " + type);
    }
    Matcher slot = SLOT.matcher(value.text());
    while (slot.find()) {
      if (!SLOTS.contains(slot.group(1))) {
        throw value.refuse(Nearest.unknown("slot", slot.group(1), SLOTS));
      }
    }
    return new Template(type, value.text());
  }
}
