package org.ysthmos.core.reading;

import java.util.function.Supplier;

/**
 * A rule that cannot be compiled. The message is meant for the person who writes the rule; the path
 * says where below the rule it is, for example {@code steps/1}.
 */
public final class Misfit extends IllegalArgumentException {

  private static final long serialVersionUID = 1L;

  private final String path;

  public Misfit(String message) {
    this("", message);
  }

  private Misfit(String path, String message) {
    super(message);
    this.path = path;
  }

  /** The same misfit, seen from one place further up. */
  public Misfit under(String place) {
    return new Misfit(path.isEmpty() ? place : place + "/" + path, message());
  }

  /** Keys and list places, from the rule down; list places count from 0; empty for the rule. */
  public String path() {
    return path;
  }

  public String message() {
    return String.valueOf(getMessage());
  }

  /** Compiles something at a place, so that a misfit in it knows its path. */
  public static <T> T at(String place, Supplier<T> compile) {
    try {
      return compile.get();
    } catch (Misfit misfit) {
      throw misfit.under(place);
    } catch (IllegalArgumentException refused) {
      throw new Misfit(place, String.valueOf(refused.getMessage()));
    }
  }
}
