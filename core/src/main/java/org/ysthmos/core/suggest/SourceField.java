package org.ysthmos.core.suggest;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.shape.FieldShape;

/**
 * A field that rules can start from, with what samples hold in it.
 *
 * @param samples one for each sample; a missing or null node where it holds nothing
 */
public record SourceField(Address address, FieldShape shape, List<JsonNode> samples) {
  public SourceField {
    samples = List.copyOf(samples);
  }
}
