package org.ysthmos.core.shape;

import java.util.Optional;
import java.util.Set;

/** Gives the shape of a collection, if the system and the collection are known. */
@FunctionalInterface
public interface Shapes {
  Optional<CollectionShape> find(String system, String collection);

  /** The ids of all systems; none where they are not known. */
  default Set<String> systems() {
    return Set.of();
  }

  /** The ids of a system's collections; none where they are not known. */
  default Set<String> collections(String system) {
    return Set.of();
  }
}
