package org.ysthmos.core.step;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;

/** All kinds of step, by the key a bridge document uses. */
public final class StepKinds {

  public static final List<StepKind> ALL =
      List.of(
          Trim.KIND,
          Shorten.KIND,
          ReadDay.KIND,
          Move.KIND,
          AtTime.KIND,
          ReadNumber.KIND,
          Bands.KIND,
          IfNothing.KIND,
          Join.KIND);

  private static final SequencedMap<String, StepKind> BY_NAME = new LinkedHashMap<>();

  static {
    ALL.forEach(kind -> BY_NAME.put(kind.name(), kind));
  }

  private StepKinds() {}

  /**
   * Reads a step: its bare name, or its name with options.
   *
   * @throws org.ysthmos.core.document.DocumentException if no step is called so or an option is
   *     wrong
   */
  public static Step read(DocumentNode node) {
    Map.Entry<String, DocumentNode> entry =
        node.isText() ? Map.entry(node.text(), node) : node.single();
    StepKind kind = BY_NAME.get(entry.getKey());
    if (kind == null) {
      throw node.refuse(Nearest.unknown("step", entry.getKey(), BY_NAME.keySet()));
    }
    return kind.read().apply(entry.getValue());
  }
}
