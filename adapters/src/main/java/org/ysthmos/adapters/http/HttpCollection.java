package org.ysthmos.adapters.http;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.ysthmos.adapters.system.PollSpec;
import org.ysthmos.adapters.system.Push;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.core.delivery.Promise;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.value.Value;

/**
 * One collection of a system that speaks JSON over HTTP.
 *
 * @param page the page on which a person sees a record, with the slot {@code {id}}
 * @param list reads records without knowing one of them
 * @param poll asks for records that changed
 * @param create the calls that make a task, in order; the first gives the id
 * @param change the calls that change a task; only those whose fields changed are made
 * @param remove takes a task away, by its slot {@code {id}}
 * @param closing what a task holds that is closed, by the key of the field; empty if none is
 */
public record HttpCollection(
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
    SequencedMap<String, Value> closing,
    Optional<Push> push)
    implements SystemCollection {

  /** A fraction of a second that is not nothing. */
  private static final Pattern FINE_MOMENT = Pattern.compile(":\\d\\d\\.0*[1-9]");

  /**
   * A method and a path with slots such as {@code {id}}, each filled with its value
   * percent-encoded.
   */
  public record Call(String method, String path) {

    private static final Pattern SLOT = Pattern.compile("\\{([^{}/]+)}");

    /** The names of its slots, in order. */
    List<String> slots() {
      return SLOT.matcher(path).results().map(slot -> slot.group(1)).toList();
    }
  }

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
   * @param next how one page leads to the next, until all records were read; empty if only the
   *     newest can be
   */
  public record Listing(Call call, Pointer items, Pointer id, Optional<Paging> next) {

    /** All records, asked for as what changed is. */
    Optional<Poll> asPoll() {
      return next.map(
          paging ->
              new Poll(
                  call,
                  items,
                  id,
                  /* version= */ id,
                  Optional.empty(),
                  Optional.empty(),
                  Optional.empty(),
                  paging,
                  PollSpec.USUAL_INTERVAL));
    }
  }

  /** Searching a task by the idempotency key, the call's slot {@code {key}}. */
  public record FindByKey(Call call, Pointer items, Pointer id) {}

  /**
   * A call that writes some of a task's fields. Its slots are the task's id and fields of it, such
   * as the list that it stands in.
   *
   * @param keyField the field that keeps the idempotency key; empty if none does
   * @param keyHeader the header that carries the idempotency key, by which the system knows a call
   *     that it already carried out; empty if none does
   * @param ifMatch whether the task's entity tag is read first and sent as {@code If-Match} (RFC
   *     9110 section 13.1.1), so that a change that was made meanwhile is noticed
   * @param whole whether the task is read first and sent whole with what changes in it, as a call
   *     wants it that takes the place of all (PUT, RFC 9110 section 9.3.4)
   * @param answersWhole whether its answer holds the task as it would be read by itself, so that a
   *     field which is not in it is empty there
   * @param at where the fields stand in the body, and in the answer if they stand there too
   */
  public record Write(
      Call call,
      List<Placed> fields,
      Optional<String> keyField,
      Optional<String> keyHeader,
      boolean ifMatch,
      boolean whole,
      boolean answersWhole,
      Pointer at) {

    /** The fields that stand in the address of the call. */
    List<String> addressed() {
      return call.slots().stream().filter(slot -> !slot.equals("id")).toList();
    }

    /** How many calls it takes to change something by it. */
    int changeCalls() {
      return ifMatch || whole ? 2 : 1;
    }
  }

  /**
   * A field that a call writes.
   *
   * @param at where it stands below {@link Write#at}
   */
  public record Placed(String field, Pointer at) {}

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

  @Override
  public List<List<String>> findsBy() {
    return finds.stream().map(Find::by).toList();
  }

  @Override
  public Optional<Pointer> lists() {
    return list.map(Listing::id);
  }

  /** How all of its records are read: from its list, or as all that ever changed. */
  Optional<Poll> allOfIt() {
    return list.flatMap(Listing::asPoll).or(() -> poll);
  }

  @Override
  public boolean listsAll() {
    return allOfIt().isPresent();
  }

  @Override
  public Optional<PollSpec> polled() {
    return poll.map(
        how ->
            new PollSpec(
                how.every(),
                how.id(),
                how.version(),
                how.since().filter(since -> since.cursor().isEmpty()).isPresent(),
                how.paging() instanceof Paging.ByNumber,
                PollSpec.USUAL_KINDS));
  }

  @Override
  public Optional<Pointer> changedAt() {
    return poll.flatMap(Poll::changed);
  }

  /**
   * A version may stand in what changed alone. The moment of change then tells one state from
   * another as well, if it is finer than a second: nobody else's change has the same.
   */
  @Override
  public List<String> marks(JsonNode record) {
    return Stream.concat(
            SystemCollection.super.marks(record).stream(),
            poll.flatMap(Poll::changed).map(at -> at.in(record).asText()).stream()
                .filter(moment -> FINE_MOMENT.matcher(moment).find()))
        .distinct()
        .toList();
  }

  @Override
  public boolean findsByKey() {
    return findByKey.isPresent();
  }

  @Override
  public Promise promise() {
    if (findsByKey()) {
      return Promise.FOUND_BY_KEY;
    }
    boolean keyed = !create.isEmpty() && create.getFirst().keyHeader().isPresent();
    return keyed ? Promise.KNOWN_BY_KEY : Promise.NONE;
  }

  @Override
  public boolean makes() {
    return !create.isEmpty();
  }

  @Override
  public boolean changes() {
    return !change.isEmpty();
  }

  @Override
  public boolean removes() {
    return remove.isPresent();
  }

  @Override
  public int mostCalls() {
    int changes = change.stream().mapToInt(Write::changeCalls).sum();
    return Math.max(1, Math.max(create.size(), changes));
  }

  @Override
  public int calls(boolean creates, Set<String> fields) {
    List<Write> writes = creates ? create : change;
    int calls = 0;
    for (int i = 0; i < writes.size(); i++) {
      boolean makes = creates && i == 0;
      if (makes || writes.get(i).fields().stream().map(Placed::field).anyMatch(fields::contains)) {
        calls += makes ? 1 : writes.get(i).changeCalls();
      }
    }
    return calls;
  }
}
