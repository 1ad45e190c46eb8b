package org.ysthmos.core.sync;

import java.util.List;

/** What becomes of a pair of which one task is gone. */
public sealed interface GoneOutcome {

  record Close(Side side) implements GoneOutcome {}

  record Delete(Side side) implements GoneOutcome {}

  /** The two are a pair no more. */
  record Part() implements GoneOutcome {}

  record MakeAgain(Side side) implements GoneOutcome {}

  /**
   * A person says, as something would be lost.
   *
   * @param fields what was changed in the task that is left
   */
  record Ask(String because, List<String> fields) implements GoneOutcome {}
}
