package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.table.TableUse;
import org.ysthmos.core.value.ValueJson;

/** Decisions as JSON, for the command line and for telling whether two are the same. */
public final class DecisionJson {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private DecisionJson() {}

  /** All of a decision but its explanation; equal decisions give equal bytes. */
  public static ObjectNode write(Decision decision) {
    ObjectNode node = JSON.objectNode();
    node.put("verdict", decision.verdict().words());
    decision.key().ifPresent(key -> node.put("matchKey", key.text()));
    if (!decision.because().isEmpty()) {
      node.put("because", decision.because());
    }
    ArrayNode tasks = node.putArray("tasks");
    decision.tasks().forEach(task -> tasks.add(task(task)));
    if (decision.tasks().isEmpty() && !decision.computed().isEmpty()) {
      node.set("computed", ValueJson.writeAll(decision.computed()));
    }
    ArrayNode failures = node.putArray("failures");
    decision.failures().forEach(failure -> failures.add(failure(failure)));
    ArrayNode warnings = node.putArray("warnings");
    for (Decision.Warning warning : decision.warnings()) {
      ObjectNode one = warnings.addObject();
      if (!warning.member().isEmpty()) {
        one.put("task", warning.member());
      }
      one.put("field", warning.field()).put("message", warning.message());
    }
    ArrayNode uses = node.putArray("tableUses");
    for (TableUse use : decision.tableUses()) {
      ObjectNode one = uses.addObject().put("table", use.table()).put("found", use.found());
      use.keys().forEach(one.putArray("keys")::add);
    }
    return node;
  }

  private static ObjectNode task(TaskDecision task) {
    ObjectNode node = JSON.objectNode();
    if (!task.member().isEmpty()) {
      node.put("task", task.member());
    }
    if (task.then()) {
      node.put("then", true);
    }
    node.put("verdict", task.verdict().words());
    if (!task.because().isEmpty()) {
      node.put("because", task.because());
    }
    node.set("fields", ValueJson.writeAll(task.fields()));
    task.delivery().ifPresent(delivery -> node.set("delivery", delivery(delivery)));
    return node;
  }

  private static ObjectNode delivery(PlannedDelivery delivery) {
    ObjectNode node = JSON.objectNode().put("idempotencyKey", delivery.idempotencyKey());
    node.put("to", delivery.system() + "/" + delivery.collection());
    delivery.record().ifPresent(record -> node.put("record", record));
    node.set("fields", ValueJson.writeAll(delivery.fields()));
    delivery.awaited().ifPresent(parent -> node.put("waitsFor", parent.key().text()));
    return node;
  }

  private static ObjectNode failure(Failure failure) {
    ObjectNode node = JSON.objectNode().put("kind", failure.kind().words());
    node.put("message", failure.message());
    failure.field().ifPresent(field -> node.put("field", field));
    failure.found().ifPresent(found -> node.put("found", found));
    failure.remedy().ifPresent(remedy -> node.put("remedy", remedy));
    return node;
  }
}
