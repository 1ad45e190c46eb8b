package org.ysthmos.standins;

import java.util.Optional;
import java.util.Properties;

/**
 * What one stand-in is told: its lines of the settings file, which begin with its name and a full
 * stop.
 */
record StandInSettings(String name, Properties all) {

  /** Whether it is to be started at all. */
  boolean isWanted() {
    return all.containsKey(name + ".port");
  }

  /**
   * @throws IllegalArgumentException if it is missing
   */
  String need(String key) {
    return find(key)
        .orElseThrow(() -> new IllegalArgumentException(name + "." + key + " is missing"));
  }

  Optional<String> find(String key) {
    return Optional.ofNullable(all.getProperty(name + "." + key));
  }

  int port() {
    return number("port");
  }

  int number(String key) {
    try {
      return Integer.parseInt(need(key));
    } catch (NumberFormatException e) {
      throw new IllegalArgumentException(name + "." + key + " is no number", e);
    }
  }
}
