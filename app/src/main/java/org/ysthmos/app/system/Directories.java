package org.ysthmos.app.system;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.system.DirectoryMapper.EntryRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;

/** What systems call their people, lanes, lists and labels, as it was read last. */
@Component
public class Directories {

  private static final int LONGEST_NAME = 300;
  private static final int LONGEST_KEY = 256;

  /** A directory of a system. */
  private record Of(String system, String directory) {}

  /**
   * An entry that is not as it was.
   *
   * @param name what it is called, or was called last
   * @param was what it was called before; null if it is gone
   */
  public record Finding(
      String directory, String key, String name, @Nullable String was, Instant since) {}

  private final DirectoryMapper mapper;
  private final AppClock clock;
  private final TransactionTemplate transaction;
  private volatile Map<Of, SequencedMap<String, EntryRow>> entries = Map.of();

  Directories(DirectoryMapper mapper, AppClock clock, TransactionTemplate transaction) {
    this.mapper = mapper;
    this.clock = clock;
    this.transaction = transaction;
    reload();
  }

  private void reload() {
    Map<Of, SequencedMap<String, EntryRow>> fresh = new HashMap<>();
    for (EntryRow row : mapper.all()) {
      fresh
          .computeIfAbsent(new Of(row.systemId(), row.directoryId()), any -> new LinkedHashMap<>())
          .put(row.entryKey(), row);
    }
    entries = Map.copyOf(fresh);
  }

  private SequencedMap<String, EntryRow> entries(String system, String directory) {
    return entries.getOrDefault(new Of(system, directory), new LinkedHashMap<>());
  }

  /**
   * Takes note of what a directory holds now.
   *
   * @return whether anything is other than before
   */
  public synchronized boolean note(
      String system, String directory, SequencedMap<String, String> names) {
    Instant now = clock.instant();
    SequencedMap<String, EntryRow> before = entries(system, directory);
    List<EntryRow> added = new ArrayList<>();
    List<EntryRow> changed = new ArrayList<>();
    int place = 0;
    for (Map.Entry<String, String> entry : names.entrySet()) {
      EntryRow old = before.get(entry.getKey());
      EntryRow row = row(system, directory, entry, place++, old, now);
      if (old == null && entry.getKey().length() <= LONGEST_KEY) {
        added.add(row);
      } else if (old != null && !row.equals(old)) {
        changed.add(row);
      }
    }
    before.values().stream()
        .filter(old -> !names.containsKey(old.entryKey()) && old.goneAt() == null)
        .map(old -> gone(old, now))
        .forEach(changed::add);
    if (added.isEmpty() && changed.isEmpty()) {
      return false;
    }
    transaction.executeWithoutResult(
        status -> {
          added.forEach(mapper::add);
          changed.forEach(mapper::change);
        });
    reload();
    return true;
  }

  private static EntryRow row(
      String system,
      String directory,
      Map.Entry<String, String> entry,
      int place,
      @Nullable EntryRow old,
      Instant now) {
    String name = entry.getValue();
    String kept = name.length() <= LONGEST_NAME ? name : name.substring(0, LONGEST_NAME);
    if (old == null) {
      return new EntryRow(system, directory, entry.getKey(), kept, place, null, null, null);
    }
    boolean renamed = !old.name().equals(kept);
    return new EntryRow(
        system,
        directory,
        entry.getKey(),
        kept,
        place,
        renamed ? old.name() : old.was(),
        renamed ? now : old.renamedAt(),
        null);
  }

  private static EntryRow gone(EntryRow old, Instant now) {
    return new EntryRow(
        old.systemId(),
        old.directoryId(),
        old.entryKey(),
        old.name(),
        old.place(),
        old.was(),
        old.renamedAt(),
        now);
  }

  /** The names of what is there now, in the order of the system; none while it was never read. */
  public SequencedMap<String, String> names(String system, String directory) {
    SequencedMap<String, String> names = new LinkedHashMap<>();
    entries(system, directory)
        .forEach(
            (key, row) -> {
              if (row.goneAt() == null) {
                names.put(key, row.name());
              }
            });
    return names;
  }

  /** What an entry is called, or was called last; empty if it was never read. */
  public Optional<String> name(String system, String directory, String key) {
    return Optional.ofNullable(entries(system, directory).get(key)).map(EntryRow::name);
  }

  /** What vanished from the directories of a system, and what was renamed. */
  public List<Finding> findings(String system) {
    List<Finding> findings = new ArrayList<>();
    entries.forEach(
        (of, rows) -> {
          if (of.system().equals(system)) {
            rows.values().stream()
                .filter(row -> row.goneAt() != null || row.renamedAt() != null)
                .map(Directories::finding)
                .forEach(findings::add);
          }
        });
    return findings;
  }

  private static Finding finding(EntryRow row) {
    Instant gone = row.goneAt();
    return gone != null
        ? new Finding(row.directoryId(), row.entryKey(), row.name(), null, gone)
        : new Finding(
            row.directoryId(),
            row.entryKey(),
            row.name(),
            row.was(),
            Objects.requireNonNull(row.renamedAt()));
  }

  /** A collection whose fields have the names of their directories, where those were read. */
  CollectionShape named(CollectionShape shape) {
    return shape.withFields(
        shape.fields().stream().map(field -> named(shape.system(), field)).toList());
  }

  private FieldShape named(String system, FieldShape field) {
    if (field.directory().isEmpty()) {
      return field;
    }
    SequencedMap<String, String> names = names(system, field.directory());
    return names.isEmpty() ? field : field.withNames(names);
  }
}
