package org.ysthmos.app.pair;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.decide.World;

/** Finds the tasks that bridges made of records, each with its id, its link and that record. */
@Component
public class MadeTasks {

  private final Pairs pairs;
  private final Systems systems;

  MadeTasks(Pairs pairs, Systems systems) {
    this.pairs = pairs;
    this.systems = systems;
  }

  /**
   * @param question asks among tasks: its collection is the bridge
   */
  public World.Found find(World.Question question) {
    List<JsonNode> tasks = new ArrayList<>();
    for (PairMapper.TaskRow task : rows(question)) {
      String id = task.targetRecord();
      ObjectNode record =
          JsonNodeFactory.instance.objectNode().put("id", id).put("record", task.sourceRecord());
      systems
          .page(task.targetSystem(), task.targetCollection(), id)
          .ifPresent(page -> record.put("link", page.toString()));
      tasks.add(record);
    }
    return new World.Found(tasks);
  }

  private List<PairMapper.TaskRow> rows(World.Question question) {
    String bridge = question.collection();
    Map<String, String> keys = question.keys();
    String task = keys.get(LookupRule.TASK);
    return task == null
        ? pairs.tasksOf(
            bridge,
            keys.getOrDefault(LookupRule.RECORD, ""),
            Optional.ofNullable(keys.get(LookupRule.PART)))
        : pairs.task(bridge, task);
  }
}
