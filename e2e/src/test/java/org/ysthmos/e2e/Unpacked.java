package org.ysthmos.e2e;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * The application as {@code ./run} starts it, unpacked and with its classes archived, so that each
 * of the many starts of these tests takes half the time. Made once for a run of tests.
 */
final class Unpacked {

  private static final Path FOLDER = Path.of("target", "start").toAbsolutePath();
  private static final Path ARCHIVE = FOLDER.resolve("classes.jsa");
  private static final String JAVA =
      Path.of(System.getProperty("java.home"), "bin", "java").toString();

  /** Code that runs for seconds is compiled quickly, not well. */
  private static final List<String> QUICK = List.of("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC");

  /** What is put on the class path; the libraries stand beside it. */
  static final Path JAR = make();

  private Unpacked() {}

  /** How a program of ours is started, up to its own arguments. */
  static List<String> java() {
    List<String> command = new ArrayList<>(List.of(JAVA));
    command.addAll(QUICK);
    return command;
  }

  /** The same for the application; without the archive, were it missing, it starts all the same. */
  static List<String> application() {
    List<String> command = java();
    command.addAll(
        List.of("-Xshare:auto", "-XX:SharedArchiveFile=" + ARCHIVE, "-jar", JAR.toString()));
    return command;
  }

  private static Path make() {
    Path packed = Path.of("..", "app", "target", "ysthmos-app.jar").toAbsolutePath().normalize();
    Path jar = FOLDER.resolve(packed.getFileName());
    run(
        List.of(
            JAVA,
            "-Djarmode=tools",
            "-jar",
            packed.toString(),
            "extract",
            "--force",
            "--destination",
            FOLDER.toString()));
    try {
      Path data = Files.createTempDirectory("ysthmos-archive");
      List<String> command = java();
      command.addAll(
          List.of(
              "-XX:ArchiveClassesAtExit=" + ARCHIVE,
              "-Dspring.context.exit=onRefresh",
              "-jar",
              jar.toString(),
              "--ysthmos.data=" + data));
      run(command);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return jar;
  }

  private static void run(List<String> command) {
    Path log = FOLDER.resolveSibling("start.log");
    try {
      int status =
          new ProcessBuilder(command)
              .redirectErrorStream(true)
              .redirectOutput(ProcessBuilder.Redirect.to(log.toFile()))
              .start()
              .waitFor();
      if (status != 0) {
        throw new IllegalStateException(
            String.join(" ", command) + " ended with " + status + "; see " + log);
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }
}
