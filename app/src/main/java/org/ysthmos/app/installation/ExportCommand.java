package org.ysthmos.app.installation;

import java.io.IOException;
import java.io.PrintStream;
import java.util.List;
import java.util.Map;
import org.ysthmos.app.command.CommandLine;
import org.ysthmos.app.command.Ends;

/** {@code export FOLDER}: writes what describes an installation as documents. */
public final class ExportCommand {

  static final String USAGE =
      """
      Usage: ./run export FOLDER [--data FOLDER]

      Writes everything that describes an installation into FOLDER, whether it runs or not: systems/,
      calendars/, tables/ with their rows, bridges/ with their pinned examples, alarms.yaml and
      register.yaml. No secrets and no addresses that only this installation has. Documents that
      are there no more are taken out of FOLDER; other files in it are left alone.

        --data FOLDER   where everything is kept (default ./data)
      """;

  private ExportCommand() {}

  public static void main(String[] args) {
    Ends.with(args, ExportCommand::run);
  }

  static int run(List<String> args, PrintStream out) throws IOException, InterruptedException {
    CommandLine line = CommandLine.of(args, USAGE, List.of(), List.of());
    if (line.help()) {
      out.print(USAGE);
      return Ends.FINE;
    }
    Map<String, String> documents;
    try (Reached installation = Reached.of(line)) {
      documents = installation.documents();
    }
    List<String> touched = new DocumentFolder(line.named()).write(documents);
    touched.forEach(path -> out.println("  " + path));
    out.printf(
        "%d documents in %s, %s.%n",
        documents.size(),
        line.named(),
        touched.isEmpty() ? "all as they were" : touched.size() + " of them changed");
    return Ends.FINE;
  }
}
