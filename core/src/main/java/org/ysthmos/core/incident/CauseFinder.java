package org.ysthmos.core.incident;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.ysthmos.core.incident.Conclusion.Finding;

/**
 * Finds what most likely causes an incident. Pure: the same evidence comes to the same conclusion.
 * Each cause is weighed by itself, with what speaks for it and against it; the heaviest leads. Two
 * that weigh about the same cannot be told apart by what is known, and the conclusion says so, with
 * the one look that would.
 */
public final class CauseFinder {

  /** Closer than this, evidence does not tell two causes apart. */
  private static final int TOLD_APART = 3;

  private CauseFinder() {}

  /** What the evidence comes to. */
  public static Conclusion conclude(Evidence evidence) {
    List<Finding> found =
        weighed(evidence)
            .flatMap(weighing -> weighing.finding(evidence.name()).stream())
            .sorted(
                Comparator.comparingInt(Finding::weight).reversed().thenComparing(Finding::cause))
            .toList();
    if (found.isEmpty()) {
      Weighing nothing = new Weighing(Cause.UNKNOWN);
      nothing.because(
          1,
          evidence
              .hold()
              .map(hold -> hold.because() + ".")
              .orElse("None of what is known explains it."));
      return new Conclusion(nothing.finding(evidence.name()).stream().toList(), Optional.empty());
    }
    return new Conclusion(found, look(found));
  }

  private static Stream<Weighing> weighed(Evidence evidence) {
    return switch (evidence.key().family()) {
      case REFUSED -> RefusedCauses.weigh(evidence);
      case AWAY -> AwayCauses.weigh(evidence);
      case ALIKE -> AlikeCauses.weigh(evidence);
      case HELD -> HeldCauses.weigh(evidence);
      case RHYTHM -> RhythmCauses.weigh(evidence);
    };
  }

  /** The look that tells the first from the second: what would clear or prove the first. */
  private static Optional<String> look(List<Finding> found) {
    if (found.size() < 2 || found.get(0).weight() - found.get(1).weight() >= TOLD_APART) {
      return Optional.empty();
    }
    return Optional.of(found.getFirst().cause().look());
  }
}
