package org.ysthmos.core.recurrence;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.Function;
import org.ysthmos.core.document.DocumentNode;

/**
 * A recurrence as documents state it: {@code { rule: FREQ=WEEKLY;BYDAY=SU, zone: Europe/Lisbon,
 * start: 2026-11-29T03:00 }}. In place of a rule there may be words, such as {@code every fourth
 * Friday}; what is written is always a rule.
 */
public final class RecurrenceDocument {

  private static final String RULE = "rule";
  private static final String ZONE = "zone";
  private static final String START = "start";
  private static final String LAST = "last";
  private static final String WITHOUT = "without";
  private static final String ALSO = "also";
  private static final String OFF_DAYS = "off-days";
  private static final String CALENDAR = "calendar";

  private RecurrenceDocument() {}

  /**
   * @throws org.ysthmos.core.document.DocumentException if it cannot be read
   */
  public static Recurrence read(DocumentNode node) {
    Recurrence read = readAny(node);
    if (read.offDays() != OffDays.KEEP && read.calendar().isEmpty()) {
      throw node.get(OFF_DAYS)
          .orElseGet(() -> node.need(RULE))
          .refuse("say which days are working days: calendar: the id of a calendar");
    }
    return read;
  }

  /**
   * The same for what asks no calendar, so that it cannot tell working days.
   *
   * @param what is read, for example {@code a check}
   * @throws org.ysthmos.core.document.DocumentException if it cannot be read
   */
  public static Recurrence readWithoutCalendar(DocumentNode node, String what) {
    Recurrence read = readAny(node);
    if (read.offDays() != OffDays.KEEP || read.calendar().isPresent()) {
      throw node.refuse(what + " asks no calendar; leave out what it says of working days");
    }
    return read;
  }

  private static Recurrence readAny(DocumentNode node) {
    node.only(RULE, ZONE, START, LAST, WITHOUT, ALSO, OFF_DAYS, CALENDAR);
    RuleWords.Said said = node.need(RULE).parsed(RuleWords::read);
    LocalDateTime start = time(node.need(START));
    OffDays offDays =
        node.get(OFF_DAYS).map(word -> word.word(OffDays.class)).orElse(said.offDays());
    Optional<String> calendar = node.get(CALENDAR).map(DocumentNode::id);
    return new Recurrence(
        Optional.of(said.rule()),
        timed(node.need(ZONE), ZoneId::of, "write a zone such as Europe/Lisbon"),
        said.at().map(start.toLocalDate()::atTime).orElse(start),
        node.get(LAST).map(day -> timed(day, LocalDate::parse, "write a day as 2026-12-24")),
        times(node.get(WITHOUT)),
        times(node.get(ALSO)),
        offDays,
        calendar);
  }

  private static SortedSet<LocalDateTime> times(Optional<DocumentNode> node) {
    List<DocumentNode> listed = node.map(DocumentNode::list).orElse(List.of());
    SortedSet<LocalDateTime> times = new TreeSet<>();
    listed.forEach(one -> times.add(time(one)));
    return times;
  }

  private static LocalDateTime time(DocumentNode node) {
    return timed(node, LocalDateTime::parse, "write a time as 2026-12-24T06:00");
  }

  private static <T> T timed(DocumentNode node, Function<String, T> parse, String remedy) {
    try {
      return parse.apply(node.text());
    } catch (DateTimeException e) {
      throw node.refuse("“" + node.text() + "” is none; " + remedy);
    }
  }

  /** Reading it gives the same. */
  public static SequencedMap<String, Object> write(Recurrence recurrence) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    written.put(RULE, recurrence.rule().orElseThrow().toString());
    written.put(ZONE, recurrence.zone().getId());
    written.put(START, recurrence.start().toString());
    recurrence.last().ifPresent(day -> written.put(LAST, day.toString()));
    if (!recurrence.without().isEmpty()) {
      written.put(WITHOUT, recurrence.without().stream().map(LocalDateTime::toString).toList());
    }
    if (!recurrence.also().isEmpty()) {
      written.put(ALSO, recurrence.also().stream().map(LocalDateTime::toString).toList());
    }
    if (recurrence.offDays() != OffDays.KEEP) {
      written.put(OFF_DAYS, DocumentNode.wordOf(recurrence.offDays()));
    }
    recurrence.calendar().ifPresent(id -> written.put(CALENDAR, id));
    return written;
  }
}
