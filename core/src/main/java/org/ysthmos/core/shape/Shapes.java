package org.ysthmos.core.shape;

import java.util.Optional;

/** Gives the shape of a collection, if the system and the collection are known. */
@FunctionalInterface
public interface Shapes {
  Optional<CollectionShape> find(String system, String collection);
}
