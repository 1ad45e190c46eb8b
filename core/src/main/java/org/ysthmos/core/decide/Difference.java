package org.ysthmos.core.decide;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.sync.FieldOutcome;
import org.ysthmos.core.sync.Side;

/**
 * In what two tasks that should be alike are not, told by what a look at both would come to.
 *
 * @param side where something is to be done, or where the task is missing; empty if on both or if
 *     that is not known
 * @param fields the names of the fields, in the order of the document
 * @param because why it cannot be told, or what comes of a task that is gone; may be empty
 */
public record Difference(Kind kind, Optional<Side> side, List<String> fields, String because) {

  public Difference {
    fields = List.copyOf(fields);
  }

  /** The kinds of difference. */
  public enum Kind {
    /** Something changed on a side and was not carried to the other. */
    NOT_CARRIED,
    /** A task of one side was never made on the other. */
    NOT_MADE,
    /** Two tasks without another one that may be the same. */
    MAY_BE_ONE,
    /** The task of one side is gone. */
    GONE,
    /** A field changed apart on both sides, and a person is to be asked. */
    APART,
    /**
     * Both were changed to the same, and that is not what they agreed on last: the next change of
     * one would be taken for one of both.
     */
    NOT_NOTED,
    /** It cannot be told. */
    UNCLEAR
  }

  /**
   * @param look what was asked for
   * @param decision what that would come to
   * @return empty if nothing would come of it
   */
  public static Optional<Difference> of(Look look, Decision decision) {
    Optional<Synced> synced = decision.synced();
    if (look.meets().isPresent() && synced.isPresent()) {
      return Optional.of(
          new Difference(Kind.MAY_BE_ONE, Optional.empty(), apart(synced.get()), ""));
    }
    if (decision.verdict() == Verdict.FAILED) {
      return failed(look, decision.failures().getFirst());
    }
    if (synced.isEmpty()) {
      return Optional.empty();
    }
    if (synced.get().parted().isPresent()) {
      return Optional.of(
          new Difference(Kind.GONE, look.gone(), List.of(), synced.get().parted().get()));
    }
    List<TaskDecision> written =
        decision.tasks().stream().filter(task -> task.delivery().isPresent()).toList();
    if (written.isEmpty()) {
      return unwritten(synced.get());
    }
    Optional<Side> to =
        written.size() == 1
            ? Optional.of(Synced.sideOf(written.getFirst().member()))
            : Optional.empty();
    boolean makes = written.getFirst().target().isEmpty();
    return Optional.of(
        makes
            ? new Difference(Kind.NOT_MADE, to, List.of(), "")
            : new Difference(Kind.NOT_CARRIED, to, carried(synced.get()), ""));
  }

  private static Optional<Difference> unwritten(Synced synced) {
    if (!synced.conflicts().isEmpty()) {
      return Optional.of(new Difference(Kind.APART, Optional.empty(), apart(synced), ""));
    }
    List<String> adopted =
        synced.outcomes().stream()
            .filter(FieldOutcome.Adopted.class::isInstance)
            .map(FieldOutcome::field)
            .toList();
    return adopted.isEmpty()
        ? Optional.empty()
        : Optional.of(new Difference(Kind.NOT_NOTED, Optional.empty(), adopted, ""));
  }

  private static Optional<Difference> failed(Look look, Failure first) {
    boolean gone = first.code().filter(SyncGone.SIDE_GONE::equals).isPresent();
    if (!gone && first.kind() == FailureKind.LOOKUP_EMPTY) {
      // It was there when it was listed, nothing was made of it, and it is gone by now.
      return Optional.empty();
    }
    return Optional.of(
        new Difference(
            gone ? Kind.GONE : Kind.UNCLEAR,
            gone ? look.gone() : Optional.empty(),
            List.of(),
            first.message()));
  }

  private static List<String> apart(Synced synced) {
    return synced.conflicts().stream().map(Synced.Disagreement::field).toList();
  }

  private static List<String> carried(Synced synced) {
    List<String> fields = new ArrayList<>();
    for (FieldOutcome outcome : synced.outcomes()) {
      switch (outcome) {
        case FieldOutcome.Carried carried -> fields.add(carried.field());
        case FieldOutcome.Merged merged -> fields.add(merged.field());
        default -> {}
      }
    }
    return fields;
  }
}
