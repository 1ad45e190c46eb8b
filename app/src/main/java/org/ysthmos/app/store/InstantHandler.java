package org.ysthmos.app.store;

import java.sql.CallableStatement;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import org.apache.ibatis.type.BaseTypeHandler;
import org.apache.ibatis.type.JdbcType;
import org.apache.ibatis.type.MappedTypes;
import org.jspecify.annotations.Nullable;

/**
 * Instants as timestamps with a zone, always UTC. The usual way over {@code java.sql.Timestamp}
 * goes through the machine's zone and is ambiguous in the hour in which clocks go back.
 */
@MappedTypes(Instant.class)
public class InstantHandler extends BaseTypeHandler<Instant> {

  @Override
  public void setNonNullParameter(
      PreparedStatement statement, int place, Instant instant, @Nullable JdbcType type)
      throws SQLException {
    statement.setObject(place, instant.atOffset(ZoneOffset.UTC));
  }

  @Override
  public @Nullable Instant getNullableResult(ResultSet row, String column) throws SQLException {
    return instant(row.getObject(column, OffsetDateTime.class));
  }

  @Override
  public @Nullable Instant getNullableResult(ResultSet row, int column) throws SQLException {
    return instant(row.getObject(column, OffsetDateTime.class));
  }

  @Override
  public @Nullable Instant getNullableResult(CallableStatement call, int column)
      throws SQLException {
    return instant(call.getObject(column, OffsetDateTime.class));
  }

  private static @Nullable Instant instant(@Nullable OffsetDateTime at) {
    return at == null ? null : at.toInstant();
  }
}
