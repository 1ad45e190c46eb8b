package org.ysthmos.app.sync;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.TextNode;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.sync.SyncedMapper.DisagreementRow;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.Look;
import org.ysthmos.core.sync.Answer;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;

/** Fields on which two sides disagree, and what a person says of them. */
@Component
public class Disagreements {

  private final SyncedMapper mapper;
  private final SyncedLooks looks;
  private final Bridges bridges;
  private final TraceQueue queue;
  private final Journal journal;
  private final ObjectMapper json;

  Disagreements(
      SyncedMapper mapper,
      SyncedLooks looks,
      Bridges bridges,
      TraceQueue queue,
      Journal journal,
      ObjectMapper json) {
    this.mapper = mapper;
    this.looks = looks;
    this.bridges = bridges;
    this.queue = queue;
    this.journal = journal;
    this.json = json;
  }

  /** How many wait for a person. */
  public int open() {
    return mapper.countOpen();
  }

  /** The field as its bridge has it; empty if the bridge is not live, or has it no more. */
  Optional<CompiledTwoWay.Field> field(DisagreementRow row) {
    return bridges
        .live(row.bridgeId())
        .flatMap(live -> live.version().between())
        .flatMap(
            both ->
                both.fields().stream()
                    .filter(field -> field.rule().name().equals(row.field()))
                    .findFirst());
  }

  /**
   * What was typed, as the left side says it.
   *
   * @throws ApiProblem if it does not read as a value of the field
   */
  Value typed(DisagreementRow row, String text) {
    CompiledTwoWay.Field field =
        field(row).orElseThrow(() -> refused("Its bridge is not live, or has the field no more."));
    var read = field.at().left().valueOf(TextNode.valueOf(text));
    if (read instanceof Problem problem) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST,
          "Not a value of this field",
          "“%s”: %s.".formatted(text, problem.message()));
    }
    return (Value) read;
  }

  /**
   * Takes what a person says; both tasks are looked at again with it, and it is carried out unless
   * they agree by then.
   *
   * @return the id of the trace that carries it out
   * @throws ApiProblem if it was answered already, or cannot be carried out
   */
  String answer(DisagreementRow row, Answer answer, By by) {
    String trace =
        journal.now(
            () -> {
              if (mapper.answer(row.id(), AnswerJson.write(answer, json), by.name()) == 0) {
                throw refused("Somebody answered it already.");
              }
              return looks
                  .look(
                      row.bridgeId(),
                      row.pairHash(),
                      Look.PLAIN,
                      "answer " + row.id(),
                      "A %s said what is right in “%s”".formatted(by.name(), row.field()))
                  .orElseThrow(() -> refused("Its bridge is not live any more."));
            });
    queue.raise();
    return trace;
  }

  private static ApiProblem refused(String detail) {
    return new ApiProblem(HttpStatus.CONFLICT, "Not done", detail);
  }
}
