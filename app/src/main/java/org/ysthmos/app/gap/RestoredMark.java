package org.ysthmos.app.gap;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.Optional;

/**
 * The file in a data folder which says that the data there was restored and not started since.
 *
 * @param id tells one restoring from every other
 * @param taken when the copy was taken
 * @param restored when it was put back
 */
public record RestoredMark(String id, Instant taken, Instant restored) {

  private static final JsonMapper JSON = new JsonMapper();

  public static Path in(Path data) {
    return data.resolve("restored.json");
  }

  public void write(Path file) throws IOException {
    Files.writeString(
        file,
        JSON.createObjectNode()
            .put("id", id)
            .put("taken", taken.toString())
            .put("restored", restored.toString())
            .toPrettyString());
  }

  /**
   * The mark of a data folder; empty if it has none.
   *
   * @throws IllegalStateException if it cannot be read: to go on as if nothing were missing could
   *     make things twice
   */
  static Optional<RestoredMark> of(Path data) {
    Path file = in(data);
    if (!Files.exists(file)) {
      return Optional.empty();
    }
    try {
      JsonNode mark = JSON.readTree(Files.readString(file));
      return Optional.of(
          new RestoredMark(
              mark.required("id").asText(),
              Instant.parse(mark.required("taken").asText()),
              Instant.parse(mark.required("restored").asText())));
    } catch (IOException | DateTimeException | IllegalArgumentException e) {
      throw new IllegalStateException(
          file + " cannot be read; restore the backup once more, so that it is written anew", e);
    }
  }
}
