package org.ysthmos.adapters.drop;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.time.Instant;
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
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.decide.World.LookupAnswer;
import org.ysthmos.core.decide.World.Unanswered;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.ReadingGateway;
import org.ysthmos.core.gateway.Seen;
import org.ysthmos.core.load.RateLimiter;

/**
 * Records in files that are dropped into a folder. A file that is dropped, or changed, is read from
 * its first record to its last; the files that stood there when the folder was first looked at are
 * not told. A record in one state of a file is one change, so that reading it again is harmless.
 */
final class DropSystem implements ReadingGateway {

  private static final int PAGE = 1_000;
  private static final int MOST_ASIDE = 50;
  private static final long LARGEST_FILE = 16L << 20;

  /** A file that was changed more recently may still be being written. */
  private static final Duration REST = Duration.ofSeconds(2);

  /** How long a file rests whose last line has no end: its last cell may be cut. */
  private static final Duration REST_UNENDED = Duration.ofSeconds(30);

  /** For how long the end of a file that has none may still come. */
  private static final Duration LONGEST_WRITING = Duration.ofMinutes(10);

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
   * @param current the file that is being read; empty between files
   * @param row how many of its records were told
   * @param files what an earlier form of the cursor held: name to the state in which it was read
   */
  private record DropCursor(String current, int row, Map<String, String> files) {

    static final DropCursor BETWEEN_FILES = new DropCursor("", 0, Map.of());

    static DropCursor read(String text) {
      try {
        JsonNode root = JSON.readTree(text);
        Map<String, String> files = new LinkedHashMap<>();
        root.path("files")
            .properties()
            .forEach(entry -> files.put(entry.getKey(), entry.getValue().asText()));
        return new DropCursor(root.path("current").asText(), root.path("row").asInt(), files);
      } catch (JsonProcessingException e) {
        throw new IllegalStateException("a cursor that we wrote cannot be read: " + text, e);
      }
    }

    String write() {
      return JSON.createObjectNode().put("current", current).put("row", row).toString();
    }
  }

  @Override
  public Changes changes(String collection, Cursor cursor, CallLog calls) {
    try {
      DropCollection described = collection(collection);
      Map<String, String> states = states(described);
      Optional<String> at = cursor.page().or(cursor::since);
      if (at.isEmpty()) {
        return settled(states);
      }
      DropCursor reached = DropCursor.read(at.get());
      if (!reached.files().isEmpty()) {
        return settled(reached.files());
      }
      return page(described, states, reached, cursor.seen());
    } catch (IOException e) {
      return new NotRead(unreadable(e.toString()));
    }
  }

  private static Page settled(Map<String, String> met) {
    return new Page(List.of(), Optional.empty(), Optional.of(DropCursor.BETWEEN_FILES.write()))
        .meeting(met);
  }

  /** What a page gathers from one file after the other. */
  private final class Gathered {
    private final List<Changed> changes = new ArrayList<>();
    private final Map<String, String> met = new LinkedHashMap<>();
    private final List<SetAside> aside = new ArrayList<>();
    private final List<Failure> troubles = new ArrayList<>();

    boolean isFull() {
      return changes.size() >= PAGE || aside.size() >= MOST_ASIDE;
    }

    /**
     * Takes a file as far as there is room. One that cannot be read is set aside as a whole:
     * nothing of it is taken.
     *
     * @return where to go on in it; the end of the file if it was taken whole
     */
    DropCursor take(DropCollection described, String name, String state, int from) {
      met.put(name, state);
      try {
        FileRecords read = records(described, name);
        List<JsonNode> records = read.records();
        if (from == 0) {
          read.remarks().forEach(remark -> troubles.add(found(name, remark)));
        }
        int to = Math.min(records.size(), from + PAGE - changes.size());
        for (JsonNode record : records.subList(Math.min(from, to), to)) {
          changes.add(change(described, name, state, record));
        }
        if (to < records.size()) {
          met.remove(name);
          return new DropCursor(name, to, Map.of());
        }
      } catch (NoSuchFileException e) {
        met.put(name, "");
      } catch (Unreadable e) {
        // Its end may still be written by a slow hand; for ever nobody waits.
        if (e.isCut() && isYounger(name, LONGEST_WRITING)) {
          met.remove(name);
          troubles.add(waits(name, String.valueOf(e.getMessage())));
        } else {
          setAside(name, state, e.getMessage() + "; nothing of the file was taken");
        }
      } catch (IOException | RuntimeException e) {
        setAside(name, state, "it cannot be read (" + e + ")");
      }
      return DropCursor.BETWEEN_FILES;
    }

    private Failure found(String name, String remark) {
      return Failure.of(
          FailureKind.SHAPE_CHANGED, "The file %s of %s %s".formatted(name, system.name(), remark));
    }

