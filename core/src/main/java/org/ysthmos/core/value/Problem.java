package org.ysthmos.core.value;

/**
 * Why no value could be computed, in words for the person who keeps the bridge.
 *
 * @param message what is wrong, for example {@code “yesterday” is no day written d MMMM uuuu in
 *     English}
 * @param found the offending value as text
 * @param remedy what to change so that it works
 */
public record Problem(String message, String found, String remedy) implements Computed {}
