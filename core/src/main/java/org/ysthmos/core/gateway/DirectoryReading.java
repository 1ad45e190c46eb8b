package org.ysthmos.core.gateway;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.SequencedMap;
import org.ysthmos.core.failure.Failure;

/** What a system says of the people, lanes, lists or labels that it has. */
public sealed interface DirectoryReading {

  /**
   * @param names key to name, in the order of the system
   */
  record Names(SequencedMap<String, String> names) implements DirectoryReading {
    public Names {
      names = Collections.unmodifiableSequencedMap(new LinkedHashMap<>(names));
    }
  }

  /** It did not say. */
  record Unread(Failure failure) implements DirectoryReading {}
}
