package org.ysthmos.bench;

import com.fasterxml.jackson.databind.JsonNode;
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
import java.util.List;
import java.util.Locale;

/**
 * The demo's first bridge as someone would write it by hand for this one form and this one board:
 * the same reads, checks, texts, date and keys, and nothing else.
 */
final class HandWritten {

  record Task(
      String key,
      String title,
      String lane,
      Instant due,
      int priority,
      List<String> assignees,
      String notes,
      List<String> checklist) {}

  private static final ZoneId LISBON = ZoneId.of("Europe/Lisbon");
  private static final LocalTime FIVE = LocalTime.of(17, 0);

  private final DateTimeFormatter day =
      new DateTimeFormatterBuilder()
          .parseCaseInsensitive()
          .appendPattern("d MMMM uuuu")
          .toFormatter(Locale.ENGLISH)
          .withResolverStyle(ResolverStyle.STRICT);

  Task decide(JsonNode event, JsonNode report) {
    String submission = event.path("submission").asText();
    JsonNode answers = report.path("answers");
    String place = answers.path("place").asText();
    int danger = Integer.parseInt(answers.path("danger").asText().strip());
    if (place.isBlank() || danger < 2 || submission.isBlank()) {
      throw new IllegalArgumentException("passed by");
    }
    String title = (place + ": " + answers.path("problem").asText()).strip();
    if (title.length() > 120) {
      title = title.substring(0, 119) + "…";
    }
    String seenOn = answers.path("seenOn").asText();
    Instant due =
        LocalDate.parse(seenOn.strip(), day).plusDays(7).atTime(FIVE).atZone(LISBON).toInstant();
    int priority = danger >= 8 && danger <= 10 ? 1 : danger >= 5 ? 3 : 6;
    String mail = answers.path("mail").asText();
    String photo = answers.path("photo").asText();
    StringBuilder notes = new StringBuilder("Sent in by ").append(mail);
    notes.append("\nReport ").append(submission).append(", seen on ").append(seenOn);
    if (!photo.isBlank()) {
      notes.append("\nPhoto: ").append(photo);
    }
    List<String> checklist = new ArrayList<>(3);
    checklist.add("Make the place safe");
    checklist.add("Repair it");
    checklist.add("Tell " + mail);
    String key = sha256(sha256("hazard-to-grounds\ntext:8:" + submission) + "\ntask");
    return new Task(
        key, title, "reported", due, priority, List.of("bu-11"), notes.toString(), checklist);
  }

  private static String sha256(String text) {
    try {
      return HexFormat.of()
          .formatHex(
              MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8)));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
