package org.ysthmos.bench;

import java.net.URI;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Map;
import java.util.Objects;
import org.apache.commons.jexl3.JexlBuilder;
import org.apache.commons.jexl3.JexlScript;
import org.apache.commons.jexl3.MapContext;
import org.apache.commons.jexl3.introspection.JexlPermissions;

/**
 * The mapping as a script of Apache Commons JEXL, a general-purpose expression library, over the
 * event as maps and lists. Dates in a zone, tables and hashes are Java functions given to it; the
 * rest is one script, parsed once.
 */
public final class WithExpressions {

  private static final String MAPPING =
      """
      var severity = ticket.severity.strip();
      if (!(ticket.status == "open" || ticket.status == "reopened") || severity < 2) {
        return {:};
      }
      var description = ticket.description;
      var rest = description.substring(description.indexOf("Fault code:") + 11);
      var labels = [...];
      for (var label : ticket.labels.split(",")) {
        var stripped = label.strip();
        if (!labels.contains(stripped)) { labels.add(stripped); }
      }
      var readings = [...];
      for (var reading : ticket.readings) {
        readings.add(reading.probe + ": " + reading.degrees);
      }
      {
        "key": fn.keyOf(ticket.number),
        "title": fn.shortened((ticket.place.house + ": " + ticket.subject).strip()),
        "summary": ticket.subject.strip().toUpperCase(),
        "fault": rest.substring(0, rest.indexOf("\\n")).strip(),
        "due": fn.dueOf(ticket.seenOn),
        "visit": fn.dayOf(ticket.visit),
        "priority": severity >= 8 ? 1 : severity >= 5 ? 3 : 6,
        "owner": fn.ownerOf(ticket.requester.mail),
        "status": fn.areaOf(ticket.area),
        "labels": labels,
        "link": fn.linkOf(ticket.form),
        "readings": readings,
        "notes": "Reported by " + ticket.requester.name + "\\nBench: " + ticket.place.bench + "\\nChannel: " + ticket.channel
      }
      """;

  /** What the script is given; the library calls it by name. */
  public static final class Functions {

    public String keyOf(String number) {
      return HandWritten.sha256(
          HandWritten.sha256("climate-ticket\ntext:" + number.length() + ":" + number) + "\ntask");
    }

    public String shortened(String title) {
      return title.length() > 120 ? title.substring(0, 119) + "…" : title;
    }

    public Instant dueOf(String seenOn) {
      return HandWritten.dueOf(seenOn);
    }

    public LocalDate dayOf(String day) {
      return LocalDate.parse(day);
    }

    public String ownerOf(String mail) {
      return HandWritten.owner(mail);
    }

    public String areaOf(String area) {
      return TicketMapping.AREAS.getOrDefault(area, "general");
    }

    public URI linkOf(String address) {
      return URI.create(address);
    }
  }

  private final JexlScript script;
  private final Functions functions = new Functions();

  WithExpressions() {
    script =
        new JexlBuilder()
            .permissions(JexlPermissions.UNRESTRICTED)
            .cache(64)
            .strict(true)
            .create()
            .createScript(MAPPING);
  }

  Map<?, ?> decide(Map<?, ?> ticket) {
    MapContext context = new MapContext();
    context.set("ticket", ticket);
    context.set("fn", functions);
    return (Map<?, ?>) Objects.requireNonNull(script.execute(context));
  }
}
