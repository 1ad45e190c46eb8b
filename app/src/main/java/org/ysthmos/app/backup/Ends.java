package org.ysthmos.app.backup;

import java.io.IOException;
import java.io.PrintStream;
import java.sql.SQLException;
import org.springframework.boot.logging.LogLevel;
import org.springframework.boot.logging.LoggingSystem;

/** How a command ends. */
final class Ends {

  /** All was done. */
  static final int FINE = 0;

  /** Nothing was done; what was there is as it was. */
  static final int REFUSED = 2;

  /** What a command does. */
  interface Work {
    void run() throws IOException, SQLException, InterruptedException;
  }

  private Ends() {}

  /** What libraries note is not for whoever runs a command. */
  static void quiet() {
    LoggingSystem.get(Ends.class.getClassLoader())
        .setLogLevel(LoggingSystem.ROOT_LOGGER_NAME, LogLevel.ERROR);
  }

  /** Does it, and gives the exit status; why it cannot be done is told. */
  static int of(PrintStream err, Work work) {
    try {
      work.run();
      return FINE;
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
