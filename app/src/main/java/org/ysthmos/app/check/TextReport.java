package org.ysthmos.app.check;

import java.io.PrintStream;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.table.TableTally;
import org.ysthmos.core.trial.PinnedExample;

/** The results as people read them. */
final class TextReport implements CheckReport {

  private static final int LONGEST_LINE = 160;

  private final PrintStream out;
  private final TableTally tally = new TableTally();
  private final Map<Verdict, Integer> verdicts = new EnumMap<>(Verdict.class);
  private int events;
  private int notHeard;
  private int examples;
  private int failedExamples;

  TextReport(PrintStream out) {
    this.out = out;
  }

  @Override
  public void bridge(BridgeVersion bridge) {
    out.printf(
        "%s: %s%n  %s → %s%n",
        bridge.definition().id(),
        bridge.definition().name(),
        bridge.source().systemName() + ", " + bridge.sourceName(),
        bridge.target().systemName() + ", " + bridge.targetName());
    bridge.remarks().forEach(remark -> out.println("  remark: " + remark));
  }

  @Override
  public void decided(Event event, Decision decision) {
    events++;
    verdicts.merge(decision.verdict(), 1, Integer::sum);
    decision.tableUses().forEach(tally::add);
    out.printf("%n%d  %s  %s%n", events, decision.verdict().words(), event.record());
    if (!decision.because().isEmpty()) {
      out.println("   " + decision.because());
    }
    decision.tasks().forEach(this::task);
    for (Decision.Warning warning : decision.warnings()) {
      String task = warning.member().isEmpty() ? "" : warning.member() + ": ";
      out.printf("   warning: %s%s: %s%n", task, warning.field(), warning.message());
    }
    for (Failure failure : decision.failures()) {
      out.println("   " + failure.kind().words() + ": " + failure.message());
      failure.remedy().ifPresent(remedy -> out.println("   → " + remedy));
    }
  }

  @Override
  public void notHeard(Event event, String because) {
    notHeard++;
    out.printf("%n-  not decided  %s%n   %s%n", event.record(), because);
  }

  private void task(TaskDecision task) {
    if (!task.member().isEmpty()) {
      String because = task.because().isEmpty() ? "" : " (" + task.because() + ")";
      out.println("   " + task.member() + ": " + task.verdict().words() + because);
    }
    int width = task.fields().keySet().stream().mapToInt(String::length).max().orElse(0);
    task.fields()
        .forEach(
            (field, value) ->
                out.println("     " + padded(field, width) + "  " + oneLine(value.display())));
  }

  private static String padded(String text, int width) {
    return text + " ".repeat(width - text.length());
  }

  private static String oneLine(String text) {
    String line = text.replace("\n", " ⏎ ");
    return line.length() <= LONGEST_LINE ? line : line.substring(0, LONGEST_LINE) + "…";
  }

  @Override
  public void example(PinnedExample example, List<PinnedExample.Difference> differences) {
    examples++;
    if (differences.isEmpty()) {
      return;
    }
    failedExamples++;
    out.println();
    out.println("The example “" + example.name() + "” does not hold:");
    for (PinnedExample.Difference difference : differences) {
      out.printf(
          "   %s: expected “%s”, is “%s”%n",
          difference.what(), oneLine(difference.expected()), oneLine(difference.found()));
    }
  }

  @Override
  public void end() {
    out.println();
    if (events > 0) {
      List<String> parts = new ArrayList<>();
      verdicts.forEach((verdict, count) -> parts.add(count + " " + verdict.words()));
      out.println(counted(events, "event") + ": " + String.join(", ", parts));
    }
    if (notHeard > 0) {
      out.println(counted(notHeard, "event") + " not decided");
    }
    for (TableTally.Counted unknown : tally.unknown()) {
      out.printf(
          "unknown in %s: “%s”, met %s%n",
          unknown.table(),
          String.join("” and “", unknown.keys()),
          counted(unknown.times(), "time"));
    }
    if (examples > 0) {
      out.printf(
          "%s: %d as expected, %d not%n",
          counted(examples, "example"), examples - failedExamples, failedExamples);
    }
    if (events == 0 && examples == 0) {
      out.println("The document can be used.");
    }
  }

  private static String counted(int count, String noun) {
    return count + " " + noun + (count == 1 ? "" : "s");
  }
}
