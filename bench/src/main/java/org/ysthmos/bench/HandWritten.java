package org.ysthmos.bench;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.ResolverStyle;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * The mapping as someone would write it by hand for this one desk and this one ledger: the same
 * reads, checks, texts, dates, tables and keys, and nothing else.
 */
final class HandWritten {

  record Job(
      String key,
      String title,
      String summary,
      String fault,
      Instant due,
      LocalDate visit,
      int priority,
      String owner,
      String status,
      List<String> labels,
      URI link,
      List<String> readings,
      String notes) {}

  private static final ZoneId LISBON = ZoneId.of("Europe/Lisbon");
  private static final LocalTime FIVE = LocalTime.of(17, 0);
  private static final String FAULT = "Fault code:";

  private static final DateTimeFormatter DAY =
      new DateTimeFormatterBuilder()
          .parseCaseInsensitive()
          .appendPattern("d MMMM uuuu")
          .toFormatter(Locale.ENGLISH)
          .withResolverStyle(ResolverStyle.STRICT);

  Job decide(JsonNode ticket) {
    String number = ticket.path("number").asText();
    String status = ticket.path("status").asText();
    int severity = Integer.parseInt(ticket.path("severity").asText().strip());
    if (number.isBlank() || severity < 2 || !(status.equals("open") || status.equals("reopened"))) {
      throw new IllegalArgumentException("passed by");
    }
    JsonNode place = ticket.path("place");
    JsonNode requester = ticket.path("requester");
    String subject = ticket.path("subject").asText();
    String title = (place.path("house").asText() + ": " + subject).strip();
    if (title.length() > 120) {
      title = title.substring(0, 119) + "…";
    }
    String description = ticket.path("description").asText();
    int at = description.indexOf(FAULT);
    if (at < 0) {
      throw new IllegalArgumentException("no fault code");
    }
    int end = description.indexOf('\n', at);
    String fault =
        description.substring(at + FAULT.length(), end < 0 ? description.length() : end).strip();
    String key =
        sha256(sha256("climate-ticket\ntext:" + number.length() + ":" + number) + "\ntask");
    return new Job(
        key,
        title,
        subject.strip().toUpperCase(Locale.ENGLISH),
        fault,
        dueOf(ticket.path("seenOn").asText()),
        LocalDate.parse(ticket.path("visit").asText()),
        severity >= 8 && severity <= 10 ? 1 : severity >= 5 ? 3 : 6,
        owner(requester.path("mail").asText()),
        TicketMapping.AREAS.getOrDefault(ticket.path("area").asText(), "general"),
        labels(ticket.path("labels").asText()),
        URI.create(ticket.path("form").asText()),
        readings(ticket.path("readings")),
        notes(
            requester.path("name").asText(),
            place.path("bench").asText(),
            ticket.path("channel").asText()));
  }

  static Instant dueOf(String seenOn) {
    return LocalDate.parse(seenOn.strip(), DAY).plusDays(7).atTime(FIVE).atZone(LISBON).toInstant();
  }

  static String owner(String mail) {
    String owner = TicketMapping.STEWARDS.get(mail.toLowerCase(Locale.ROOT));
    if (owner == null) {
      throw new IllegalArgumentException("unknown steward " + mail);
    }
    return owner;
  }

  private static List<String> labels(String written) {
    Set<String> labels = new LinkedHashSet<>();
    for (String label : written.split(",", -1)) {
      String stripped = label.strip();
      if (!stripped.isEmpty()) {
        labels.add(stripped);
      }
    }
    return List.copyOf(labels);
  }

  private static List<String> readings(JsonNode readings) {
    List<String> texts = new ArrayList<>(readings.size());
    for (JsonNode reading : readings) {
      texts.add(
          reading.path("probe").asText()
              + ": "
              + reading.path("degrees").decimalValue().stripTrailingZeros().toPlainString());
    }
    return texts;
  }

  private static String notes(String name, String bench, String channel) {
    StringBuilder notes = new StringBuilder();
    if (!name.isBlank()) {
      notes.append("Reported by ").append(name);
    }
    if (!bench.isBlank()) {
      notes.append(notes.isEmpty() ? "" : "\n").append("Bench: ").append(bench);
    }
    if (!channel.isBlank()) {
      notes.append(notes.isEmpty() ? "" : "\n").append("Channel: ").append(channel);
    }
    return notes.toString();
  }

  static String sha256(String text) {
    try {
      return HexFormat.of()
          .formatHex(
              MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8)));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
