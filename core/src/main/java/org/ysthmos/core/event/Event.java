package org.ysthmos.core.event;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Instant;

/**
 * Something that happened to a record. The components are the CloudEvents 1.0 attributes under our
 * words: {@code system/collection} is the source, {@code kind} the type, {@code record} the
 * subject.
 *
 * @param id the sender's id of the event, unique within the system; a redelivery has the same one
 * @param system the id of the system it came from
 * @param collection the id of the collection that holds the record
 * @param kind what happened, for example {@code created}
 * @param record the id of the record it happened to
 * @param time when it happened, as the sender says; when it arrived, if the sender says nothing
 * @param data what came with it
 */
public record Event(
    String id,
    String system,
    String collection,
    String kind,
    String record,
    Instant time,
    JsonNode data) {}
