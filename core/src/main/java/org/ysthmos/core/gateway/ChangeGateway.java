package org.ysthmos.core.gateway;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.failure.Failure;

/** Asks one system what changed, page by page. */
public interface ChangeGateway {

  /**
   * Where to read on.
   *
   * @param since what an earlier pass ended with; empty to read from the beginning
   * @param page what the page before said of the next; empty for the first page of a pass
   * @param seen what was met before, for what cannot be asked for changes
   */
  record Cursor(Optional<String> since, Optional<String> page, Seen seen) {
    public static final Cursor BEGINNING = new Cursor(Optional.empty(), Optional.empty());

    /** Where nothing was met before. */
    public Cursor(Optional<String> since, Optional<String> page) {
      this(since, page, Seen.NOTHING);
    }

    /** The same, with what was met before. */
    public Cursor having(Seen met) {
      return new Cursor(since, page, met);
    }
  }

  /**
   * A record as it stands now.
   *
   * @param version tells one change of the record from the next
   * @param changed when it was changed last, if the system says so
   * @param created when it was made, if the system says so
   * @param kind what happened to it, where the system itself says so
   */
  record Changed(
      String id,
      String version,
      Optional<Instant> changed,
      Optional<Instant> created,
      Optional<String> kind,
      JsonNode record) {

    /** A record whose system does not say what happened to it. */
    public Changed(
        String id,
        String version,
        Optional<Instant> changed,
        Optional<Instant> created,
        JsonNode record) {
      this(id, version, changed, created, Optional.empty(), record);
    }
  }

  /** What asking for a page came to. */
  sealed interface Changes permits Page, NotRead {}

  /**
   * One page.
   *
   * @param next where the next page of this pass stands; empty on the last
   * @param since a cursor given with the page from which a later pass goes on; empty if the system
   *     gives none
   * @param met the items that were met, each with its state; an empty state for one that is gone
   * @param aside what changed and cannot be read
   * @param troubles what could not be looked at, while the rest was
   */
  record Page(
      List<Changed> records,
      Optional<String> next,
      Optional<String> since,
      Map<String, String> met,
      List<SetAside> aside,
      List<Failure> troubles)
      implements Changes {
    public Page {
      records = List.copyOf(records);
      met = Map.copyOf(met);
      aside = List.copyOf(aside);
      troubles = List.copyOf(troubles);
    }

    /** A page of a system that says itself what changed. */
    public Page(List<Changed> records, Optional<String> next, Optional<String> since) {
      this(records, next, since, Map.of(), List.of(), List.of());
    }

    /** The same, with what was met on it. */
    public Page meeting(Map<String, String> items) {
      return new Page(records, next, since, items, aside, troubles);
    }

    /** The same, with what cannot be read. */
    public Page settingAside(List<SetAside> unreadable) {
      return new Page(records, next, since, met, unreadable, troubles);
    }
  }

  /**
   * Something that changed and cannot be read. It holds nothing else back.
   *
   * @param id by which it is known where it stands
   * @param version tells one state of it from the next
   * @param what its name for people: a mail by its folder and subject, a file by its name
   * @param failure why it cannot be read, and what to do
   * @param raw the beginning of what stands there
   */
  record SetAside(String id, String version, String what, Failure failure, String raw) {

    /** What is kept of what stands there, in characters. */
    public static final int LONGEST_RAW = 16_000;

    public SetAside {
      raw = raw.length() <= LONGEST_RAW ? raw : raw.substring(0, LONGEST_RAW) + "…";
    }
  }

  /** The page could not be read. */
  record NotRead(Failure failure) implements Changes {}

  /**
   * Reads one page of the records that changed.
   *
   * @param calls told of each call made, also of those that failed
   */
  Changes changes(String collection, Cursor place, CallLog calls);

  /**
   * Reads one page of all that stands in a collection, whenever it changed.
   *
   * @param page what the page before said of the next; empty for the first
   * @param calls told of each call made, also of those that failed
   */
  default Changes whole(String collection, Optional<String> page, CallLog calls) {
    return changes(collection, new Cursor(Optional.empty(), page), calls);
  }

  /** Listening that goes on until it is closed. */
  interface Listening extends AutoCloseable {
    @Override
    void close();
  }

  /**
   * Listens for word of a change, where the system gives it. It is a hint to ask at once; what
   * changed is still asked for.
   *
   * @param changed run at each word, from a thread of the gateway
   * @return empty if the system gives no word
   */
  default Optional<Listening> listen(String collection, Runnable changed) {
    return Optional.empty();
  }
}
