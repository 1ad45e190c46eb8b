package org.ysthmos.app.incident;

import java.time.Instant;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.incident.AlarmPlan;

/** Who is told of incidents, as a document that people can change. */
@Component
public class Alarms {

  private static final Logger LOG = LoggerFactory.getLogger(Alarms.class);

  private final AlarmMapper mapper;
  private final Systems systems;
  private final Journal journal;
  private final AppClock clock;

  Alarms(AlarmMapper mapper, Systems systems, Journal journal, AppClock clock) {
    this.mapper = mapper;
    this.systems = systems;
    this.journal = journal;
    this.clock = clock;
  }

  /** The document; empty if nobody is told. */
  public String document() {
    String document = mapper.document();
    return document == null ? "" : document;
  }

  /**
   * Who is told, by the document as it is.
   *
   * @throws DocumentException if the document does not fit the systems any more
   */
  AlarmPlan plan() {
    String document = document();
    return document.isBlank() ? AlarmPlan.NONE : AlarmPlan.read(document, systems);
  }

  /**
   * When the last digest was told, or the document changed if that was later. What was noted while
   * the clock was ahead counts no more: it would silence all digests until then.
   */
  Instant digestedAt(Instant now) {
    return Optional.ofNullable(mapper.digestedAt(now)).orElse(Instant.EPOCH);
  }

  /** A digest was told, or there was nothing to tell. */
  void digested(Instant now) {
    journal.run(() -> mapper.digested(now));
  }

  /**
   * From now on people are told by this document; nobody is if it is empty.
   *
   * @throws DocumentException if it cannot be used; nothing is kept then
   */
  void change(String document, By by) {
    if (!document.isBlank()) {
      AlarmPlan unused = AlarmPlan.read(document, systems);
    }
    journal.run(() -> keep(document, by));
  }

  /** The same of a document that was found to be usable; inside a change. */
  public void keep(String document, By by) {
    mapper.keep(document, clock.instant(), by.name());
  }

  /** Takes a document unless there is one. */
  public void addIfNew(String document) {
    if (mapper.document() == null) {
      AlarmPlan unused = AlarmPlan.read(document, systems);
      mapper.keep(document, clock.instant(), By.ENGINE.name());
      LOG.info("incidents are told of by a document of the setup");
    }
  }
}
