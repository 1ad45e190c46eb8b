package org.ysthmos.adapters.drop;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.stream.Stream;
import org.ysthmos.adapters.drop.FileKind.Unreadable;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.decide.World.LookupAnswer;
import org.ysthmos.core.decide.World.Unanswered;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.ReadingGateway;
import org.ysthmos.core.load.RateLimiter;

/**
 * Records in files that are dropped into a folder. A file that is dropped, or changed, is read from
 * its first record to its last; the files that stood there when the folder was first looked at are
 * not told. A record in one state of a file is one change, so that reading it again is harmless.
 */
final class DropSystem implements ReadingGateway {

  private static final int PAGE = 1_000;
  private static final long LARGEST_FILE = 16L << 20;

  /** A file that was changed more recently may still be being written. */
  private static final Duration REST = Duration.ofSeconds(2);

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private final SystemDescription system;
  private final Path folder;
  private final InstantSource clock;
  private final RateLimiter limiter;

  DropSystem(SystemDescription system, Surroundings surroundings) {
    this.system = system;
    this.folder = surroundings.drops().resolve(system.address().getSchemeSpecificPart());
    this.clock = surroundings.clock();
    this.limiter = new RateLimiter(system.limit());
  }

  private DropCollection collection(String id) {
    return (DropCollection) system.collection(id);
  }

  /**
   * How far the folder is read.
   *
   * @param files name to the state in which it was read
   * @param current the file that is being read; empty between files
   * @param row how many of its records were told
   */
  private record DropCursor(Map<String, String> files, String current, int row) {

    static DropCursor read(String text) {
      try {
        JsonNode root = JSON.readTree(text);
        Map<String, String> files = new LinkedHashMap<>();
        root.path("files")
            .properties()
            .forEach(entry -> files.put(entry.getKey(), entry.getValue().asText()));
        return new DropCursor(files, root.path("current").asText(), root.path("row").asInt());
      } catch (JsonProcessingException e) {
        throw new IllegalStateException("a mark that we wrote cannot be read: " + text, e);
      }
    }

    String write() {
      ObjectNode root = JSON.createObjectNode().put("current", current).put("row", row);
      ObjectNode states = root.putObject("files");
      files.forEach(states::put);
      return root.toString();
    }

    DropCursor through(String file, String state) {
      Map<String, String> more = new LinkedHashMap<>(files);
      more.put(file, state);
      return new DropCursor(more, "", 0);
    }
  }

  @Override
  public Changes changes(String collection, Cursor place, CallLog calls) {
    try {
      DropCollection described = collection(collection);
      Map<String, String> states = states(described);
      if (place.since().isEmpty() && place.page().isEmpty()) {
        return new Page(
            List.of(), Optional.empty(), Optional.of(new DropCursor(states, "", 0).write()));
      }
      DropCursor reached = DropCursor.read(place.page().or(place::since).orElseThrow());
      for (Map.Entry<String, String> file : states.entrySet()) {
        if (!file.getValue().equals(reached.files().get(file.getKey()))) {
          return page(described, file.getKey(), file.getValue(), reached);
        }
      }
      // Files that are gone need not be remembered.
      DropCursor settled = new DropCursor(states, "", 0);
      return new Page(List.of(), Optional.empty(), Optional.of(settled.write()));
    } catch (Unreadable e) {
      return new NotRead(unreadable(String.valueOf(e.getMessage())));
    } catch (IOException e) {
      return new NotRead(unreadable(e.toString()));
    }
  }

  private Page page(DropCollection described, String name, String state, DropCursor reached)
      throws IOException, Unreadable {
    List<JsonNode> records = records(described, name);
    int from = name.equals(reached.current()) ? Math.min(reached.row(), records.size()) : 0;
    int to = Math.min(records.size(), from + PAGE);
    List<Changed> changes = new ArrayList<>();
    for (JsonNode record : records.subList(from, to)) {
      changes.add(change(described, name, state, record));
    }
    DropCursor next =
        to == records.size()
            ? reached.through(name, state)
            : new DropCursor(reached.files(), name, to);
    return new Page(changes, Optional.of(next.write()), Optional.empty());
  }

  private static Changed change(
      DropCollection described, String name, String state, JsonNode record) {
    String id = described.id().in(record).asText("");
    return new Changed(
        id, digest(name + " " + state + " " + record), Optional.empty(), Optional.empty(), record);
  }

  private List<JsonNode> records(DropCollection described, String name)
      throws IOException, Unreadable {
    Path file = folder.resolve(name);
    if (Files.size(file) > LARGEST_FILE) {
      throw new Unreadable(name + " is larger than " + LARGEST_FILE + " bytes");
    }
    try {
      String text = Files.readString(file, StandardCharsets.UTF_8);
      List<JsonNode> records =
          described.reads().read(text.startsWith("\uFEFF") ? text.substring(1) : text);
      for (int i = 0; i < records.size(); i++) {
        if (described.id().in(records.get(i)).asText("").isBlank()) {
          throw new Unreadable("record %d has no id at “%s”".formatted(i + 1, described.id()));
        }
      }
      return records;
    } catch (CharacterCodingException e) {
      throw new Unreadable(name + " is not written in UTF-8");
    } catch (Unreadable e) {
      throw new Unreadable("In " + name + " " + e.getMessage());
    }
  }

  /** The files that are there and at rest, by name, each with its moment of change and size. */
  private Map<String, String> states(DropCollection described) throws IOException {
    Files.createDirectories(folder);
    Map<String, String> states = new LinkedHashMap<>();
    try (Stream<Path> files = Files.list(folder)) {
      for (Path file :
          files.filter(Files::isRegularFile).filter(described::fits).sorted().toList()) {
        var changed = Files.getLastModifiedTime(file).toInstant();
        if (!changed.plus(REST).isAfter(clock.instant())) {
          states.put(String.valueOf(file.getFileName()), changed + " " + Files.size(file));
        }
      }
    }
    return states;
  }

  private Failure unreadable(String why) {
    return Failure.of(FailureKind.VALUE_REFUSED, system.name() + " cannot be read: " + why)
        .withRemedy("Correct the file and drop it again; nothing of it was taken");
  }

  private static String digest(String text) {
    try {
      byte[] digest =
          MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
      return HexFormat.of().formatHex(digest, 0, 16);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }

  @Override
  public LookupAnswer list(String collection, int most, CallLog calls) {
    try {
      DropCollection described = collection(collection);
      List<JsonNode> records = new ArrayList<>();
      List<String> names =
          states(described).entrySet().stream()
              .sorted(Map.Entry.<String, String>comparingByValue(Comparator.reverseOrder()))
              .map(Map.Entry::getKey)
              .toList();
      for (String name : names) {
        if (records.size() < most) {
          records.addAll(records(described, name));
        }
      }
      return new Found(records.subList(0, Math.min(most, records.size())));
    } catch (Unreadable e) {
      return new Unanswered(unreadable(String.valueOf(e.getMessage())));
    } catch (IOException e) {
      return new Unanswered(unreadable(e.toString()));
    }
  }

  @Override
  public LookupAnswer find(String collection, SequencedMap<String, String> keys, CallLog calls) {
    return new Unanswered(
        Failure.of(FailureKind.SHAPE_CHANGED, system.name() + " finds no records by keys")
            .withRemedy("Look among the events received instead (from: events)"));
  }

  @Override
  public String name() {
    return system.name();
  }

  @Override
  public RateLimiter limiter() {
    return limiter;
  }

  @Override
  public void close() {
    // Nothing stays open.
  }
}
