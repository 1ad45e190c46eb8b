package org.ysthmos.adapters.dav;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import java.util.Set;
import java.util.function.BiPredicate;
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
 * Documents by WebDAV. All folders are listed at each pass, since few servers tell what changed; a
 * document's path and tag make reading it again harmless.
 */
final class DocumentSystem implements ReadingGateway {

  private final SystemDescription system;
  private final DavCalls calls;

  DocumentSystem(SystemDescription system, Surroundings surroundings) {
    this.system = system;
    this.calls = new DavCalls(system, surroundings);
  }

  private DocumentCollection collection(String id) {
    return (DocumentCollection) system.collection(id);
  }

  @Override
  public Changes changes(String collection, Cursor cursor, CallLog log) {
    Map<String, String> seen = cursor.seen().items();
    // What stands as it was met need not be held: most of a large library does.
    DocumentListing listing =
        new DocumentListing(
            calls, collection(collection), home(), (id, state) -> !state.equals(seen.get(id)));
    try {
      listing.read(log);
    } catch (DavCalls.Failed e) {
      return new NotRead(e.failure());
    }
    // What was set aside is told once, and again when a person wants it.
    List<SetAside> aside =
        listing.untagged().stream()
            .map(this::untagged)
            .filter(one -> !one.version().equals(seen.get(one.id())))
            .toList();
    return DocumentChanges.since(cursor, listing.records(), listing.there()).settingAside(aside);
  }

  private URI home() {
    return system.address();
  }

  private SetAside untagged(String id) {
    return new SetAside(
        id,
        "untagged",
        id,
        Failure.of(
                FailureKind.UNREADABLE,
                "%s gives “%s” neither an ETag nor a moment of change".formatted(system.name(), id))
            .withRemedy("Ask who keeps the server; without either no change of it can be seen"),
        "");
  }

  @Override
  public LookupAnswer find(String collection, SequencedMap<String, String> keys, CallLog log) {
    if (!keys.keySet().equals(Set.of("id"))) {
      return new Unanswered(
          Failure.of(
                  FailureKind.SHAPE_CHANGED,
                  system.name() + " cannot find documents by " + String.join(", ", keys.keySet()))
              .withRemedy("Documents are found by their path, id"));
    }
    String wanted = keys.sequencedValues().getFirst();
    return answer(collection, log, (id, state) -> id.equals(wanted), 1);
  }

  @Override
  public LookupAnswer list(String collection, int most, CallLog log) {
    return answer(collection, log, (id, state) -> true, most);
  }

  private LookupAnswer answer(
      String collection, CallLog log, BiPredicate<String, String> wanted, int most) {
    DocumentListing listing = new DocumentListing(calls, collection(collection), home(), wanted);
    try {
      listing.read(log);
    } catch (DavCalls.Failed e) {
      return new Unanswered(e.failure());
    }
    return new Found(
        listing.records().stream()
            .sorted(
                Comparator.comparing((ObjectNode record) -> record.path("changedAt").asText())
                    .reversed())
            .limit(most)
            .map(JsonNode.class::cast)
            .toList());
  }

  @Override
  public String name() {
    return system.name();
  }

  @Override
  public RateLimiter limiter() {
    return calls.limiter();
  }

  @Override
  public void close() {
    calls.close();
  }
}
