package org.ysthmos.standins;

import java.io.IOException;
import java.io.PrintStream;
import java.net.BindException;
import java.net.URI;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.friendsregister.FriendsRegister;
import org.ysthmos.standins.groundsboard.GroundsBoard;
import org.ysthmos.standins.visitordesk.VisitorDesk;

/** Starts all stand-ins in one process, each on its own port, until the process is ended. */
public final class StandIns {

  static final List<String> OPTIONS =
      List.of(
          "--data",
          "--visitor-desk-port",
          "--visitor-desk-token",
          "--grounds-board-port",
          "--grounds-board-token",
          "--friends-register-port",
          "--friends-register-token",
          "--hook",
          "--hook-secret");

  private StandIns() {}

  public static void main(String[] args) throws InterruptedException {
    System.exit(run(args, System.out, System.err));
  }

  private static int run(String[] args, PrintStream out, PrintStream err)
      throws InterruptedException {
    try {
      Map<String, String> options = options(args);
      Path data = Path.of(need(options, "--data"));
      ControlledClock clock = new ControlledClock();
      try (VisitorDesk desk =
              new VisitorDesk(
                  Integer.parseInt(need(options, "--visitor-desk-port")),
                  need(options, "--visitor-desk-token"),
                  data,
                  clock,
                  URI.create(need(options, "--hook")),
                  need(options, "--hook-secret"));
          GroundsBoard board =
              new GroundsBoard(
                  Integer.parseInt(need(options, "--grounds-board-port")),
                  need(options, "--grounds-board-token"),
                  data,
                  clock);
          FriendsRegister friends =
              new FriendsRegister(
                  Integer.parseInt(need(options, "--friends-register-port")),
                  need(options, "--friends-register-token"),
                  data,
                  clock)) {
        desk.start();
        board.start();
        friends.start();
        out.println("visitor-desk http://127.0.0.1:" + desk.port());
        out.println("grounds-board http://127.0.0.1:" + board.port());
        out.println("friends-register http://127.0.0.1:" + friends.port());
        out.println("ready");
        Thread.currentThread().join();
        return 0;
      }
    } catch (BindException taken) {
      err.println("A port of the stand-ins is taken: " + taken.getMessage());
      return 3;
    } catch (IOException | IllegalArgumentException e) {
      err.println("The stand-ins cannot start: " + e.getMessage());
      return 2;
    }
  }

  static Map<String, String> options(String[] args) {
    Map<String, String> options = new LinkedHashMap<>();
    for (int i = 0; i < args.length; i += 2) {
      if (!OPTIONS.contains(args[i]) || i + 1 == args.length) {
        throw new IllegalArgumentException(
            "options are " + OPTIONS + ", each with a value; found " + args[i]);
      }
      options.put(args[i], args[i + 1]);
    }
    return options;
  }

  private static String need(Map<String, String> options, String name) {
    return Optional.ofNullable(options.get(name))
        .orElseThrow(() -> new IllegalArgumentException(name + " is missing"));
  }
}
