package org.ysthmos.standins.http;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;

/** The faults of a stand-in, which anyone who practises can switch on and off. */
public interface Switches {

  /**
   * Switches a fault on.
   *
   * @throws Refusal if there is none of this kind
   */
  void add(JsonNode wish);

  /** Switches all faults off. */
  void clear();

  /**
   * The kinds there are under {@code kinds}, each with its {@code kind} and {@code title}, and
   * those that are switched on under {@code on}.
   */
  ObjectNode list();
}
