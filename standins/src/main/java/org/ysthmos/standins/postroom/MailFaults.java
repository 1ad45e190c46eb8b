package org.ysthmos.standins.postroom;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.ysthmos.standins.http.Refusal;
import org.ysthmos.standins.http.Switches;

/** What can go wrong with a mail server. */
final class MailFaults implements Switches {

  private static final Map<String, String> KINDS =
      new TreeMap<>(
          Map.of(
              "down", "The mail server is down",
              "token-expired", "The password is not good any more",
              "uids-renewed", "The folders are made anew: other UIDs for the same mails"));

  private final PostRoom room;
  private final Set<String> on = new LinkedHashSet<>();

  MailFaults(PostRoom room) {
    this.room = room;
  }

  @Override
  public synchronized void add(JsonNode wish) {
    String kind = wish.path("kind").asText();
    switch (kind) {
      case "down" -> room.down();
      case "token-expired" -> room.lockOut();
      case "uids-renewed" -> room.renewFolders();
      default -> throw Refusal.ofField("kind", "no fault is called " + kind);
    }
    if (!kind.equals("uids-renewed")) {
      on.add(kind);
    }
  }

  @Override
  public synchronized void clear() {
    room.recover();
    on.clear();
  }

  @Override
  public synchronized ObjectNode list() {
    ObjectNode list = JsonNodeFactory.instance.objectNode();
    var kinds = list.putArray("kinds");
    KINDS.forEach((kind, title) -> kinds.addObject().put("kind", kind).put("title", title));
    var active = list.putArray("on");
    on.forEach(kind -> active.addObject().put("kind", kind));
    return list;
  }
}