    private Failure waits(String name, String why) {
      return Failure.of(
              FailureKind.UNREADABLE,
              "The file %s of %s seems to be cut off: %s".formatted(name, system.name(), why))
          .withRemedy(
              "Its end is awaited for %d minutes; write it under a name that begins with a full stop and rename it when it is whole"
                  .formatted(LONGEST_WRITING.toMinutes()));
    }

    private void setAside(String name, String state, String why) {
      Failure failure =
          Failure.of(
                  FailureKind.UNREADABLE,
                  "The file %s of %s is not taken: %s".formatted(name, system.name(), why))
              .withRemedy("Correct the file and drop it again");
      aside.add(new SetAside(name, state, name, failure, beginning(name)));
    }

    Page page(Optional<DropCursor> next) {
      return new Page(
          changes,
          next.map(DropCursor::write),
          next.isPresent() ? Optional.empty() : Optional.of(DropCursor.BETWEEN_FILES.write()),
          met,
          aside,
          troubles);
    }
  }

  private Page page(
      DropCollection described, Map<String, String> states, DropCursor reached, Seen seen) {
    Gathered gathered = new Gathered();
    for (Map.Entry<String, String> file : states.entrySet()) {
      String name = file.getKey();
      if (seen.state(name).filter(file.getValue()::equals).isPresent()) {
        continue;
      }
      if (gathered.isFull()) {
        return gathered.page(Optional.of(DropCursor.BETWEEN_FILES));
      }
      int from = name.equals(reached.current()) ? reached.row() : 0;
      DropCursor on = gathered.take(described, name, file.getValue(), from);
      if (!on.current().isEmpty()) {
        return gathered.page(Optional.of(on));
      }
    }
    for (String name : seen.items().keySet()) {
      // Files that are gone need not be remembered.
      if (!states.containsKey(name) && !Files.exists(folder.resolve(name))) {
        gathered.met.put(name, "");
      }
    }
    return gathered.page(Optional.empty());
  }

  /** The beginning of a file, whatever it holds. */
  private String beginning(String name) {
    try (InputStream in = Files.newInputStream(folder.resolve(name))) {
      return new String(in.readNBytes(SetAside.LONGEST_RAW), StandardCharsets.UTF_8);
    } catch (IOException e) {
      return "(nothing of it can be had: " + e.getMessage() + ")";
    }
  }

  private static Changed change(
      DropCollection described, String name, String state, JsonNode record) {
    String id = described.id().in(record).asText("");
    return new Changed(
        id, digest(name + " " + state + " " + record), Optional.empty(), Optional.empty(), record);
  }

  private FileRecords records(DropCollection described, String name)
      throws IOException, Unreadable {
    Path file = folder.resolve(name);
    if (Files.size(file) > LARGEST_FILE) {
      throw new Unreadable("it is larger than " + LARGEST_FILE + " bytes");
    }
    FileForm.Decoded decoded = described.form().decode(Files.readAllBytes(file));
    FileRecords read = described.reads().read(decoded.text(), described.form());
    if (!decoded.text().endsWith("\n") && isYounger(name, REST_UNENDED)) {
      throw Unreadable.cut("its last line has no end yet");
    }
    for (int i = 0; i < read.records().size(); i++) {
      if (described.id().in(read.records().get(i)).asText("").isBlank()) {
        throw new Unreadable("record %d has no id at “%s”".formatted(i + 1, described.id()));
      }
    }
    return read.with(decoded.remarks());
  }

  /** Whether a file was changed less than so long ago; one that is gone was not. */
  private boolean isYounger(String name, Duration age) {
    try {
      Instant changed = Files.getLastModifiedTime(folder.resolve(name)).toInstant();
      return changed.plus(age).isAfter(clock.instant());
    } catch (IOException gone) {
      return false;
    }
  }

  /** The files that are there and at rest, by name, each with its moment of change and size. */
  private Map<String, String> states(DropCollection described) throws IOException {
    Files.createDirectories(folder);
    Map<String, String> states = new LinkedHashMap<>();
    try (Stream<Path> files = Files.list(folder)) {
      for (Path file :
          files.filter(Files::isRegularFile).filter(described::fits).sorted().toList()) {
        Instant changed = Files.getLastModifiedTime(file).toInstant();
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
      String unread = "";
      for (String name : names) {
        if (records.size() < most) {
          try {
            records.addAll(records(described, name).records());
          } catch (Unreadable e) {
            // Another file may do; why this one does not is told where it is taken.
            unread = name + ": " + e.getMessage();
          }
        }
      }
      return records.isEmpty() && !unread.isEmpty()
          ? new Unanswered(unreadable(unread))
          : new Found(records.subList(0, Math.min(most, records.size())));
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
