package org.ysthmos.app.event;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.EventIndexMapper.EntryRow;
import org.ysthmos.app.event.EventIndexMapper.IndexRow;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.store.Chunks;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.core.json.Pointer;

/**
 * Finds events by values that came with them. An index is begun when its fields are first asked by:
 * what comes later is added when it is asked for again, what came before is added little by little.
 * Each event is read once for each index, however often is asked.
 */
@Component
public class EventIndex {

  private static final int PAGE = 500;

  /** How many pages are added at a time, before others are let at the disk for a while. */
  private static final int PAGES = 20;

  /** How many events of one value are given at most. */
  static final int MOST_FOUND = 200;

  /**
   * What an index says of values.
   *
   * @param events the order numbers of events that may hold them, newest first
   * @param from from which order number on all are known; 0 if all are
   */
  record Known(List<Long> events, long from) {}

  private final EventIndexMapper mapper;
  private final EventMapper events;
  private final Journal journal;
  private final DiskRoom room;

  EventIndex(EventIndexMapper mapper, EventMapper events, Journal journal, DiskRoom room) {
    this.mapper = mapper;
    this.events = events;
    this.journal = journal;
    this.room = room;
  }

  /**
   * The events that may hold these values, by address; an equal hash does not prove it. The index
   * is begun if there is none.
   */
  Known find(String system, String collection, Map<String, String> values) {
    SortedMap<String, String> sorted = new TreeMap<>(values);
    IndexRow index = caughtUp(index(system, collection, String.join("\n", sorted.keySet())));
    return new Known(mapper.events(index.id(), hash(sorted.values()), MOST_FOUND), index.fromSeq());
  }

  private IndexRow index(String system, String collection, String fields) {
    IndexRow known = mapper.find(system, collection, fields);
    if (known != null) {
      return known;
    }
    journal.runSoon(
        () -> {
          if (mapper.find(system, collection, fields) == null) {
            // Events that were made up for a try have numbers of their own, ahead of what comes.
            List<EventRow> newest = events.newest(system, collection, Long.MAX_VALUE, 1);
            long at = newest.isEmpty() ? 1 : newest.getFirst().seq() + 1;
            mapper.begin(system, collection, fields, at);
          }
        });
    return Objects.requireNonNull(mapper.find(system, collection, fields));
  }

  /** Adds what came since it was asked last. */
  private IndexRow caughtUp(IndexRow index) {
    IndexRow at = index;
    while (true) {
      List<EventRow> page = events.oldest(at.systemId(), at.collectionId(), at.toSeq() - 1, PAGE);
      if (page.isEmpty()) {
        return at;
      }
      IndexRow from = at;
      long to = page.getLast().seq() + 1;
      List<EntryRow> entries = entries(at, page);
      journal.runSoon(
          () -> {
            if (mapper.reachOn(from.id(), from.toSeq(), to) == 1) {
              Chunks.each(entries, mapper::add);
            }
          });
      at = Objects.requireNonNull(mapper.find(at.systemId(), at.collectionId(), at.fields()));
    }
  }

  /** Adds some of what came before indexes were begun. */
  @Scheduled(initialDelay = 2_000, fixedDelay = 500)
  public void reachBack() {
    if (!room.isEnough()) {
      return;
    }
    for (IndexRow index : mapper.unfinished()) {
      IndexRow at = index;
      for (int i = 0; i < PAGES && at.fromSeq() > 0; i++) {
        at = reachBack(at);
      }
    }
  }

  private IndexRow reachBack(IndexRow index) {
    List<EventRow> page =
        events.newest(index.systemId(), index.collectionId(), index.fromSeq(), PAGE);
    long to = page.size() < PAGE ? 0 : page.getLast().seq();
    List<EntryRow> entries = entries(index, page);
    journal.runSoon(
        () -> {
          if (mapper.reachBack(index.id(), index.fromSeq(), to) == 1) {
            Chunks.each(entries, mapper::add);
          }
        });
    return Objects.requireNonNull(
        mapper.find(index.systemId(), index.collectionId(), index.fields()));
  }

  /** Removes events from the indexes; inside a change. */
  public void remove(List<Long> seqs) {
    mapper.remove(seqs);
  }

  private static List<EntryRow> entries(IndexRow index, List<EventRow> page) {
    List<Pointer> fields = index.fields().lines().map(Pointer::parse).toList();
    List<EntryRow> entries = new ArrayList<>();
    for (EventRow row : page) {
      ReceivedEvents.json(row)
          .flatMap(data -> values(data, fields))
          .ifPresent(held -> entries.add(new EntryRow(index.id(), hash(held), row.seq())));
    }
    return entries;
  }

  /** What stands at the addresses; empty if one of them holds no value. */
  static Optional<List<String>> values(JsonNode data, List<Pointer> fields) {
    List<String> values = new ArrayList<>();
    for (Pointer field : fields) {
      JsonNode held = field.in(data);
      if (!held.isValueNode() || held.isNull()) {
        return Optional.empty();
      }
      values.add(held.asText());
    }
    return Optional.of(values);
  }

  /** The first eight bytes of a SHA-256 of the values, each with its length before it. */
  private static long hash(Iterable<String> values) {
    try {
      MessageDigest digest = MessageDigest.getInstance("SHA-256");
      for (String value : values) {
        byte[] bytes = value.getBytes(StandardCharsets.UTF_8);
        digest.update(ByteBuffer.allocate(Integer.BYTES).putInt(bytes.length).flip());
        digest.update(bytes);
      }
      return ByteBuffer.wrap(digest.digest()).getLong();
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }
}
