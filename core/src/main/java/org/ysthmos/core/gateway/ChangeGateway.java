package org.ysthmos.core.gateway;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.ysthmos.core.failure.Failure;

/** Asks one system what changed, page by page. */
public interface ChangeGateway {

  /**
   * Where to read on.
   *
   * @param since what an earlier pass ended with; empty to read from the beginning
   * @param page what the page before said of the next; empty for the first page of a pass
   */
  record Cursor(Optional<String> since, Optional<String> page) {
    public static final Cursor BEGINNING = new Cursor(Optional.empty(), Optional.empty());
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
   * @param since a mark given with the page from which a later pass goes on; empty if the system
   *     gives none
   */
  record Page(List<Changed> records, Optional<String> next, Optional<String> since)
      implements Changes {
    public Page {
      records = List.copyOf(records);
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
