package org.ysthmos.app.installation;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.OptionalInt;
import java.util.TreeMap;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import org.ysthmos.app.YsthmosApplication;
import org.ysthmos.app.command.CommandLine;
import org.ysthmos.app.command.Refused;
import org.ysthmos.app.command.Running;
import org.ysthmos.app.problem.ApiProblem;

/** An installation as a command reaches it: the one that runs, or one that is opened at rest. */
interface Reached extends AutoCloseable {

  Map<String, String> documents() throws IOException, InterruptedException;

  Plan plan(Map<String, String> folder) throws IOException, InterruptedException;

  Plan apply(Map<String, String> folder, String plan) throws IOException, InterruptedException;

  @Override
  void close();

  /** That of a data folder. */
  static Reached of(CommandLine line) {
    OptionalInt port = line.port();
    return port.isPresent() ? new Remote(new Running(port.getAsInt())) : AtHand.open(line.data());
  }

  /** One that runs. */
  record Remote(Running running) implements Reached {

    private static final JsonMapper JSON = new JsonMapper();
    private static final String PATH = "/api/installation";

    @Override
    public Map<String, String> documents() throws IOException, InterruptedException {
      Map<String, String> documents = new TreeMap<>();
      running
          .ask("GET", PATH, null)
          .path("documents")
          .properties()
          .forEach(one -> documents.put(one.getKey(), one.getValue().asText()));
      return documents;
    }

    @Override
    public Plan plan(Map<String, String> folder) throws IOException, InterruptedException {
      return read(running.ask("POST", PATH + "/plan", body(folder)));
    }

    @Override
    public Plan apply(Map<String, String> folder, String plan)
        throws IOException, InterruptedException {
      return read(running.ask("POST", PATH + "/apply", body(folder).put("plan", plan)));
    }

    private static ObjectNode body(Map<String, String> folder) {
      return JSON.createObjectNode().set("documents", JSON.valueToTree(folder));
    }

    private static Plan read(JsonNode answer) throws JsonProcessingException {
      return JSON.treeToValue(answer, Plan.class);
    }

    @Override
    public void close() {
      // It goes on.
    }
  }

  /** One that does not run; nothing is carried across while it is open. */
  record AtHand(ConfigurableApplicationContext context) implements Reached {

    static AtHand open(Path data) {
      if (!Files.exists(data.resolve("ysthmos.mv.db"))) {
        throw new Refused("Nothing is kept in " + data + ". Say with --data where it is.");
      }
      try {
        return new AtHand(
            new SpringApplicationBuilder(YsthmosApplication.class)
                .run(
                    "--ysthmos.at-rest=true",
                    "--ysthmos.data=" + data,
                    "--server.port=0",
                    "--logging.level.root=off",
                    "--logging.level.org.ysthmos=off"));
      } catch (RuntimeException e) {
        throw new Refused(data + " cannot be opened: " + cause(e), e);
      }
    }

    private static String cause(Throwable why) {
      Throwable cause = why;
      while (cause.getCause() != null) {
        cause = cause.getCause();
      }
      return String.valueOf(cause.getMessage());
    }

    private Installation installation() {
      return context.getBean(Installation.class);
    }

    @Override
    public Map<String, String> documents() {
      return installation().documents();
    }

    @Override
    public Plan plan(Map<String, String> folder) {
      return installation().plan(folder);
    }

    @Override
    public Plan apply(Map<String, String> folder, String plan) {
      try {
        return installation().apply(folder, plan);
      } catch (ApiProblem refused) {
        throw new Refused(String.valueOf(refused.getBody().getDetail()), refused);
      }
    }

    @Override
    public void close() {
      context.close();
    }
  }
}
