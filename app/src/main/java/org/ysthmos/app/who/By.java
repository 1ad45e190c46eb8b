package org.ysthmos.app.who;

/**
 * Who made a change.
 *
 * @param name as it is kept, at most 128 characters
 */
public record By(Kind kind, String name) {

  /** What sort of somebody it is. */
  public enum Kind {
    PERSON,
    /** A program that uses the API. */
    PROGRAM,
    /** The engine itself, for example a ceiling that holds a bridge. */
    ENGINE
  }

  /** Whoever sits at the screens; there is no sign-in yet, so that it is always the same. */
  public static final By PERSON = new By(Kind.PERSON, "person");

  public static final By ENGINE = new By(Kind.ENGINE, "engine");

  /** What is set up at a start. */
  public static final By SETUP = new By(Kind.PROGRAM, "setup");

  public By {
    if (name.isBlank() || name.length() > 128) {
      throw new IllegalArgumentException("a name has 1 to 128 characters, found " + name.length());
    }
  }
}
