package org.ysthmos.core.document;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/** Gathers what is wrong with the parts of a document, so that all of it is told at once. */
public final class Problems {

  private final List<DocumentProblem> found = new ArrayList<>();

  /** Reads a part; what is wrong with it is kept, and the others go on. */
  public <T> Optional<T> part(Supplier<T> read) {
    try {
      return Optional.of(read.get());
    } catch (DocumentException refused) {
      found.addAll(refused.problems());
      return Optional.empty();
    }
  }

  public void add(DocumentProblem problem) {
    found.add(problem);
  }

  /**
   * @throws DocumentException if anything was wrong, with all of it in the order of the lines
   */
  public void refuse() {
    if (!found.isEmpty()) {
      throw new DocumentException(
          found.stream()
              .distinct()
              .sorted(
                  Comparator.comparingInt(DocumentProblem::line)
                      .thenComparingInt(DocumentProblem::column))
              .toList());
    }
  }
}
