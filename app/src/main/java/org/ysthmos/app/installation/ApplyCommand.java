package org.ysthmos.app.installation;

import java.io.IOException;
import java.io.PrintStream;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.ysthmos.app.command.CommandLine;
import org.ysthmos.app.command.Ends;
import org.ysthmos.app.command.Refused;

/** {@code apply FOLDER}: makes an installation what the documents of a folder say. */
public final class ApplyCommand {

  static final String USAGE =
      """
      Usage: ./run apply FOLDER [--yes] [--as PLAN] [--data FOLDER]

      Prints what would be made, changed and removed so that the installation is what FOLDER says,
      and how the results of its bridges over the last events would differ. With --yes that is done,
      all of it or nothing, while it runs or not. FOLDER is written as ./run export writes it.

        --yes           does it
        --as PLAN       does it only if the plan is still the one of this id, as it was printed
        --data FOLDER   where everything is kept (default ./data)

      Ends with 0 if nothing differs or all was done, 1 if something differs and was not done, 2 if
      it cannot be done.
      """;

  private ApplyCommand() {}

  public static void main(String[] args) {
    Ends.with(args, ApplyCommand::run);
  }

  static int run(List<String> args, PrintStream out) throws IOException, InterruptedException {
    CommandLine line = CommandLine.of(args, USAGE, List.of("--as"), List.of("--yes"));
    if (line.help()) {
      out.print(USAGE);
      return Ends.FINE;
    }
    Map<String, String> folder = new DocumentFolder(line.named()).read();
    if (folder.isEmpty()) {
      // It would remove all there is.
      throw new Refused(line.named() + " holds no documents; ./run export writes them.");
    }
    try (Reached installation = Reached.of(line)) {
      return apply(line, folder, installation, out);
    }
  }

  private static int apply(
      CommandLine line, Map<String, String> folder, Reached installation, PrintStream out)
      throws IOException, InterruptedException {
    Plan plan = installation.plan(folder);
    print(plan, out);
    if (!plan.problems().isEmpty()) {
      return Ends.REFUSED;
    }
    if (plan.lines().isEmpty()) {
      return Ends.FINE;
    }
    String seen = line.value("--as").orElse(plan.id());
    if (!seen.equals(plan.id())) {
      throw new Refused(
          "This is plan %s, not %s: something changed since. Look at it again."
              .formatted(plan.id(), seen));
    }
    if (!line.has("--yes")) {
      out.printf("Nothing is done yet. To do just this, add: --yes --as %s%n", plan.id());
      return Ends.DIFFERS;
    }
    Plan unused = installation.apply(folder, plan.id());
    out.println("Done.");
    return Ends.FINE;
  }

  static void print(Plan plan, PrintStream out) {
    for (Plan.PlannedDocument line : plan.lines()) {
      out.printf("%-8s %s%n", line.does().name().toLowerCase(Locale.ROOT), line.path());
      line.differences().forEach(one -> out.println("           " + one));
    }
    if (plan.lines().isEmpty() && plan.problems().isEmpty()) {
      out.println("The installation is as the folder says.");
    }
    if (!plan.results().isEmpty()) {
      out.println();
      out.println("Results over the last events, held against what became of them:");
      plan.results().forEach(result -> print(result, out));
      out.println();
    }
    if (!plan.problems().isEmpty()) {
      out.println();
      out.println("It cannot be applied:");
      plan.problems().forEach(problem -> out.println("  " + problem));
    }
  }

  private static void print(Plan.PlannedResult result, PrintStream out) {
    if (result.events() == 0) {
      out.printf(
          "  %s: %s%n",
          result.name(),
          result.differences().isEmpty()
              ? "no event came so far"
              : String.join(", ", result.differences()));
      return;
    }
    out.printf(
        "  %s: %d of the last %d events would come to something else%n",
        result.name(), result.differing(), result.events());
    result.differences().forEach(one -> out.println("           " + one));
  }
}
