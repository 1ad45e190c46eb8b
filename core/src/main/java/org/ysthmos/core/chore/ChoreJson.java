package org.ysthmos.core.chore;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import org.ysthmos.core.recurrence.OffDays;
import org.ysthmos.core.recurrence.Recurrence;
import org.ysthmos.core.recurrence.RecurrenceRule;

/** Chores as they are kept, so that their times can be found without the rules they came from. */
public final class ChoreJson {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private ChoreJson() {}

  public static ObjectNode write(Chore chore) {
    Recurrence recurrence = chore.recurrence();
    ObjectNode node = JSON.objectNode();
    recurrence.rule().ifPresent(rule -> node.put("rule", rule.toString()));
    node.put("zone", recurrence.zone().getId()).put("start", recurrence.start().toString());
    recurrence.also().forEach(time -> node.withArray("also").add(time.toString()));
    node.put("offDays", recurrence.offDays().name());
    recurrence.calendar().ifPresent(id -> node.put("calendar", id));
    return node.put("lead", chore.lead().toString())
        .put("once", chore.once())
        .put("words", chore.words());
  }

  /** Reads what {@link #write} wrote. */
  public static Chore read(JsonNode node) {
    SortedSet<LocalDateTime> also = new TreeSet<>();
    node.path("also").forEach(time -> also.add(LocalDateTime.parse(time.asText())));
    Recurrence recurrence =
        new Recurrence(
            text(node, "rule").map(RecurrenceRule::parse),
            ZoneId.of(node.path("zone").asText()),
            LocalDateTime.parse(node.path("start").asText()),
            Optional.empty(),
            new TreeSet<>(),
            also,
            OffDays.valueOf(node.path("offDays").asText()),
            text(node, "calendar"));
    return new Chore(
        recurrence,
        Lead.read(node.path("lead").asText()),
        node.path("once").asBoolean(),
        node.path("words").asText());
  }

  private static Optional<String> text(JsonNode node, String key) {
    return Optional.ofNullable(node.get(key)).map(JsonNode::asText);
  }
}
