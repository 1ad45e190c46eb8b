package org.ysthmos.app.check;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.event.CloudEventJson;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.trial.PinnedExample;
import org.ysthmos.core.trial.TrialWorld;

/**
 * {@code check FILE --events FILE.ndjson}: decides events without a server and without any effect,
 * so that a bridge can be tested wherever a command can be run.
 */
public final class CheckCommand {

  /** All went as expected. */
  static final int FINE = 0;

  /** A pinned example came out other than expected. */
  static final int EXAMPLE_FAILED = 1;

  /** The documents or the files could not be used. */
  static final int UNUSABLE = 2;

  static final String USAGE =
      """
      Usage: ./run check FILE [--events FILE.ndjson] [--records FILE.ndjson]
                        [--examples FILE.ndjson] [--setup FOLDER] [--pin FILE.ndjson] [--json]

      Checks the bridge document FILE and decides events with it, without a server and without effect.

        --events FILE    CloudEvents, one a line; decided in order, each knowing those before it;
                         those of other places and kinds are only there to be looked up; for a
                         bridge that goes both ways, data that is the record with its id says how
                         it stands then
        --records FILE   what lookups find, one a line: {"in": "system/collection", "record": {…}}
        --examples FILE  pinned examples, one a line; FILE with the ending .examples.ndjson if it is
                         there and nothing is said
        --setup FOLDER   the folder with systems/, tables/ and calendars/; the one above FILE's
                         folder if nothing is said
        --pin FILE       writes the results as pinned examples
        --json           the results as JSON, one object a line

      Ends with 0 if all is as expected, 1 if a pinned example is not, 2 if something cannot be used.
      """;

  private final PrintStream out;
  private final PrintStream err;

  CheckCommand(PrintStream out, PrintStream err) {
    this.out = out;
    this.err = err;
  }

  public static void main(String[] args) {
    PrintStream out = new PrintStream(System.out, true, StandardCharsets.UTF_8);
    PrintStream err = new PrintStream(System.err, true, StandardCharsets.UTF_8);
    System.exit(new CheckCommand(out, err).run(List.of(args)));
  }

  int run(List<String> args) {
    try {
      if (args.contains("--help") || args.contains("-h")) {
        out.print(USAGE);
        return FINE;
      }
      return check(CheckOptions.parse(args));
    } catch (Unusable unusable) {
      err.println(unusable.getMessage());
      return UNUSABLE;
    }
  }

  private int check(CheckOptions options) {
    CheckSetup setup = CheckSetup.load(options.setup());
    BridgeVersion bridge = compile(options, setup);
    List<Event> events =
        options.events().map(file -> Lines.read(file, CloudEventJson::read)).orElse(List.of());
    List<PinnedExample> examples =
        options.examples().map(file -> Lines.read(file, PinnedExample::read)).orElse(List.of());
    TrialWorld world = setup.world();
    options.records().ifPresent(file -> Lines.read(file, line -> add(line, world)));

    CheckReport report = options.json() ? new JsonReport(out) : new TextReport(out);
    report.bridge(bridge);
    List<PinnedExample> pinned = new ArrayList<>();
    for (Event event : events) {
      BridgeVersion seen = bridge.seenFrom(event.system(), event.collection());
      Optional<String> unheard = unheard(seen, event);
      if (unheard.isPresent()) {
        // Lookups among the events may find it.
        world.receive(event);
        report.notHeard(event, unheard.get());
        continue;
      }
      if (bridge.between().isPresent()) {
        world.tells(event);
      }
      Decision decision = Decider.decide(seen, event, world, Mode.PLAIN);
      String name = event.record() + " " + event.kind();
      PinnedExample pin = PinnedExample.pin(name, event, decision, bridge, world);
      world.carryOut(bridge, event, decision);
      world.receive(event);
      report.decided(event, decision);
      pinned.add(pin);
    }
    int failed = 0;
    for (PinnedExample example : examples) {
      var differences = example.check(example.decide(bridge, setup.world()));
      report.example(example, differences);
      failed += differences.isEmpty() ? 0 : 1;
    }
    report.end();
    options.pin().ifPresent(file -> Lines.write(file, pinned));
    return failed == 0 ? FINE : EXAMPLE_FAILED;
  }

  private static BridgeVersion compile(CheckOptions options, CheckSetup setup) {
    try {
      return BridgeCompiler.compile(Lines.text(options.bridge()), 1, setup.catalog());
    } catch (DocumentException e) {
      throw new Unusable(Lines.problems(options.bridge(), e));
    }
  }

  private static boolean add(JsonNode line, TrialWorld world) {
    String[] in = line.path("in").asText().split("/", -1);
    if (in.length != 2 || !line.path("record").isObject()) {
      throw new IllegalArgumentException(
          "a record is written {\"in\": \"system/collection\", \"record\": {…}}");
    }
    world.add(in[0], in[1], line.get("record"));
    return true;
  }

  /** Why the bridge does not hear of an event; empty if it does. */
  private static Optional<String> unheard(BridgeVersion bridge, Event event) {
    var from = bridge.definition().from();
    if (!from.system().equals(event.system()) || !from.collection().equals(event.collection())) {
      return Optional.of(
          "it is of %s/%s, the bridge listens to %s"
              .formatted(
                  event.system(),
                  event.collection(),
                  bridge.views().stream()
                      .map(view -> view.definition().from())
                      .map(place -> place.system() + "/" + place.collection())
                      .collect(Collectors.joining(" and "))));
    }
    return from.events().contains(event.kind())
        ? Optional.empty()
        : Optional.of(
            "its kind is %s, the bridge hears of %s"
                .formatted(event.kind(), String.join(", ", from.events())));
  }
}
