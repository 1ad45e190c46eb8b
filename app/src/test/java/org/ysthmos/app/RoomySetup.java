package org.ysthmos.app;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;

/** The demo's setup with ceilings that all tests of an hour together do not reach. */
final class RoomySetup {

  private static final String ROOMY =
      "ceiling: { creates: 9999, changes: 9999, messages: 9999, per: PT1H }";

  private RoomySetup() {}

  /** Copies it into a folder. */
  static Path into(Path folder) {
    Path demo = Path.of("..", "demo");
    try (Stream<Path> files = Files.walk(demo)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        if (file.endsWith("alarms.yaml")) {
          // Messages of its own would come between those that a test waits for.
          continue;
        }
        Path copy = folder.resolve(demo.relativize(file).toString());
        Files.createDirectories(copy.getParent());
        String text = Files.readString(file);
        // What is there to run away keeps its own.
        boolean runsAway = file.startsWith(demo.resolve("practice"));
        Files.writeString(copy, runsAway ? text : text.replaceAll("(?m)^ceiling: .*$", ROOMY));
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return folder;
  }
}
