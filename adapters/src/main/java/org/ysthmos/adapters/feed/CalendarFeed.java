package org.ysthmos.adapters.feed;

import biweekly.Biweekly;
import biweekly.ICalVersion;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import biweekly.property.ProductId;
import biweekly.property.Transparency;
import biweekly.property.Uid;
import java.time.Duration;
import java.time.Instant;
import java.util.Date;
import java.util.List;

/** A calendar as RFC 5545 writes it, for programs that subscribe to it. */
public final class CalendarFeed {

  private static final String MADE_BY = "-//Ysthmos//What is to come//EN";

  /** After this a program is to read it again (RFC 7986 section 5.7). */
  public static final Duration REFRESHED = Duration.ofHours(1);

  /**
   * Something that is to come.
   *
   * @param uid what it stays, however often the calendar is read
   * @param at when; it takes no time, and keeps nobody busy
   * @param page where people read of it
   */
  public record Entry(String uid, Instant at, String title, String about, String page) {}

  private CalendarFeed() {}

  /**
   * @param name what people call the calendar
   * @param now when it is written
   */
  public static String write(String name, List<Entry> entries, Instant now) {
    ICalendar calendar = new ICalendar();
    calendar.setVersion(ICalVersion.V2_0);
    calendar.setProductId(new ProductId(MADE_BY));
    calendar.setName(name);
    calendar.setExperimentalProperty("X-WR-CALNAME", name);
    calendar.setRefreshInterval(
        biweekly.util.Duration.builder().hours((int) REFRESHED.toHours()).build());
    for (Entry entry : entries) {
      VEvent event = new VEvent();
      event.setUid(new Uid(entry.uid()));
      event.setDateTimeStamp(Date.from(now));
      event.setDateStart(Date.from(entry.at()), /* hasTime= */ true);
      event.setSummary(entry.title());
      event.setDescription(entry.about());
      event.setUrl(entry.page());
      event.setTransparency(Transparency.transparent());
      calendar.addEvent(event);
    }
    return Biweekly.write(calendar).go();
  }
}
