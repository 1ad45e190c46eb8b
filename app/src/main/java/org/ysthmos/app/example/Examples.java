package org.ysthmos.app.example;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.time.Instant;
import java.util.Iterator;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.ysthmos.app.example.ExampleMapper.ExampleRow;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.time.Ids;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.trial.PinnedExample;
import org.ysthmos.core.trial.PinnedExample.Difference;

/** The pinned examples of the bridges. */
@Component
public class Examples {

  /** How many examples a bridge may have; all are decided each time it goes live. */
  static final int MOST = 500;

  /**
   * An example with what a version makes of it.
   *
   * @param differences what is other than expected; none if it holds
   */
  public record Checked(String id, PinnedExample example, List<Difference> differences) {
    public boolean holds() {
      return differences.isEmpty();
    }
  }

  private final ExampleMapper mapper;
  private final ObjectMapper json;
  private final AppClock clock;

  Examples(ExampleMapper mapper, ObjectMapper json, AppClock clock) {
    this.mapper = mapper;
    this.json = json;
    this.clock = clock;
  }

  /** Adds examples to a bridge, all or none. */
  @Transactional
  public void add(String bridge, List<PinnedExample> examples) {
    if (mapper.of(bridge).size() + examples.size() > MOST) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Too many examples",
          "A bridge has at most " + MOST + " pinned examples. Remove some first.");
    }
    Instant now = clock.instant();
    // Those that are added together keep their order, which is that of their ids.
    Iterator<String> ids =
        examples.stream().map(example -> Ids.at(now)).sorted().toList().iterator();
    for (PinnedExample example : examples) {
      mapper.add(new ExampleRow(ids.next(), bridge, example.write().toString(), now));
    }
  }

  public boolean any(String bridge) {
    return !mapper.of(bridge).isEmpty();
  }

  /** All examples of a bridge, decided by a version, in the order in which they were pinned. */
  public List<Checked> check(String bridge, BridgeVersion version, World world) {
    return mapper.of(bridge).stream()
        .map(
            row -> {
              PinnedExample example = read(row.document());
              return new Checked(row.id(), example, example.check(example.decide(version, world)));
            })
        .toList();
  }

  /** Takes what a version makes of the examples that do not hold as what is expected from now. */
  @Transactional
  public void accept(String bridge, BridgeVersion version, World world) {
    for (Checked checked : check(bridge, version, world)) {
      if (!checked.holds()) {
        PinnedExample example = checked.example();
        PinnedExample fresh =
            PinnedExample.pin(
                example.name(),
                example.event(),
                example.decide(version, world),
                version,
                example.answersOfThen(world));
        mapper.change(checked.id(), fresh.write().toString());
      }
    }
  }

  /** The examples of a bridge as NDJSON, as the check command reads them. */
  public String ndjson(String bridge) {
    StringBuilder lines = new StringBuilder();
    mapper.of(bridge).forEach(row -> lines.append(row.document()).append('\n'));
    return lines.toString();
  }

  /** Puts examples in the place of all that a bridge has. */
  @Transactional
  public void replace(String bridge, List<PinnedExample> examples) {
    mapper.of(bridge).forEach(row -> mapper.remove(bridge, row.id()));
    add(bridge, examples);
  }

  public void remove(String bridge, String id) {
    if (mapper.remove(bridge, id) == 0) {
      throw ApiProblem.notFound("example", id);
    }
  }

  private PinnedExample read(String document) {
    try {
      return PinnedExample.read(json.readTree(document));
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("an example was kept that cannot be read", e);
    }
  }
}
