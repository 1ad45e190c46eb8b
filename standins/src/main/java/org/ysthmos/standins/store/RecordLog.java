package org.ysthmos.standins.store;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Records by id, in the order they were first kept. Each change is a line appended to an NDJSON
 * file; reading the lines in order gives the records back. Not safe for several threads: the
 * stand-in that owns it is.
 */
public final class RecordLog {

  /** Marks the line after which a record is not there any more. */
  private static final String REMOVED = "removed";

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private final Path file;
  private final Map<String, ObjectNode> records = new LinkedHashMap<>();
  private int everKept;

  /**
   * @throws UncheckedIOException if the file is there and cannot be read
   */
  public RecordLog(Path file) {
    this.file = file;
    try {
      Files.createDirectories(file.toAbsolutePath().getParent());
      if (Files.exists(file)) {
        for (String line : Files.readAllLines(file)) {
          remember(JSON.readTree(line));
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException("cannot read " + file, e);
    }
  }

  private void remember(JsonNode line) {
    String id = line.path("id").asText();
    if (line.has(REMOVED)) {
      records.remove(id);
    } else if (records.put(id, (ObjectNode) line) == null) {
      everKept++;
    }
  }

  public Optional<ObjectNode> get(String id) {
    return Optional.ofNullable(records.get(id));
  }

  public List<ObjectNode> all() {
    return List.copyOf(records.values());
  }

  /** How many records were ever kept, those that were removed since included. */
  public int everKept() {
    return everKept;
  }

  /** Keeps a record under its {@code id}, in place of an earlier one. */
  public void keep(ObjectNode record) {
    append(record);
  }

  /** Takes a record away; its number is not given to another. */
  public void remove(String id) {
    append(JSON.createObjectNode().put("id", id).put(REMOVED, true));
  }

  private void append(ObjectNode line) {
    remember(line);
    try {
      Files.writeString(file, line + "\n", StandardOpenOption.CREATE, StandardOpenOption.APPEND);
    } catch (IOException e) {
      throw new UncheckedIOException("cannot write " + file, e);
    }
  }
}
