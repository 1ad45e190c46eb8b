package org.ysthmos.core.bridge;

import java.util.List;
import java.util.Optional;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.rule.CompiledValue;

/** How many tasks come of one event, made into functions. */
public sealed interface CompiledPlan {

  /**
   * One task.
   *
   * @param changed the id of the record that is changed, where none is made
   */
  record One(List<CompiledField> fields, Optional<BoundField> changed) implements CompiledPlan {
    public One {
      fields = List.copyOf(fields);
    }
  }

  /** A task for each record of a list. */
  record EachRecord(BoundField list, BoundField key, List<CompiledField> fields)
      implements CompiledPlan {
    public EachRecord {
      fields = List.copyOf(fields);
    }
  }

  /** A task for each value of a list. */
  record EachValue(CompiledValue list, List<CompiledField> fields) implements CompiledPlan {
    public EachValue {
      fields = List.copyOf(fields);
    }
  }

  /** Several tasks around an anchor day. */
  record Set(CompiledValue anchor, Optional<TaskPlan.NoAnchor> noAnchor, List<Member> members)
      implements CompiledPlan {
    public Set {
      members = List.copyOf(members);
    }
  }

  /** One task of a set, parents before children. */
  record Member(TaskPlan.Member rule, List<CompiledField> fields) {
    public Member {
      fields = List.copyOf(fields);
    }
  }

  /** All field rules, for showing. */
  default List<CompiledField> allFields() {
    return switch (this) {
      case One one -> one.fields();
      case EachRecord each -> each.fields();
      case EachValue each -> each.fields();
      case Set set -> set.members().stream().flatMap(m -> m.fields().stream()).toList();
    };
  }
}
