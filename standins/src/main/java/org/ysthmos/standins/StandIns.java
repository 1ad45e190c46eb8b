package org.ysthmos.standins;

import java.io.IOException;
import java.io.PrintStream;
import java.io.Reader;
import java.net.BindException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import org.ysthmos.standins.choretable.ChoreTable;
import org.ysthmos.standins.climatedesk.ClimateDesk;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.friendsregister.FriendsRegister;
import org.ysthmos.standins.gardenchat.GardenChat;
import org.ysthmos.standins.groundsboard.GroundsBoard;
import org.ysthmos.standins.http.StandIn;
import org.ysthmos.standins.leaflibrary.LeafLibrary;
import org.ysthmos.standins.postroom.PostRoom;
import org.ysthmos.standins.visitordesk.VisitorDesk;
import org.ysthmos.standins.worksledger.WorksLedger;

/**
 * Starts the stand-ins in one process, each on its own port, until the process is ended. Those are
 * started that have a port in the settings file.
 */
public final class StandIns {

  @FunctionalInterface
  private interface Maker {
    StandIn make(StandInSettings settings, Path data, ControlledClock clock) throws IOException;
  }

  private static final Map<String, Maker> MAKERS = new LinkedHashMap<>();

  static {
    MAKERS.put(
        "visitor-desk",
        (own, data, clock) ->
            new VisitorDesk(
                own.port(),
                own.need("token"),
                data,
                clock,
                URI.create(own.need("hook")),
                own.need("hook-secret")));
    MAKERS.put(
        "grounds-board",
        (own, data, clock) -> {
          var board = new GroundsBoard(own.port(), own.need("token"), data, clock);
          own.find("task-hooks")
              .ifPresent(at -> board.tellsOfTasks(URI.create(at), own.need("hook-secret")));
          return board;
        });
    MAKERS.put(
        "friends-register",
        (own, data, clock) -> new FriendsRegister(own.port(), own.need("token"), data, clock));
    MAKERS.put(
        "works-ledger",
        (own, data, clock) -> new WorksLedger(own.port(), own.need("token"), data, clock));
    MAKERS.put(
        "climate-desk",
        (own, data, clock) ->
            new ClimateDesk(
                own.port(),
                own.need("token"),
                data,
                clock,
                URI.create(own.need("hook")),
                own.need("hook-secret")));
    MAKERS.put(
        "garden-chat",
        (own, data, clock) ->
            new GardenChat(
                own.port(),
                own.need("token"),
                data,
                clock,
                URI.create(own.need("hooks")),
                own.need("hook-secret")));
    MAKERS.put(
        "leaf-library",
        (own, data, clock) -> new LeafLibrary(own.port(), own.need("password"), data, clock));
    MAKERS.put(
        "chore-table",
        (own, data, clock) -> new ChoreTable(own.port(), own.need("token"), data, clock));
    MAKERS.put(
        "post-room",
        (own, data, clock) ->
            new PostRoom(
                own.port(),
                own.number("imap-port"),
                own.number("smtp-port"),
                own.need("password"),
                data,
                clock));
  }

  private StandIns() {}

  public static void main(String[] args) throws InterruptedException {
    System.exit(run(args, System.out, System.err));
  }

  private static int run(String[] args, PrintStream out, PrintStream err)
      throws InterruptedException {
    if (args.length != 4 || !args[0].equals("--data") || !args[2].equals("--settings")) {
      err.println("Usage: --data FOLDER --settings FILE.properties");
      return 2;
    }
    List<StandIn> started = new ArrayList<>();
    try {
      start(Path.of(args[1]), settings(Path.of(args[3])), started, out);
      out.println("ready");
      Thread.currentThread().join();
      return 0;
    } catch (BindException taken) {
      err.println("A port of the stand-ins is taken: " + taken.getMessage());
      return 3;
    } catch (IOException | IllegalArgumentException e) {
      err.println("The stand-ins cannot start: " + e.getMessage());
      return 2;
    } finally {
      started.forEach(StandIn::close);
    }
  }

  private static void start(Path data, Properties settings, List<StandIn> started, PrintStream out)
      throws IOException {
    ControlledClock clock = new ControlledClock();
    for (Map.Entry<String, Maker> maker : MAKERS.entrySet()) {
      StandInSettings own = new StandInSettings(maker.getKey(), settings);
      if (own.isWanted()) {
        StandIn standIn = maker.getValue().make(own, data, clock).start();
        started.add(standIn);
        out.println(maker.getKey() + " http://127.0.0.1:" + standIn.port());
      }
    }
  }

  private static Properties settings(Path file) throws IOException {
    Properties settings = new Properties();
    try (Reader in = Files.newBufferedReader(file)) {
      settings.load(in);
    }
    return settings;
  }
}
