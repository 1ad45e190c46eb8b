package org.ysthmos.core.rule;

import java.util.List;
import java.util.Optional;
import org.ysthmos.core.condition.Condition;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.Template;

/** Where a rule starts from. */
public sealed interface Source {

  /** One source field. */
  record Field(Address address) implements Source {}

  /** A text with slots, each filled by a source field. */
  record SlottedText(Template template) implements Source {}

  /** A list of texts with slots; a text whose slots are all blank is left out. */
  record SlottedTexts(List<Template> templates) implements Source {
    public SlottedTexts {
      templates = List.copyOf(templates);
    }
  }

  /** The same value for every event, written as the type that is wanted reads it. */
  record Always(List<String> written, boolean isList) implements Source {
    public Always {
      written = List.copyOf(written);
    }
  }

  /** The first rule whose condition is met; nothing if none is. */
  record Cases(List<Case> cases, Optional<ValueRule> otherwise) implements Source {
    public Cases {
      cases = List.copyOf(cases);
    }
  }

  /** A rule and the condition under which it counts. */
  record Case(Condition when, ValueRule then) {}

  /**
   * A rule for each record of a list, giving a list.
   *
   * @param in the list of records
   * @param where which records count
   * @param item the rule, which may name the fields of the record in hand
   */
  record Each(Address in, Condition where, ValueRule item) implements Source {}
}
