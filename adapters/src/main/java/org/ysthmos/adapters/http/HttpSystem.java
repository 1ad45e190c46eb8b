package org.ysthmos.adapters.http;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.net.URI;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import org.ysthmos.adapters.http.HttpCaller.Answer;
import org.ysthmos.adapters.http.HttpCaller.Answered;
import org.ysthmos.adapters.http.HttpCollection.Call;
import org.ysthmos.adapters.http.HttpCollection.Find;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.decide.World.LookupAnswer;
import org.ysthmos.core.decide.World.Unanswered;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.DirectoryReading;
import org.ysthmos.core.gateway.QuotaReading;
import org.ysthmos.core.gateway.RemoteCall.Purpose;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.load.RateLimiter;

/** A system that speaks JSON over HTTP, as its document describes it. */
public final class HttpSystem implements SystemGateway {

  private final SystemDescription system;
  private final RateLimiter limiter;
  private final HttpCaller caller;
  private final HttpFailures failures;
  private final Optional<HttpProtocol.Quota> quota;
  private final Map<String, HttpProtocol.Directory> directories;

  HttpSystem(SystemDescription system, HttpProtocol protocol, Surroundings surroundings) {
    this.system = system;
    this.limiter = new RateLimiter(system.limit());
    this.caller =
        new HttpCaller(system, new HttpLimiter(limiter, protocol.limitHeaders()), surroundings);
    this.failures = new HttpFailures(system, protocol.problem());
    this.quota = protocol.quota();
    this.directories = protocol.directories();
  }

  @Override
  public LookupAnswer find(String collection, SequencedMap<String, String> keys, CallLog calls) {
    Optional<Find> find =
        collection(collection).finds().stream()
            .filter(f -> Set.copyOf(f.by()).equals(keys.keySet()))
            .findFirst();
    if (find.isEmpty()) {
      return new Unanswered(
          Failure.of(
                  FailureKind.SHAPE_CHANGED,
                  system.name() + " cannot find records by " + String.join(", ", keys.keySet()))
              .withRemedy("Describe such a call in the system's document"));
    }
    Answer answer = call(Purpose.READ, find.get().call(), keys, MissingNode.getInstance(), calls);
    if (!(answer instanceof Answered answered)) {
      return new Unanswered(failures.of(answer, false));
    }
    if (answered.status() == 404 || answered.status() == 410) {
      return new Found(List.of());
    }
    if (answered.status() / 100 != 2) {
      return new Unanswered(failures.of(answer, false));
    }
    return found(find.get(), answered);
  }

  private LookupAnswer found(Find find, Answered answered) {
    return find.items()
        .map(items -> items(items, answered.body()))
        .orElseGet(() -> new Found(List.of(answered.body()), answered.tag(), answered.ahead()));
  }

  private LookupAnswer items(Pointer at, JsonNode body) {
    JsonNode items = at.in(body);
    if (!items.isArray()) {
      return new Unanswered(shapeChanged("no list stands at “" + at + "”"));
    }
    List<JsonNode> records = new ArrayList<>();
    items.forEach(records::add);
    return new Found(records);
  }

  @Override
  public LookupAnswer list(String collection, int most, CallLog calls) {
    Optional<HttpCollection.Listing> list = collection(collection).list();
    if (list.isEmpty()) {
      return new Unanswered(
          Failure.of(FailureKind.SHAPE_CHANGED, system.name() + " lists no records")
              .withRemedy("Describe such a call as “list” in the system's document"));
    }
    Answer answer =
        call(Purpose.READ, list.get().call(), Map.of(), MissingNode.getInstance(), calls);
    if (!(answer instanceof Answered answered) || answered.status() / 100 != 2) {
      return new Unanswered(failures.of(answer, false));
    }
    return switch (items(list.get().items(), answered.body())) {
      case Found found when found.records().size() > most ->
          new Found(found.records().subList(0, most));
      case LookupAnswer whole -> whole;
    };
  }

  @Override
  public Changes changes(String collection, Cursor place, CallLog calls) {
    return page(
        collection(collection).poll(),
        place,
        system.name() + " is not asked for changes",
        "Describe such a call as “poll” in the system's document",
        calls);
  }

  @Override
  public Changes whole(String collection, Optional<String> page, CallLog calls) {
    return page(
        collection(collection).allOfIt(),
        new Cursor(Optional.empty(), page),
        system.name() + " is not asked for all of a collection",
        "Say how the pages of its “list” follow one another (next) in the system's document",
        calls);
  }

  private Changes page(
      Optional<HttpCollection.Poll> how,
      Cursor place,
      String lacking,
      String remedy,
      CallLog calls) {
    return how.<Changes>map(
            poll -> new HttpChanges(system, poll, caller, failures).read(place, calls))
        .orElseGet(
            () -> new NotRead(Failure.of(FailureKind.SHAPE_CHANGED, lacking).withRemedy(remedy)));
  }

  private Failure shapeChanged(String what) {
    return failures.shapeChanged(what);
  }

