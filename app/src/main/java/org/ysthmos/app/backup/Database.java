package org.ysthmos.app.backup;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import org.h2.api.ErrorCode;
import org.ysthmos.app.command.Refused;

/** The database of a data folder in which nobody else is at work. */
final class Database {

  private static final String NAME = "ysthmos";

  private Database() {}

  /**
   * @throws Refused if somebody else has it open
   * @throws SQLException if it cannot be opened
   */
  static Connection open(Path data) throws SQLException {
    try {
      return DriverManager.getConnection(
          "jdbc:h2:file:" + data.resolve(NAME) + ";IFEXISTS=TRUE", NAME, "");
    } catch (SQLException e) {
      if (e.getErrorCode() == ErrorCode.DATABASE_ALREADY_OPEN_1) {
        throw new Refused(data + " is in use. Stop Ysthmos there first.", e);
      }
      throw e;
    }
  }
}
