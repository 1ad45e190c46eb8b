package org.ysthmos.app.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.time.Instant;
import java.util.TimeZone;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Instants survive the database in every zone, also in the hour that clocks go through twice. */
class InstantHandlerIT {

  @ParameterizedTest
  @ValueSource(
      strings = {
        "2026-11-01T04:30:00.123456789Z",
        "2026-11-01T05:30:00.123456789Z",
        "2026-03-08T06:30:00Z",
        "1970-01-01T00:00:00Z",
        "2026-11-24T13:58:07.104Z"
      })
  void comesBackAsItWas(Instant instant) throws Exception {
    // Clocks in Halifax went back from 02:00 to 01:00 on 1 November 2026, 05:00 UTC (IANA).
    TimeZone before = TimeZone.getDefault();
    TimeZone.setDefault(TimeZone.getTimeZone("America/Halifax"));
    try (Connection database =
        DriverManager.getConnection("jdbc:h2:mem:instants" + instant.hashCode())) {
      database
          .createStatement()
          .execute("CREATE TABLE t (at TIMESTAMP(9) WITH TIME ZONE NOT NULL)");
      InstantHandler handler = new InstantHandler();
      try (PreparedStatement insert = database.prepareStatement("INSERT INTO t VALUES (?)")) {
        handler.setNonNullParameter(insert, 1, instant, null);
        insert.execute();
      }
      try (ResultSet row = database.createStatement().executeQuery("SELECT at FROM t")) {
        row.next();
        assertThat(handler.getNullableResult(row, "at")).isEqualTo(instant);
        assertThat(handler.getNullableResult(row, 1)).isEqualTo(instant);
      }
    } finally {
      TimeZone.setDefault(before);
    }
  }
}
