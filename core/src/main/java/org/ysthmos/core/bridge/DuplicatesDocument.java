package org.ysthmos.core.bridge;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.BridgeDefinition.Duplicates;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.likeness.TitleLikeness;

/**
 * What a document says of tasks that read nearly the same: {@code { compare: [due], wait-at: 0.95
 * }}.
 */
final class DuplicatesDocument {

  private static final String COMPARE = "compare";
  private static final String WAIT_AT = "wait-at";

  private DuplicatesDocument() {}

  static Duplicates read(DocumentNode node) {
    node.only(COMPARE, WAIT_AT);
    List<String> compare = node.get(COMPARE).map(DocumentNode::texts).orElse(List.of());
    Optional<Double> waitAt = node.get(WAIT_AT).map(DuplicatesDocument::likeness);
    if (compare.isEmpty() && waitAt.isEmpty()) {
      throw node.refuse("say at least one of %s and %s".formatted(COMPARE, WAIT_AT));
    }
    return new Duplicates(compare, waitAt);
  }

  private static double likeness(DocumentNode node) {
    double likeness = node.number().doubleValue();
    if (likeness < TitleLikeness.LEAST || likeness > 1) {
      throw node.refuse(
          "this is a likeness from %s to 1; what is less alike is no possible duplicate"
              .formatted(TitleLikeness.LEAST));
    }
    return likeness;
  }

  static SequencedMap<String, Object> written(Duplicates duplicates) {
    SequencedMap<String, Object> document = new LinkedHashMap<>();
    if (!duplicates.compare().isEmpty()) {
      document.put(COMPARE, duplicates.compare());
    }
    duplicates.waitAt().ifPresent(at -> document.put(WAIT_AT, BigDecimal.valueOf(at)));
    return document;
  }
}
