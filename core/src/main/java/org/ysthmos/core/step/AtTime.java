package org.ysthmos.core.step;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.util.List;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/**
 * Makes a moment of a day by a stated time in a stated zone; the only way from day to moment.
 *
 * <p>Where clocks went forward over the time, the moment is as much later as they went forward,
 * with a warning, unless that would be another day: then it is a problem, since a day is never
 * moved silently. Where clocks went back over it, the earlier of the two moments is taken, with a
 * warning.
 */
public record AtTime(LocalTime time, ZoneId zone) implements Step {

  static final StepKind KIND =
      new StepKind(
          "at",
          "Makes a moment of a day: the stated time in the stated zone.",
          "at: { time: \"17:00\", zone: Europe/Lisbon }",
          AtTime::read);

  private static Step read(DocumentNode node) {
    node.only("time", "zone");
    DocumentNode time = node.need("time");
    DocumentNode zone = node.need("zone");
    try {
      return new AtTime(LocalTime.parse(time.text()), ZoneId.of(zone.text()));
    } catch (DateTimeParseException e) {
      throw time.refuse("“" + time.text() + "” is no time of day; write for example \"17:00\"");
    } catch (DateTimeException e) {
      throw zone.refuse(
          "“" + zone.text() + "” is no IANA time zone; write for example Europe/Lisbon");
    }
  }

  @Override
  public String sentence() {
    return "at " + time + " in " + placeName(zone);
  }

  /** The last part of a zone's name, as people say it: {@code Lisbon} for {@code Europe/Lisbon}. */
  public static String placeName(ZoneId zone) {
    String id = zone.getId();
    return id.substring(id.lastIndexOf('/') + 1).replace('_', ' ');
  }

  @Override
  public Typing typing(ValueType in) {
    return Typing.of(ValueType.DAY, in, ValueType.MOMENT, "read it as a day first (read-day)");
  }

  @Override
  public Function compile() {
    return in -> at(((Day) in).date());
  }

  private Computed at(LocalDate date) {
    LocalDateTime wanted = date.atTime(time);
    List<ZoneOffset> offsets = zone.getRules().getValidOffsets(wanted);
    if (offsets.size() == 1) {
      return Moment.of(wanted.toInstant(offsets.getFirst()));
    }
    Moment moment = Moment.of(wanted.atZone(zone).toInstant());
    if (!offsets.isEmpty()) {
      return new Warned(
          moment,
          "%s happened twice on %s in %s, clocks went back; the earlier is used"
              .formatted(time, date, placeName(zone)));
    }
    LocalDateTime shown = LocalDateTime.ofInstant(moment.instant(), zone);
    if (!shown.toLocalDate().equals(date)) {
      return new Problem(
          "%s at %s does not exist in %s: clocks skipped it".formatted(date, time, placeName(zone)),
          date.toString(),
          "State another time or zone for this field, then send again");
    }
    return new Warned(
        moment,
        "%s did not exist on %s in %s, clocks went forward; %s is used"
            .formatted(time, date, placeName(zone), shown.toLocalTime()));
  }
}
