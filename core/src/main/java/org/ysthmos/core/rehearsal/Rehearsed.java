package org.ysthmos.core.rehearsal;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.value.Value;

/**
 * An event of the past as it is decided in a rehearsal, beside what became of it.
 *
 * @param then what it came to; empty if the bridge did not hear it
 * @param because why it is passed by or fails now; empty otherwise
 * @param fields what its tasks hold otherwise
 */
public record Rehearsed(
    Optional<Verdict> then, Verdict now, String because, List<FieldDifference> fields) {

  /**
   * A field that is not as it was.
   *
   * @param member which of several tasks; empty where there is one
   * @param then nothing if the rules gave it no value, or did not name it
   */
  public record FieldDifference(String member, String field, Value then, Value now) {}

  public Rehearsed {
    fields = List.copyOf(fields);
  }

  /** Whether anything is other than it was. */
  public boolean differs() {
    return then.isEmpty() || then.get() != now || !fields.isEmpty();
  }

  /**
   * Fields are compared of tasks that there were then and are now; a task that there was only once
   * is told by the verdict.
   */
  static Rehearsed of(Optional<Then> then, Outcome now) {
    List<FieldDifference> fields = new ArrayList<>();
    List<Outcome.Task> before = then.flatMap(Then::decided).map(Outcome::tasks).orElse(List.of());
    for (Outcome.Task task : now.tasks()) {
      for (Outcome.Task other : before) {
        if (other.member().equals(task.member())) {
          fields.addAll(other.differences(task));
          break;
        }
      }
    }
    return new Rehearsed(then.map(Then::verdict), now.verdict(), now.because(), fields);
  }
}
