package org.ysthmos.core.rehearsal;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.decide.World.PairState;
import org.ysthmos.core.decide.World.Question;
import org.ysthmos.core.event.Event;

/**
 * A bridge over events of the past, one after the other as they came. It has no effect; what it
 * would have made counts for the events that follow. What could not be carried out then is taken as
 * not carried out, whatever the rules give now, since nobody knows what its target would have said.
 * Not safe for several threads.
 */
public final class Rehearsal {

  /** Where the answers of lookups come from. */
  public enum Answers {
    /** From what is kept of then; what was not asked then is asked now. */
    OF_THEN,
    /** All are asked now. */
    OF_NOW
  }

  private final BridgeVersion bridge;
  private final Answers answers;
  private final PairChain chain;
  private final World world;
  private int made;

  /**
   * @param bridge one that goes one way
   * @param world asks lookups now, and knows of pairs that there were before the first event
   * @throws IllegalArgumentException if the bridge goes both ways: what its sides held then is not
   *     kept
   */
  public Rehearsal(BridgeVersion bridge, Answers answers, PairChain chain, World world) {
    if (bridge.between().isPresent()) {
      throw new IllegalArgumentException("a bridge that goes both ways is not rehearsed");
    }
    this.bridge = bridge;
    this.answers = answers;
    this.chain = chain;
    this.world = world;
  }

  /**
   * The next event.
   *
   * @param then what became of it; empty if the bridge did not hear it
   */
  public Rehearsed next(Event event, Optional<Then> then) {
    Map<Question, List<JsonNode>> found =
        answers == Answers.OF_THEN ? then.map(Then::answers).orElse(Map.of()) : Map.of();
    Decision decision =
        Decider.decide(bridge, event, new RehearsalWorld(then, found, chain, world), Mode.PLAIN);
    Outcome now = Outcome.afterwards(decision);
    Rehearsed rehearsed = Rehearsed.of(then, now);
    if (then.filter(Then::wasNotCarriedOut).isEmpty()) {
      Optional<Outcome> decided = then.flatMap(Then::decided);
      for (int i = 0; i < now.tasks().size(); i++) {
        if (decision.tasks().get(i).delivery().isPresent()) {
          carryOut(now.tasks().get(i), decided, rehearsed);
        }
      }
      decided.ifPresent(this::noteNotMade);
    }
    return rehearsed;
  }

  private void carryOut(Outcome.Task now, Optional<Outcome> decided, Rehearsed rehearsed) {
    Optional<Outcome.Task> then = decided.flatMap(outcome -> outcome.task(now.key()));
    if (then.isPresent() && rehearsed.fields().isEmpty()) {
      chain.putAsThen(then.get());
      return;
    }
    Optional<PairState> before = chain.find(now.key()).flatMap(PairChain.Known::state);
    chain.put(
        now.made(
            before.flatMap(PairState::target).or(now::target).orElseGet(() -> "new-" + ++made)));
  }

  /** A pair that was made then and is not made here is not there for what follows. */
  private void noteNotMade(Outcome then) {
    for (Outcome.Task task : then.tasks()) {
      if (task.verdict() == Verdict.CREATE && !chain.knows(task.key())) {
        chain.putNone(task.key());
      }
    }
  }
}
