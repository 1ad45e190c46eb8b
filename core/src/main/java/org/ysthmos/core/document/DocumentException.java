package org.ysthmos.core.document;

import java.util.List;
import java.util.stream.Collectors;

/** A document that cannot be used, with every problem found in it. */
public final class DocumentException extends RuntimeException {

  private final transient List<DocumentProblem> problems;

  public DocumentException(List<DocumentProblem> problems) {
    super(problems.stream().map(DocumentProblem::toString).collect(Collectors.joining("; ")));
    this.problems = List.copyOf(problems);
  }

  public List<DocumentProblem> problems() {
    return problems;
  }
}
