package org.ysthmos.core.rule;

import java.util.List;

/** Where a field rule starts from. */
public sealed interface Source {

  /** One source field. */
  record Field(Address address) implements Source {}

  /** A text with slots, each filled by a source field. */
  record SlotText(Template template) implements Source {}

  /** A list of texts with slots; a text whose slots are all empty is left out. */
  record SlotTexts(List<Template> templates) implements Source {

    public SlotTexts {
      templates = List.copyOf(templates);
    }
  }

  /** The same value for every event, written as the target field's type reads it. */
  record Always(List<String> written, boolean isList) implements Source {

    public Always {
      written = List.copyOf(written);
    }
  }
}
