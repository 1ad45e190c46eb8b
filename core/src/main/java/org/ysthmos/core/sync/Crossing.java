package org.ysthmos.core.sync;

import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;

/** What a value of one side is on the other. */
public sealed interface Crossing {

  record Becomes(Value value) implements Crossing {}

  /** It is nothing over there, on purpose: the other side keeps what it has. */
  record Stays(String because) implements Crossing {}

  /** It cannot be said yet: what it names is not on the other side so far. */
  record Waits(String because) implements Crossing {}

  /** It cannot be computed. */
  record Fails(Problem problem) implements Crossing {}
}
