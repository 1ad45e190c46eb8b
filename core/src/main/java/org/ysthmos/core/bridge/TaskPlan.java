package org.ysthmos.core.bridge;

import java.time.Period;
import java.util.List;
import java.util.Optional;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.rule.FieldRule;
import org.ysthmos.core.rule.ValueRule;

/** How many tasks come of one event. */
public sealed interface TaskPlan {

  /** One task. */
  record One() implements TaskPlan {}

  /**
   * A task for each item of a list. Rules name the item as {@code item/value}, or its fields as
   * {@code item/…} where the list is one of records.
   *
   * @param list the list: a list of records as it stands, or a rule that gives a list of values
   * @param key for records, the field that tells one from another; empty for values, which are
   *     their own key
   */
  record ForEach(ValueRule list, Optional<Address> key) implements TaskPlan {}

  /**
   * Several tasks around an anchor day, each at its own offset. They are made only if none of them
   * exists for the match key; a changed anchor moves those that nobody has touched.
   *
   * @param noAnchor what becomes of them when their anchor is taken away; empty if an event without
   *     one fails
   */
  record TaskSet(ValueRule anchor, Optional<NoAnchor> noAnchor, List<Member> members)
      implements TaskPlan {
    public TaskSet {
      members = List.copyOf(members);
    }
  }

  /** What becomes of the tasks of a set that nobody has touched, when the anchor is taken away. */
  enum NoAnchor {
    LEAVE,
    /** They hold from then on what their system says of a closed task. */
    CLOSE,
    REMOVE
  }

  /**
   * One task of a set.
   *
   * @param name tells it from the others, for good: it is part of the task's match key
   * @param parent the name of the member under which it stands
   * @param fields rules of this task, over those of all
   */
  record Member(String name, Offset offset, Optional<String> parent, List<FieldRule> fields) {
    public Member {
      fields = List.copyOf(fields);
    }
  }

  /** How far from the anchor day. */
  sealed interface Offset {}

  /** So far on the calendar; negative for before. */
  record ByPeriod(Period period) implements Offset {}

  /**
   * So many working days; negative for before.
   *
   * @param calendars at least one; a day counts if it is a working day in each of them
   */
  record ByWorkingDays(int days, List<String> calendars) implements Offset {
    public ByWorkingDays {
      calendars = List.copyOf(calendars);
    }
  }
}
