package org.ysthmos.core.gateway;

import java.util.SequencedMap;
import org.ysthmos.core.decide.World.LookupAnswer;

/** Reads records of one system. */
public interface RecordGateway {

  /**
   * Finds the records of a collection by key fields.
   *
   * @param keys key field to value
   * @param calls told of each call made, also of those that failed
   */
  LookupAnswer find(String collection, SequencedMap<String, String> keys, CallLog calls);
}
