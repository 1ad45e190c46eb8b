package org.ysthmos.core.rule;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import org.ysthmos.core.event.Event;

/**
 * What the sources of one decision read from.
 *
 * @param lookups the records that were looked up, in the order of the bridge's lookups; a missing
 *     node where the bridge goes on without
 */
public record Reading(Event event, List<JsonNode> lookups) {}
