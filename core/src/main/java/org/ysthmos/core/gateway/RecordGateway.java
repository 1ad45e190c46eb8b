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

  /**
   * Reads records of a collection without knowing one of them, the newest first as far as the
   * system gives them so.
   *
   * @param most how many are wanted at the most
   */
  LookupAnswer list(String collection, int most, CallLog calls);
}
