package org.ysthmos.adapters.system;

import java.util.Optional;

/**
 * Which collection is being read.
 *
 * @param system the id of its system
 * @param systemName what people call the system
 * @param id its own id
 * @param name what people call it, where that is not what the document says
 */
public record Collected(String system, String systemName, String id, Optional<String> name) {

  public Collected(String system, String systemName, String id) {
    this(system, systemName, id, Optional.empty());
  }
}
