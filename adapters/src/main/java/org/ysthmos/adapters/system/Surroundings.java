package org.ysthmos.adapters.system;

import java.nio.file.Path;
import java.time.InstantSource;
import java.util.Optional;
import java.util.function.Function;

/**
 * What a gateway needs besides the description of its system.
 *
 * @param secrets gives a secret by its name, asked at each call; with an unknown one a call is not
 *     signed in
 * @param outgoing which hosts may be called
 * @param drops the folder below which files are dropped, a folder for each system
 */
public record Surroundings(
    Function<String, Optional<String>> secrets,
    InstantSource clock,
    Outgoing outgoing,
    Path drops) {

  /** May call anywhere. */
  public Surroundings(Function<String, Optional<String>> secrets, InstantSource clock) {
    this(secrets, clock, Outgoing.ANYWHERE, Path.of("drops"));
  }
}
