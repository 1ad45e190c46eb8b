package org.ysthmos.app.command;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import org.ysthmos.core.document.Nearest;

/**
 * What a command was given: one file or folder, the data folder, and the port if the application
 * runs there.
 *
 * @param help whether its words are asked for; nothing else is said then
 * @param named the file or folder that it is about
 * @param options the others, by name; a flag is empty
 */
public record CommandLine(boolean help, Path named, Map<String, String> options) {

  private static final String DATA = "--data";
  private static final String PORT = "--port";

  public CommandLine {
    options = Map.copyOf(options);
  }

  /**
   * @param usage what is said with a refusal
   * @param valued the options of this command that have a value
   * @param flags those that have none
   * @throws Refused if an option is not known, or not one file or folder is named
   */
  public static CommandLine of(
      List<String> args, String usage, List<String> valued, List<String> flags) {
    if (args.contains("--help") || args.contains("-h")) {
      return new CommandLine(true, Path.of(""), Map.of());
    }
    List<String> withValue = Stream.concat(Stream.of(DATA, PORT), valued.stream()).toList();
    List<String> known = Stream.concat(withValue.stream(), flags.stream()).toList();
    Map<String, String> options = new HashMap<>();
    List<String> named = new ArrayList<>();
    for (int i = 0; i < args.size(); i++) {
      String arg = args.get(i);
      if (!arg.startsWith("-")) {
        named.add(arg);
      } else if (!known.contains(arg)) {
        throw new Refused(Nearest.unknown("option", arg, known) + ".\n\n" + usage);
      } else if (flags.contains(arg)) {
        options.put(arg, "");
      } else if (i + 1 == args.size()) {
        throw new Refused(arg + " says nothing.\n\n" + usage);
      } else {
        options.put(arg, args.get(++i));
      }
    }
    if (named.size() != 1) {
      throw new Refused("Name one file or folder, found " + named + ".\n\n" + usage);
    }
    return new CommandLine(false, absolute(named.getFirst()), options);
  }

  private static Path absolute(String path) {
    return Path.of(path).toAbsolutePath().normalize();
  }

  /** The data folder. */
  public Path data() {
    return absolute(options.getOrDefault(DATA, "data"));
  }

  /** Where the application runs that has the data folder; empty if none does. */
  public OptionalInt port() {
    String port = options.get(PORT);
    if (port == null) {
      return OptionalInt.empty();
    }
    try {
      return OptionalInt.of(Integer.parseInt(port));
    } catch (NumberFormatException e) {
      throw new Refused("--port needs a number, found “" + port + "”.", e);
    }
  }

  public boolean has(String flag) {
    return options.containsKey(flag);
  }

  public Optional<String> value(String option) {
    return Optional.ofNullable(options.get(option));
  }
}
