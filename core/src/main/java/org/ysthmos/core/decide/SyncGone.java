package org.ysthmos.core.decide;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.bridge.TwoWay;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.sync.GoneOutcome;
import org.ysthmos.core.sync.Reconciler;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.sync.TaskNow;
import org.ysthmos.core.sync.WhenGone;
import org.ysthmos.core.value.Value;

/** What becomes of a pair of which one task is gone. */
final class SyncGone {

  private static final String REMOVED = "removed";

  /** The code of a failure that says so. */
  static final String SIDE_GONE = "side-gone";

  /** How long word of a removal may be on its way; common practice, no source. */
  private static final Duration WORD_OF_REMOVAL = Duration.ofMinutes(2);

  sealed interface Outcome {}

  /**
   * The two are a pair no more.
   *
   * @param last what is still written to the task that is left
   */
  record Parts(String why, Optional<TaskDecision> last) implements Outcome {}

  /** It is made again, of the one that is left. */
  record MadeAgain() implements Outcome {}

  /** It waits, or a person says. */
  record Fails(Failure failure) implements Outcome {}

  private final CompiledTwoWay both;
  private final Event event;
  private final World world;
  private final SyncTasks tasks;

  SyncGone(CompiledTwoWay both, Event event, World world, SyncTasks tasks) {
    this.both = both;
    this.event = event;
    this.world = world;
    this.tasks = tasks;
  }

  /**
   * @param gone the side that lacks its task
   * @param remaining the task of the other
   * @param tag the entity tag with which that was read
   */
  Outcome of(World.SyncedPair pair, Side gone, TaskNow remaining, Optional<String> tag) {
    boolean told = isTold(gone, both, event);
    TwoWay.Place place = both.place(gone).rule();
    if (!told && place.events().contains(REMOVED) && world.waits(event, WORD_OF_REMOVAL)) {
      return new Fails(
          Failure.of(
              FailureKind.NOT_YET_THERE,
              named(pair, gone) + " is not found, and word of its removal is waited for"));
    }
    // What is only not found may be there under another address; what was told is gone.
    GoneOutcome outcome = outcome(pair, gone, remaining, told ? place.whenGone() : WhenGone.ASK);
    return switch (outcome) {
      case GoneOutcome.Part part -> new Parts(removed(gone), Optional.empty());
      case GoneOutcome.Close close -> close(pair, gone, tag);
      // Who says that it is gone has been asked: the one that is left stays as it is.
      case GoneOutcome.Ask ask when isSaid(gone, event) ->
          new Parts(removed(gone), Optional.empty());
      case GoneOutcome.Ask ask -> asked(pair, gone, ask.because());
      case GoneOutcome.Delete delete -> delete(pair, gone, tag);
      case GoneOutcome.MakeAgain again -> new MadeAgain();
    };
  }

  /** Whether an event tells that the task of a side was removed, or a person says so. */
  static boolean isTold(Side gone, CompiledTwoWay both, Event event) {
    return isSaid(gone, event) || (both.from() == gone && event.kind().equals(REMOVED));
  }

  private static boolean isSaid(Side gone, Event event) {
    return Look.of(event).gone().equals(Optional.of(gone));
  }

  private GoneOutcome outcome(World.SyncedPair pair, Side gone, TaskNow remaining, WhenGone when) {
    CompiledTwoWay.Within within =
        new CompiledTwoWay.Within(
            Reading.of(event, world),
            Chain.Warnings.NONE,
            new SyncPartners(pair.key().bridge(), world));
    return new Reconciler(both.fields().stream().map(field -> field.synced(within)).toList())
        .gone(pair.agreed(), gone, remaining, when);
  }

  private Outcome close(World.SyncedPair pair, Side gone, Optional<String> tag) {
    Side there = gone.across();
    TwoWay.Place place = both.place(there).rule();
    Map<String, Value> closing = world.closing(place.system(), place.collection());
    return closing.isEmpty()
        ? asked(pair, gone, "nothing says how a task there is closed (closed)")
        : new Parts(
            removed(gone),
            Optional.of(
                tasks.task(
                    pair.key(),
                    there,
                    pair.records().of(there),
                    closing,
                    new LinkedHashMap<>(closing),
                    tag)));
  }

  private Outcome delete(World.SyncedPair pair, Side gone, Optional<String> tag) {
    Side there = gone.across();
    TwoWay.Place place = both.place(there).rule();
    return world.removes(place.system(), place.collection())
        ? new Parts(
            removed(gone),
            Optional.of(
                tasks.removal(pair.key(), there, pair.records().of(there).orElseThrow(), tag)))
        : asked(pair, gone, "nothing says how a task there is taken away (remove)");
  }

  private String removed(Side gone) {
    return "its task at " + both.place(gone).shape().systemName() + " was removed";
  }

  private String named(World.SyncedPair pair, Side side) {
    return "%s %s of %s"
        .formatted(
            both.place(side).shape().recordWord(),
            pair.records().of(side).orElse(""),
            both.place(side).shape().systemName());
  }

  private Outcome asked(World.SyncedPair pair, Side gone, String because) {
    return new Fails(
        Failure.of(FailureKind.NOT_FOUND, named(pair, gone) + " is not there any more: " + because)
            .withCode(SIDE_GONE)
            .withRemedy("Part the two on Pairs, so that the one that is left goes on by itself"));
  }
}
