package org.ysthmos.app.check;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.document.Nearest;

/** What the command was given. */
record CheckOptions(
    Path bridge,
    Path setup,
    Optional<Path> events,
    Optional<Path> records,
    Optional<Path> examples,
    Optional<Path> pin,
    boolean json) {

  private static final List<String> WITH_FILE =
      List.of("--events", "--records", "--examples", "--setup", "--pin");

  /**
   * @throws Unusable if an option is not known or misses its file
   */
  static CheckOptions parse(List<String> args) {
    Map<String, Path> files = new HashMap<>();
    List<String> bridges = new ArrayList<>();
    boolean json = false;
    for (int i = 0; i < args.size(); i++) {
      String arg = args.get(i);
      if (WITH_FILE.contains(arg)) {
        if (i + 1 == args.size()) {
          throw new Unusable(arg + " needs a file. See ./run check --help.");
        }
        files.put(arg, Path.of(args.get(++i)));
      } else if (arg.equals("--json")) {
        json = true;
      } else if (arg.startsWith("-")) {
        List<String> known = new ArrayList<>(WITH_FILE);
        known.add("--json");
        throw new Unusable(Nearest.unknown("option", arg, known) + ". See ./run check --help.");
      } else {
        bridges.add(arg);
      }
    }
    if (bridges.size() != 1) {
      throw new Unusable(
          "One bridge document is checked at a time, found "
              + bridges
              + ". See ./run check --help.");
    }
    Path bridge = Path.of(bridges.getFirst()).toAbsolutePath().normalize();
    return new CheckOptions(
        bridge,
        files.getOrDefault("--setup", above(bridge)),
        Optional.ofNullable(files.get("--events")),
        Optional.ofNullable(files.get("--records")),
        Optional.ofNullable(files.get("--examples")).or(() -> examplesBeside(bridge)),
        Optional.ofNullable(files.get("--pin")),
        json);
  }

  private static Path above(Path bridge) {
    Path folder = bridge.getParent();
    Path above = folder == null ? null : folder.getParent();
    return above == null ? Path.of(".") : above;
  }

  private static Optional<Path> examplesBeside(Path bridge) {
    String name = String.valueOf(bridge.getFileName()).replaceFirst("\\.ya?ml$", "");
    Path beside = bridge.resolveSibling(name + ".examples.ndjson");
    return Files.exists(beside) ? Optional.of(beside) : Optional.empty();
  }
}
