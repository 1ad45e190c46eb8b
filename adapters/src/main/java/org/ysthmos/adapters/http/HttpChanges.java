package org.ysthmos.adapters.http;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.net.URI;
import java.net.URISyntaxException;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.hc.core5.net.URIBuilder;
import org.ysthmos.adapters.http.HttpCaller.Answer;
import org.ysthmos.adapters.http.HttpCaller.Answered;
import org.ysthmos.adapters.http.HttpCollection.Paging;
import org.ysthmos.adapters.http.HttpCollection.Poll;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Changes;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.RemoteCall.Purpose;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.value.Moment;

/** Reads one page of changed records as a collection's {@code poll} describes it. */
final class HttpChanges {

  private final SystemDescription system;
  private final Poll poll;
  private final HttpCaller caller;
  private final HttpFailures failures;

  HttpChanges(SystemDescription system, Poll poll, HttpCaller caller, HttpFailures failures) {
    this.system = system;
    this.poll = poll;
    this.caller = caller;
    this.failures = failures;
  }

  /** The answer is not as described; the message says what is wrong with it. */
  private static final class Unfit extends Exception {
    Unfit(String message) {
      super(message);
    }
  }

  Changes read(Cursor place, CallLog calls) {
    try {
      URI address = address(place);
      Answer answer =
          caller.call(
              HttpCaller.Sending.json(
                  Purpose.POLL, poll.call().method(), address, Map.of(), MissingNode.getInstance()),
              calls);
      return answer instanceof Answered answered && answered.status() / 100 == 2
          ? page(place, address, answered)
          : new NotRead(failures.of(answer, false));
    } catch (Unfit e) {
      return new NotRead(failures.shapeChanged(String.valueOf(e.getMessage())));
    }
  }

  private URI address(Cursor place) throws Unfit {
    if (poll.paging() instanceof Paging.ByLink && place.page().isPresent()) {
      return sameHost(URI.create(place.page().get()));
    }
    try {
      URIBuilder address = new URIBuilder(URI.create(system.address() + poll.call().path()));
      if (poll.since().isPresent() && place.since().isPresent()) {
        address.setParameter(poll.since().get().parameter(), place.since().get());
      }
      if (place.page().isPresent()) {
        switch (poll.paging()) {
          case Paging.ByCursor(var at, String parameter) ->
              address.setParameter(parameter, place.page().get());
          case Paging.ByNumber(String parameter) ->
              address.setParameter(parameter, place.page().get());
          case Paging.ByLink link -> {}
          case Paging.Whole whole -> {}
        }
      }
      return address.build();
    } catch (URISyntaxException e) {
      throw new IllegalArgumentException("a poll of " + system.name() + " has no address", e);
    }
  }

  /** A link that leads elsewhere would take the token there. */
  private URI sameHost(URI link) throws Unfit {
    URI home = system.address();
    if (!home.getScheme().equalsIgnoreCase(link.getScheme())
        || !home.getAuthority().equalsIgnoreCase(link.getAuthority())) {
      throw new Unfit("the next page is said to stand at another address, " + link);
    }
    return link;
  }

  private Page page(Cursor place, URI address, Answered answered) throws Unfit {
    JsonNode items = poll.items().in(answered.body());
    if (!items.isArray()) {
      throw new Unfit("no list stands at “" + poll.items() + "”");
    }
    List<Changed> records = new ArrayList<>(items.size());
    for (JsonNode item : items) {
      records.add(record(item));
    }
    Optional<String> since =
        poll.since().flatMap(HttpCollection.Since::cursor).flatMap(at -> text(at, answered.body()));
    Optional<String> next = next(place, address, answered, records.isEmpty());
    if (next.isPresent() && next.equals(place.page())) {
      throw new Unfit("the page is said to be followed by itself, " + next.get());
    }
    return new Page(records, next, since);
  }

  private Changed record(JsonNode item) throws Unfit {
    String id = text(poll.id(), item).orElseThrow(() -> lacks("id", poll.id()));
    String version = text(poll.version(), item).orElseThrow(() -> lacks("version", poll.version()));
    return new Changed(
        id, version, moment(poll.changed(), item), moment(poll.created(), item), item);
  }

  private static Unfit lacks(String what, Pointer at) {
    return new Unfit("a record has no " + what + " at “" + at + "”");
  }

  private Optional<String> next(Cursor place, URI address, Answered answered, boolean empty)
      throws Unfit {
    return switch (poll.paging()) {
      case Paging.Whole whole -> Optional.empty();
      case Paging.ByLink(String relation) -> linked(relation, address, answered);
      case Paging.ByCursor(Pointer at, var parameter) -> text(at, answered.body());
      case Paging.ByNumber number ->
          empty
              ? Optional.empty()
              : Optional.of(String.valueOf(place.page().map(Integer::parseInt).orElse(1) + 1));
    };
  }

  private Optional<String> linked(String relation, URI address, Answered answered) throws Unfit {
    try {
      Optional<URI> link = LinkHeader.find(answered.links(), relation, address);
      return link.isEmpty() ? Optional.empty() : Optional.of(sameHost(link.get()).toString());
    } catch (IllegalArgumentException e) {
      throw new Unfit("the link to the next page is no address: " + e.getMessage());
    }
  }

  private static Optional<String> text(Pointer at, JsonNode in) {
    JsonNode found = at.in(in);
    return found.isValueNode() && !found.isNull() && !found.asText().isEmpty()
        ? Optional.of(found.asText())
        : Optional.empty();
  }

  private static Optional<Instant> moment(Optional<Pointer> at, JsonNode item) throws Unfit {
    if (at.isEmpty()) {
      return Optional.empty();
    }
    Optional<String> text = text(at.get(), item);
    try {
      return text.map(written -> Moment.parse(written).instant());
    } catch (DateTimeParseException e) {
      throw new Unfit(
          "“%s” at “%s” is no moment as RFC 3339 writes it".formatted(text.orElse(""), at.get()));
    }
  }
}
