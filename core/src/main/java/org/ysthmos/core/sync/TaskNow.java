package org.ysthmos.core.sync;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * A task as a side holds it now.
 *
 * @param fields by the name of the field; one that is lacking is nothing
 * @param changedAt when it was changed last, by that system's own time; empty if it does not say
 */
public record TaskNow(Map<String, Value> fields, Optional<Instant> changedAt) {

  public TaskNow {
    fields = Map.copyOf(fields);
  }

  public Value of(String field) {
    return fields.getOrDefault(field, Nothing.NOTHING);
  }
}
