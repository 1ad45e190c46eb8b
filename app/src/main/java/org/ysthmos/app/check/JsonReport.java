package org.ysthmos.app.check;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.PrintStream;
import java.util.List;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.DecisionJson;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.table.TableTally;
import org.ysthmos.core.trial.PinnedExample;

/** The results as JSON, one object a line. */
final class JsonReport implements CheckReport {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private final PrintStream out;
  private final TableTally tally = new TableTally();

  JsonReport(PrintStream out) {
    this.out = out;
  }

  @Override
  public void bridge(BridgeVersion bridge) {
    ObjectNode line = JSON.objectNode().put("bridge", bridge.definition().id());
    ArrayNode remarks = line.putArray("remarks");
    bridge.remarks().forEach(remark -> remarks.add(remark.toString()));
    out.println(line);
  }

  @Override
  public void decided(Event event, Decision decision) {
    decision.tableUses().forEach(tally::add);
    ObjectNode line = JSON.objectNode().put("event", event.id()).put("record", event.record());
    line.set("decision", DecisionJson.write(decision));
    out.println(line);
  }

  @Override
  public void notHeard(Event event, String because) {
    out.println(
        JSON.objectNode()
            .put("event", event.id())
            .put("record", event.record())
            .put("notHeard", because));
  }

  @Override
  public void example(PinnedExample example, List<PinnedExample.Difference> differences) {
    ObjectNode line = JSON.objectNode().put("example", example.name());
    line.put("holds", differences.isEmpty());
    ArrayNode all = line.putArray("differences");
    for (PinnedExample.Difference difference : differences) {
      all.addObject()
          .put("what", difference.what())
          .put("expected", difference.expected())
          .put("found", difference.found());
    }
    out.println(line);
  }

  @Override
  public void end() {
    for (TableTally.Counted unknown : tally.unknown()) {
      ObjectNode line = JSON.objectNode().put("unknownKeyOf", unknown.table());
      unknown.keys().forEach(line.putArray("keys")::add);
      out.println(line.put("times", unknown.times()));
    }
  }
}
