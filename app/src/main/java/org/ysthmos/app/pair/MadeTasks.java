package org.ysthmos.app.pair;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.decide.World;

/** Finds the tasks that bridges made of records, as records with an id and a link. */
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
    for (Pairs.Side task :
        pairs.tasksOf(
            question.collection(),
            question.keys().getOrDefault(LookupRule.RECORD, ""),
            Optional.ofNullable(question.keys().get(LookupRule.PART)))) {
      ObjectNode record = JsonNodeFactory.instance.objectNode().put("id", task.record());
      systems
          .page(task.system(), task.collection(), task.record())
          .ifPresent(page -> record.put("link", page.toString()));
      tasks.add(record);
    }
    return new World.Found(tasks);
  }
}
