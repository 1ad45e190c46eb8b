package org.ysthmos.core.gateway;

import java.time.Duration;
import java.time.Instant;
import java.util.List;

/**
 * A call as it was sent and answered, with secrets masked.
 *
 * @param request the request line, then headers, as {@code name: value}
 * @param status 0 if there was no answer
 * @param problem why there was no answer; empty otherwise
 */
public record RemoteCall(
    String system,
    Instant start,
    Duration took,
    List<String> request,
    String requestBody,
    int status,
    List<String> response,
    String responseBody,
    String problem) {}
