package org.ysthmos.bench;

import static com.dashjoin.jsonata.Jsonata.jsonata;

import com.dashjoin.jsonata.Jsonata;
import java.time.LocalDate;
import java.util.Map;
import java.util.Objects;

/**
 * The mapping in JSONata, a general-purpose query and transformation language for JSON, as its Java
 * library runs it. Dates in a zone, tables and hashes are Java functions given to it; the rest is
 * one expression, parsed once.
 */
final class WithExpressions {

  private static final String MAPPING =
      """
      (
        $trim := function($s) { $replace($replace($s, /^\\s+/, ""), /\\s+$/, "") };
        $severity := $number($trim(severity));
        (status in ["open", "reopened"] and $severity >= 2) ? {
          "key": $keyOf(number),
          "title": $substring($trim(place.house & ": " & subject), 0, 120),
          "summary": $uppercase($trim(subject)),
          "fault": $trim($split($substringAfter(description, "Fault code:"), "\\n")[0]),
          "due": $dueOf(seenOn),
          "visit": $dayOf(visit),
          "priority": $severity >= 8 ? 1 : $severity >= 5 ? 3 : 6,
          "owner": $ownerOf(requester.mail),
          "status": $areaOf(area),
          "labels": $distinct($map($split(labels, ","), $trim)),
          "link": form,
          "readings": readings.(probe & ": " & $string(degrees)),
          "notes": $join(["Reported by " & requester.name, "Bench: " & place.bench, "Channel: " & channel], "\\n")
        } : {}
      )
      """;

  private final Jsonata expression;

  WithExpressions() {
    expression = jsonata(MAPPING);
    expression.registerFunction("keyOf", (String number) -> keyOf(number));
    expression.registerFunction("dueOf", (String seenOn) -> HandWritten.dueOf(seenOn).toString());
    expression.registerFunction("dayOf", (String day) -> LocalDate.parse(day).toString());
    expression.registerFunction("ownerOf", (String mail) -> HandWritten.owner(mail));
    expression.registerFunction(
        "areaOf", (String area) -> TicketMapping.AREAS.getOrDefault(area, "general"));
  }

  private static String keyOf(String number) {
    return HandWritten.sha256(
        HandWritten.sha256("climate-ticket\ntext:" + number.length() + ":" + number) + "\ntask");
  }

  Map<?, ?> decide(Map<?, ?> ticket) {
    return (Map<?, ?>) Objects.requireNonNull(expression.evaluate(ticket));
  }
}
