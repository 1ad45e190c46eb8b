package org.ysthmos.adapters.system;

/**
 * Which collection is being read.
 *
 * @param system the id of its system
 * @param systemName what people call the system
 * @param id its own id
 */
public record Collected(String system, String systemName, String id) {}
