package org.ysthmos.adapters.system;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Base64;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.load.RateLimit;
import org.ysthmos.core.shape.CollectionShape;

/**
 * An outside system that speaks JSON over HTTP.
 *
 * @param address what all paths are relative to
 * @param signIn how calls are signed in; empty if they are not
 * @param timeout for one call, connecting and answering each
 * @param limit the most calls it answers in a span of time, where it says so
 * @param problem where the system's own error messages stand
 */
public record SystemDescription(
    String id,
    String name,
    URI address,
    Optional<SignIn> signIn,
    Duration timeout,
    Optional<RateLimit> limit,
    ProblemShape problem,
    Map<String, Collection> collections) {

  /** How a call says who makes it. Secrets are named here and kept elsewhere. */
  public sealed interface SignIn {

    /** The name of the secret. */
    String secret();

    /** The header that carries it. */
    default String header() {
      return "Authorization";
    }

    /**
     * The value of the header.
     *
     * @param kept the secret itself
     */
    String value(String kept);

    /** A bearer token (RFC 6750 section 2.1). */
    record Bearer(String secret) implements SignIn {
      @Override
      public String value(String kept) {
        return "Bearer " + kept;
      }
    }

    /** A user and a password (RFC 7617), in UTF-8. */
    record Basic(String user, String secret) implements SignIn {
      @Override
      public String value(String kept) {
        byte[] both = (user + ":" + kept).getBytes(StandardCharsets.UTF_8);
        return "Basic " + Base64.getEncoder().encodeToString(both);
      }
    }

    /** A key in a header of the system's own. */
    record Key(String header, String secret) implements SignIn {
      @Override
      public String value(String kept) {
        return kept;
      }
    }
  }

  /** Where an error answer holds its message and the field it is about. */
  public record ProblemShape(Pointer message, Pointer field) {}

  /**
   * A method and a path with slots such as {@code {id}}, each filled with its value
   * percent-encoded.
   */
  public record Call(String method, String path) {}

  /**
   * Finding records by key fields.
   *
   * @param by the key fields, which are the slots of the call
   * @param items where the list of records stands; empty if the answer is the one record
   */
  public record Find(List<String> by, Call call, Optional<Pointer> items) {}

  /**
   * Reading the newest records of a collection.
   *
   * @param items where the list of records stands
   * @param id where the id of a record stands in it
   */
  public record Listing(Call call, Pointer items, Pointer id) {}

  /** Searching a task by the idempotency key, the call's slot {@code {key}}. */
  public record FindByKey(Call call, Pointer items, Pointer id) {}

  /**
   * A call that writes some of a task's fields.
   *
   * @param keyField where the idempotency key is kept; empty if this call does not carry it
   */
  public record Write(Call call, List<String> fields, Optional<String> keyField) {}

  /**
   * How webhooks of a collection are read.
   *
   * @param secret the name of the secret that verifies them
   * @param record where the id of the record stands
   * @param kind where the kind of event stands
   * @param kinds the system's word for a kind to ours
   * @param version where the mark stands that tells one change of the record from the next; with it
   *     a change that is also asked for is one event
   */
  public record Push(
      String secret,
      Pointer record,
      Pointer kind,
      Map<String, String> kinds,
      Optional<Pointer> version) {}

  /**
   * Asking for records that changed, page by page.
   *
   * @param items where the list of records stands
   * @param version where the mark stands that tells one change of a record from the next
   * @param changed where the moment of the last change stands
   * @param created where the moment stands at which the record was made
   * @param since how to ask for later changes only; empty if all records are given each time
   * @param every how often it is asked, where a bridge says nothing else
   */
  public record Poll(
      Call call,
      Pointer items,
      Pointer id,
      Pointer version,
      Optional<Pointer> changed,
      Optional<Pointer> created,
      Optional<Since> since,
      Paging paging,
      Duration every) {}

  /**
   * Asking for what changed since.
   *
   * @param parameter the query parameter
   * @param cursor where an answer holds the mark to go on from; empty if the newest moment of
   *     change is sent
   */
  public record Since(String parameter, Optional<Pointer> cursor) {}

  /** How one page leads to the next. */
  public sealed interface Paging {

    /** There is one page. */
    record Whole() implements Paging {}

    /** The Link header of RFC 8288 names the next page by a relation, usually {@code next}. */
    record ByLink(String relation) implements Paging {}

    /** The answer holds a mark that is sent as a query parameter; none on the last page. */
    record ByCursor(Pointer at, String parameter) implements Paging {}

    /** Pages are numbered from 1; the first without a record is behind the last. */
    record ByNumber(String parameter) implements Paging {}
  }

  /**
   * One collection.
   *
   * @param page the page on which a person sees a record, with the slot {@code {id}}
   * @param list reads records without knowing one of them
   * @param poll asks for records that changed
   * @param create the calls that make a task, in order; the first gives the id
   * @param change the calls that change a task; only those whose fields changed are made
   * @param remove takes a task away, by its slot {@code {id}}
   */
  public record Collection(
      CollectionShape shape,
      Optional<String> page,
      List<Find> finds,
      Optional<Listing> list,
      Optional<Poll> poll,
      Optional<FindByKey> findByKey,
      List<Write> create,
      Pointer createdId,
      List<Write> change,
      Optional<Call> remove,
      Optional<Push> push) {

    /** The kinds of event that come from here, in our words; none if nothing comes. */
    public List<String> kinds() {
      Set<String> kinds = new LinkedHashSet<>();
      push.ifPresent(told -> kinds.addAll(told.kinds().values()));
      if (poll.isPresent()) {
        kinds.addAll(List.of("created", "changed"));
      }
      return List.copyOf(kinds);
    }

    /** Where an event of this collection holds the id of its record. */
    public Pointer recordInEvent() {
      return push.map(Push::record).or(() -> poll.map(Poll::id)).orElse(Pointer.parse("/id"));
    }

    /**
     * How many calls it takes to make or change a task.
     *
     * @param fields the fields that are delivered
     */
    public int calls(boolean creates, Set<String> fields) {
      List<Write> writes = creates ? create : change;
      int calls = 0;
      for (int i = 0; i < writes.size(); i++) {
        boolean makes = creates && i == 0;
        calls += makes || writes.get(i).fields().stream().anyMatch(fields::contains) ? 1 : 0;
      }
      return calls;
    }
  }

  /** The same system, reached at another address. */
  public SystemDescription at(URI other) {
    return new SystemDescription(id, name, other, signIn, timeout, limit, problem, collections);
  }
}
