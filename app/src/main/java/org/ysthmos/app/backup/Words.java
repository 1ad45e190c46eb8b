package org.ysthmos.app.backup;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import org.ysthmos.core.document.Nearest;

/**
 * What a command was given.
 *
 * @param file the backup
 * @param data the data folder
 * @param port where the application runs; empty if it does not
 */
record Words(boolean help, Path file, Path data, OptionalInt port) {

  private static final List<String> OPTIONS = List.of("--data", "--port");

  /**
   * @throws Refused if an option is not known, or the file is not named
   */
  static Words of(List<String> args, String usage) {
    if (args.contains("--help") || args.contains("-h")) {
      return new Words(true, Path.of(""), Path.of(""), OptionalInt.empty());
    }
    Map<String, String> options = new HashMap<>();
    List<String> files = new ArrayList<>();
    for (int i = 0; i < args.size(); i++) {
      String arg = args.get(i);
      if (!arg.startsWith("-")) {
        files.add(arg);
      } else if (!OPTIONS.contains(arg)) {
        throw new Refused(Nearest.unknown("option", arg, OPTIONS) + ".\n\n" + usage);
      } else if (i + 1 == args.size()) {
        throw new Refused(arg + " says nothing.\n\n" + usage);
      } else {
        options.put(arg, args.get(++i));
      }
    }
    if (files.size() != 1) {
      throw new Refused("Name one file, found " + files + ".\n\n" + usage);
    }
    String port = options.get("--port");
    return new Words(
        false,
        Path.of(files.getFirst()).toAbsolutePath().normalize(),
        Path.of(options.getOrDefault("--data", "data")).toAbsolutePath().normalize(),
        port == null ? OptionalInt.empty() : OptionalInt.of(number(port)));
  }

  private static int number(String port) {
    try {
      return Integer.parseInt(port);
    } catch (NumberFormatException e) {
      throw new Refused("--port needs a number, found “" + port + "”.", e);
    }
  }
}
