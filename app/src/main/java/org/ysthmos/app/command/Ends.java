package org.ysthmos.app.command;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.util.List;
import org.springframework.boot.logging.LogLevel;
import org.springframework.boot.logging.LoggingSystem;

/** How a command ends. */
public final class Ends {

  /** All was done. */
  public static final int FINE = 0;

  /** Nothing was wrong, and something differs. */
  public static final int DIFFERS = 1;

  /** Nothing was done; what was there is as it was. */
  public static final int REFUSED = 2;

  /** What a command does with what it was given; gives its exit status. */
  public interface Work {
    int run(List<String> args, PrintStream out)
        throws IOException, SQLException, InterruptedException;
  }

  private Ends() {}

  /** Does it and ends the process. What libraries note is not for whoever runs a command. */
  public static void with(String[] args, Work work) {
    LoggingSystem.get(Ends.class.getClassLoader())
        .setLogLevel(LoggingSystem.ROOT_LOGGER_NAME, LogLevel.ERROR);
    System.exit(of(args, work, utf8(System.out), utf8(System.err)));
  }

  private static PrintStream utf8(PrintStream stream) {
    return new PrintStream(stream, true, StandardCharsets.UTF_8);
  }

  /** Does it, and gives the exit status; why it cannot be done is told. */
  public static int of(String[] args, Work work, PrintStream out, PrintStream err) {
    try {
      return work.run(List.of(args), out);
    } catch (Refused refused) {
      err.println(refused.getMessage());
    } catch (IOException | SQLException e) {
      err.println("It could not be done: " + e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      err.println("It was broken off.");
    }
    return REFUSED;
  }
}
