package org.ysthmos.app.desk.draft;

/**
 * What a person has typed.
 *
 * @param revision the one that it was typed into
 */
public record Typed(String document, int revision) {}