  @Override
  public Search findByKey(String collection, String idempotencyKey, CallLog calls) {
    Optional<HttpCollection.FindByKey> find = collection(collection).findByKey();
    if (find.isEmpty()) {
      return new Unsearchable();
    }
    Answer answer =
        call(
            Purpose.FIND_BY_KEY,
            find.get().call(),
            Map.of("key", idempotencyKey),
            MissingNode.getInstance(),
            calls);
    if (!(answer instanceof Answered answered) || answered.status() / 100 != 2) {
      return new Unsearched(failures.of(answer, false));
    }
    JsonNode items = find.get().items().in(answered.body());
    if (!items.isArray()) {
      return new Unsearched(shapeChanged("no list stands at “" + find.get().items() + "”"));
    }
    return new Searched(
        items.isEmpty()
            ? Optional.empty()
            : Optional.of(find.get().id().in(items.get(0)).asText()));
  }

  @Override
  public Outcome deliver(Effect effect, Progress progress, CallLog calls) {
    return new HttpDelivery(this, failures, collection(effect.collection()), effect, calls)
        .make(progress);
  }

  @Override
  public Removal remove(String collection, String record, Optional<String> tag, CallLog calls) {
    Optional<Call> remove = collection(collection).remove();
    if (remove.isEmpty()) {
      return new NotRemoved(
          Failure.of(FailureKind.NOT_ALLOWED, system.name() + " takes no records away")
              .withRemedy("Take it away there by hand, or describe such a call as “remove”"));
    }
    Map<String, String> headers = tag.map(read -> Map.of("If-Match", read)).orElse(Map.of());
    Answer answer =
        call(
            Purpose.REMOVE,
            remove.get(),
            Map.of("id", record),
            headers,
            MissingNode.getInstance(),
            calls);
    if (answer instanceof Answered answered
        && (answered.status() / 100 == 2 || answered.status() == 404 || answered.status() == 410)) {
      return new Removed();
    }
    return new NotRemoved(failures.of(answer, true));
  }

  @Override
  public Optional<QuotaReading> quota(CallLog calls) {
    return quota.map(wanted -> read(wanted, calls));
  }

  private QuotaReading read(HttpProtocol.Quota wanted, CallLog calls) {
    Answer answer =
        call(Purpose.READ_QUOTA, wanted.call(), Map.of(), MissingNode.getInstance(), calls);
    if (!(answer instanceof Answered answered) || answered.status() / 100 != 2) {
      return new QuotaReading.Unread(failures.of(answer, false));
    }
    JsonNode used = wanted.used().in(answered.body());
    JsonNode most = wanted.most().in(answered.body());
    if (!used.canConvertToLong() || !most.canConvertToLong() || most.asLong() < 1) {
      return new QuotaReading.Unread(
          shapeChanged("no numbers stand at “" + wanted.used() + "” and “" + wanted.most() + "”"));
    }
    return new QuotaReading.Filled(wanted.of(), used.asLong(), most.asLong());
  }

  @Override
  public Map<String, DirectoryReading> directories(CallLog calls) {
    Map<String, DirectoryReading> read = new LinkedHashMap<>();
    directories.forEach((id, directory) -> read.put(id, read(directory, calls)));
    return read;
  }

  private DirectoryReading read(HttpProtocol.Directory directory, CallLog calls) {
    Answer answer =
        call(Purpose.READ_NAMES, directory.call(), Map.of(), MissingNode.getInstance(), calls);
    if (!(answer instanceof Answered answered) || answered.status() / 100 != 2) {
      return new DirectoryReading.Unread(failures.of(answer, false));
    }
    JsonNode items = directory.items().in(answered.body());
    if (!items.isArray()) {
      return new DirectoryReading.Unread(
          shapeChanged("no list of names stands at “" + directory.items() + "”"));
    }
    SequencedMap<String, String> names = new LinkedHashMap<>();
    for (JsonNode item : items) {
      JsonNode key = directory.id().in(item);
      if (key.isValueNode() && !key.isNull()) {
        names.put(key.asText(), directory.name().in(item).asText(key.asText()));
      }
    }
    return new DirectoryReading.Names(names);
  }

  private HttpCollection collection(String id) {
    return (HttpCollection) system.collection(id);
  }

  private Answer call(
      Purpose purpose, Call call, Map<String, String> slots, JsonNode body, CallLog calls) {
    return call(purpose, call, slots, Map.of(), body, calls);
  }

  Answer call(
      Purpose purpose,
      Call call,
      Map<String, String> slots,
      Map<String, String> headers,
      JsonNode body,
      CallLog calls) {
    String path = call.path();
    for (Map.Entry<String, String> slot : slots.entrySet()) {
      path = path.replace("{" + slot.getKey() + "}", encode(slot.getValue()));
    }
    return caller.call(
        HttpCaller.Sending.json(
            purpose, call.method(), URI.create(system.address() + path), headers, body),
        calls);
  }

  private static String encode(String value) {
    return URLEncoder.encode(value, StandardCharsets.UTF_8).replace("+", "%20");
  }

  @Override
  public RateLimiter limiter() {
    return limiter;
  }

  @Override
  public void close() {
    caller.close();
  }
}
