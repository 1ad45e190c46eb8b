package org.ysthmos.core.rehearsal;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.decide.World.Question;

/**
 * What became of an event when it came.
 *
 * @param verdict what it came to in the end; a task that could not be written failed
 * @param decided what was decided of it, task by task; empty where that is not kept
 * @param answers what its lookups found; none where that is not kept
 */
public record Then(
    Verdict verdict, Optional<Outcome> decided, Map<Question, List<JsonNode>> answers) {

  /** Whether what was decided could not be carried out. */
  boolean wasNotCarriedOut() {
    return verdict == Verdict.FAILED
        && decided.filter(outcome -> outcome.verdict() != Verdict.FAILED).isPresent();
  }
}
