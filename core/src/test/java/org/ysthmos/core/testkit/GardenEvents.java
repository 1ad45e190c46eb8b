package org.ysthmos.core.testkit;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.trial.TrialWorld;

/** For each bridge of the {@link Garden} an event that it carries, and ways to break it. */
public final class GardenEvents {

  private static final Map<String, Event> SOUND =
      Map.of(
          "hazard-to-grounds", HazardReports.event("vd-1"),
          "seedling-to-ledger",
              event(
                  "garden-chat/reactions",
                  "{'reaction':'seedling','channel':'c','ts':'1','author':'rui'}"),
          "school-mail-to-lanes",
              event(
                  "post-room/mails",
                  "{'id':'m','folder':'school-visits','subject':'s','html':'<p>x','flagged':true,"
                      + "'received':'2026-11-27T23:30:00Z'}"),
          "document-to-review",
              event(
                  "leaf-library/plant-records",
                  "{'path':'/records/a.pdf','revision':1,'kind':'note','approved':'yes',"
                      + "'link':'https://l.example/a'}"),
          "pledge-to-follow-up",
              event(
                  "friends-register/pledges",
                  "{'number':'1','steward':'olive@tidewrack.example','donor':'d','amount':'5',"
                      + "'on':'2026-11-24'}"),
          "ticket-to-job",
              event(
                  "climate-desk/tickets",
                  "{'number':1,'subject':'s','description':'Fault code: f','status':'open',"
                      + "'was':{'status':'new'},'requester':'u'}"),
          "exhibition-to-preparations",
              event("exhibitions/programme", "{'id':'x','title':'t','opens':'2026-12-24'}"),
          "rooms-to-jobs",
              event(
                  "exhibitions/programme",
                  "{'id':'x','title':'t','rooms':[{'id':'r','name':'n','size':3}]}"),
          "crews-to-jobs",
              event("exhibitions/programme", "{'id':'x','title':'t','crews':['a','b']}"));

  private static Event event(String source, String data) {
    return Garden.event(source, "changed", "r", data.replace('\'', '"'));
  }

  /** In which the lookups of those events find something. */
  public static TrialWorld world() {
    TrialWorld world = Garden.world();
    ObjectNode report = HazardReports.report(Map.of());
    report.put("id", "vd-1");
    world.add("visitor-desk", "hazard-reports", report);
    world.receive(
        Garden.event(
            "garden-chat/messages",
            "posted",
            "m",
            "{\"channel\":\"c\",\"ts\":\"1\",\"author\":\"rui\",\"text\":\"Sow\","
                + "\"at\":\"2026-11-24T08:00:00Z\"}"));
    return world;
  }

  private GardenEvents() {}

  /** An event that the bridge carries. */
  public static Event sound(String bridge) {
    return Objects.requireNonNull(SOUND.get(bridge), bridge);
  }

  /** The event with some of its data replaced, dropped or put elsewhere. */
  public static Event broken(Event sound, Seeds seeds) {
    ObjectNode data = sound.data().deepCopy();
    List<String> keys = new ArrayList<>();
    data.fieldNames().forEachRemaining(keys::add);
    for (String key : keys) {
      switch (seeds.below(6)) {
        case 0 -> data.put(key, seeds.text());
        case 1 -> data.set(key, seeds.json(3));
        case 2 -> data.remove(key);
        default -> {}
      }
    }
    return new Event(
        sound.id(),
        sound.system(),
        sound.collection(),
        sound.kind(),
        sound.record(),
        sound.time(),
        seeds.below(20) == 0 ? seeds.json(3) : data);
  }
}
