package org.ysthmos.app;

import java.io.ByteArrayOutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;

/**
 * Files of cells and of calendars that are odd or broken, each in a way of its own and with random
 * contents by a seed. Each holds at least one record or something that was meant to be one; the ids
 * of its records begin with {@code o}, its number and a hyphen.
 */
final class OddFiles {

  private static final List<String> CELLS =
      List.of(
          "plain",
          "quoted",
          "marked",
          "utf-16",
          "windows-1252",
          "semicolons",
          "tabs",
          "blank lines",
          "old line ends",
          "no last end",
          "header twice",
          "row too short",
          "row too long",
          "quote unclosed",
          "no id",
          "controls",
          "cell too large",
          "bytes of no kind");
  private static final List<String> CALENDARS =
      List.of(
          "plain",
          "folded",
          "cut",
          "floating",
          "zone unknown",
          "zone described",
          "one day of a series",
          "no uid",
          "bad date",
          "no calendar",
          "two calendars",
          "alarm and unknown",
          "events and tasks",
          "controls",
          "summary too large");

  /** How many ways there are. */
  static int kinds() {
    return CELLS.size() + CALENDARS.size();
  }

  /**
   * One file.
   *
   * @param kind in which way it is odd
   */
  record Odd(String name, String kind, byte[] bytes) {}

  private final int number;
  private final Random random;
  private int records;

  private OddFiles(int number, Random random) {
    this.number = number;
    this.random = random;
  }

  static Odd of(int number, Random random) {
    int kind = number % kinds();
    OddFiles file = new OddFiles(number, random);
    return kind < CELLS.size()
        ? new Odd("odd-%03d.csv".formatted(number), CELLS.get(kind), file.cells(CELLS.get(kind)))
        : new Odd(
            "odd-%03d.ics".formatted(number),
            CALENDARS.get(kind - CELLS.size()),
            file.calendar(CALENDARS.get(kind - CELLS.size())).getBytes(StandardCharsets.UTF_8));
  }

  private String id() {
    return "o" + number + "-" + records++;
  }

  private String words() {
    List<String> words = List.of("Rake", "ferns", "à beira-mar", "Łódź", "日本", "🌱", "a;b", "x");
    StringBuilder text = new StringBuilder("Job");
    for (int i = random.nextInt(3); i >= 0; i--) {
      text.append(' ').append(words.get(random.nextInt(words.size())));
    }
    return text.toString();
  }

  private String rows(String separator, String end) {
    StringBuilder rows = new StringBuilder("id" + separator + "what" + end);
    for (int i = random.nextInt(3); i >= 0; i--) {
      rows.append(id()).append(separator).append('"').append(words()).append('"').append(end);
    }
    return rows.toString();
  }

  private byte[] cells(String kind) {
    String plain = rows(",", "\r\n");
    String text =
        switch (kind) {
          case "quoted" -> plain + id() + ",\"two\r\nlines, and a \"\"quote\"\"\"\r\n";
          case "marked" -> "\uFEFF" + plain;
          case "semicolons" -> rows(";", "\r\n");
          case "tabs" -> rows("\t", "\n");
          case "blank lines" -> plain.replace("\r\n", "\r\n\r\n,\r\n");
          case "old line ends" -> rows(",", "\r");
          case "no last end" -> plain.strip();
          case "header twice" -> plain.replaceFirst("what", "id");
          case "row too short" -> plain + id() + "\r\n";
          case "row too long" -> plain + id() + ",a,b,c\r\n";
          case "quote unclosed" -> plain + id() + ",\"never ends\r\n";
          case "no id" -> plain + ",nobody\r\n";
          case "controls" -> plain + id() + ",\"a\u0007b\u0001c\u001f\"\r\n";
          case "cell too large" -> plain + id() + "," + "x".repeat(1_100_000) + "\r\n";
          default -> plain;
        };
    Charset charset =
        switch (kind) {
          case "utf-16" -> StandardCharsets.UTF_16;
          case "windows-1252" -> Charset.forName("windows-1252");
          default -> StandardCharsets.UTF_8;
        };
    byte[] bytes = text.getBytes(charset);
    return kind.equals("bytes of no kind") ? broken(bytes) : bytes;
  }

  /** With bytes that are nothing in UTF-8 nor in Windows-1252. */
  private byte[] broken(byte[] bytes) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.writeBytes(bytes);
    for (int i = 0; i < 20; i++) {
      out.write(List.of(0x81, 0x8d, 0x8f, 0x90, 0x9d, random.nextInt(256)).get(random.nextInt(6)));
      out.write(0x81);
    }
    return out.toByteArray();
  }

  private String event(String... lines) {
    return eventOf(id(), lines);
  }

  private String eventOf(String uid, String... lines) {
    return "BEGIN:VEVENT\nUID:%s\nDTSTAMP:20261101T000000Z\nSUMMARY:%s\n%s\nEND:VEVENT\n"
        .formatted(uid, words().replace(";", "\\;"), String.join("\n", lines));
  }

  private static String whole(String inside) {
    return "BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//Odd//EN\n" + inside + "END:VCALENDAR\n";
  }

  private String calendar(String kind) {
    String starts = "DTSTART:202612%02dT080000Z".formatted(1 + random.nextInt(28));
    String plain = event(starts);
    String text =
        switch (kind) {
          case "folded" -> whole(event(starts, "DESCRIPTION:fol\n ded ov\n er lines"));
          case "cut" -> whole(plain + event(starts)).replaceFirst("(?s)END:VEVENT\nEND:VCAL.*", "");
          case "floating" -> whole(event("DTSTART:20261201T080000"));
          case "zone unknown" -> whole(event("DTSTART;TZID=Nowhere:20261201T080000"));
          case "zone described" ->
              whole(
                  "BEGIN:VTIMEZONE\nTZID:Garden\nBEGIN:STANDARD\nDTSTART:20200101T000000\n"
                      + "TZOFFSETFROM:+0100\nTZOFFSETTO:+0100\nEND:STANDARD\nEND:VTIMEZONE\n"
                      + event("DTSTART;TZID=Garden:20261201T080000"));
          case "one day of a series" -> {
            String uid = id();
            yield whole(
                eventOf(uid, "RECURRENCE-ID:20261208T080000Z", "DTSTART:20261208T100000Z")
                    + eventOf(uid, "DTSTART:20261201T080000Z", "RRULE:FREQ=WEEKLY"));
          }
          case "no uid" -> whole(plain.replaceFirst("UID:[^\n]*\n", ""));
          case "bad date" -> whole(event("DTSTART:2026-13-45"));
          case "no calendar" -> plain;
          case "two calendars" -> whole(plain) + whole(event(starts));
          case "alarm and unknown" ->
              whole(
                  event(
                      starts,
                      "X-ODD;X-P=\"a:b\":1",
                      "BEGIN:VALARM\nACTION:DISPLAY\nTRIGGER:-PT5M\nDESCRIPTION:d\nEND:VALARM"));
          case "events and tasks" ->
              whole(
                  plain
                      + "BEGIN:VTODO\nUID:%s\nDTSTAMP:20261101T000000Z\nSUMMARY:Task\nEND:VTODO\n"
                          .formatted(id()));
          case "controls" -> whole(event(starts, "DESCRIPTION:a\u0007b\u0001c"));
          case "summary too large" -> whole(event(starts, "DESCRIPTION:" + "y".repeat(1_100_000)));
          default -> whole(plain);
        };
    return text.replace("\n", "\r\n");
  }
}
