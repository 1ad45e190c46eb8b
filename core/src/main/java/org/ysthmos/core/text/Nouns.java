package org.ysthmos.core.text;

/** Nouns as they stand in a sentence. */
public final class Nouns {

  private Nouns() {}

  /** With its article, by its first letter: {@code a task}, {@code an exhibition}. */
  public static String withArticle(String noun) {
    boolean open = !noun.isEmpty() && "aeiou".indexOf(Character.toLowerCase(noun.charAt(0))) >= 0;
    return (open ? "an " : "a ") + noun;
  }
}
