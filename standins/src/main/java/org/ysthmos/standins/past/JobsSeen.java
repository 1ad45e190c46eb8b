package org.ysthmos.standins.past;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.util.Collection;
import java.util.Map;
import java.util.TreeMap;

/** The jobs of the ledger as they stand, read on from where they were read last. */
final class JobsSeen {

  private final Map<String, JsonNode> jobs = new TreeMap<>();
  private String cursor = "0";

  /** All of them by now, in the order of their numbers. */
  Collection<JsonNode> read(Hands hands) throws IOException, InterruptedException {
    JsonNode page;
    do {
      page = hands.call("works-ledger", "GET", "/api/changes?after=" + cursor, "");
      page.path("changes").forEach(job -> jobs.put(job.path("id").asText(), job));
      cursor = page.path("cursor").asText(cursor);
    } while (page.has("more"));
    return jobs.values();
  }
}
