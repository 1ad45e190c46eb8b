package org.ysthmos.adapters.dav;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
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

  private static final int MOST_FOLDERS = 2_000;
  private static final List<String> ALWAYS =
      List.of(
          "{DAV:}resourcetype",
          "{DAV:}getetag",
          "{DAV:}getlastmodified",
          "{DAV:}creationdate",
          "{DAV:}getcontentlength",
          "{DAV:}getcontenttype",
          "{DAV:}displayname");

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
    try {
      List<SetAside> aside = new ArrayList<>();
      List<ObjectNode> listed = all(collection(collection), aside, log);
      Set<String> unread = aside.stream().map(SetAside::id).collect(Collectors.toSet());
      // What was set aside is told once, and again when a person wants it.
      aside.removeIf(one -> cursor.seen().state(one.id()).equals(Optional.of(one.version())));
      return DocumentChanges.since(cursor, listed, unread).settingAside(aside);
    } catch (DavCalls.Failed e) {
      return new NotRead(e.failure());
    }
  }

  private List<ObjectNode> all(DocumentCollection collection, List<SetAside> aside, CallLog log)
      throws DavCalls.Failed {
    List<String> wanted = new ArrayList<>(ALWAYS);
    wanted.addAll(collection.properties().values());
    List<ObjectNode> found = new ArrayList<>();
    Deque<URI> folders = new ArrayDeque<>();
    Set<String> seen = new HashSet<>();
    URI root = URI.create(system.address() + collection.folder());
    folders.add(root);
    while (!folders.isEmpty()) {
      URI folder = folders.removeFirst();
      if (!seen.add(folder.getPath())) {
        continue;
      }
      if (seen.size() > MOST_FOLDERS) {
        throw calls.refused(
            FailureKind.VALUE_REFUSED,
            system.name() + " has more than " + MOST_FOLDERS + " folders there",
            "Name a folder with fewer below it");
      }
      for (Multistatus.Response one : calls.list(folder, wanted, log).responses()) {
        URI at = calls.resolve(one.href());
        if (one.collection()) {
          // Nobody is led out of the folder that was named.
          if (at.getPath().startsWith(root.getPath())) {
            folders.addLast(at);
          }
        } else {
          record(collection, one, at).ifPresentOrElse(found::add, () -> aside.add(untagged(at)));
        }
      }
    }
    return found;
  }

  private SetAside untagged(URI at) {
    String id = id(at);
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

  private String id(URI at) {
    String path = at.getRawPath();
    String home = Optional.ofNullable(system.address().getRawPath()).orElse("");
    return decoded(path.startsWith(home) ? path.substring(home.length()) : path);
  }

  /** Empty if nothing tells one state of the document from another. */
  private Optional<ObjectNode> record(
      DocumentCollection collection, Multistatus.Response one, URI at) {
    ObjectNode record = JsonNodeFactory.instance.objectNode();
    String id = id(at);
    int slash = id.lastIndexOf('/');
    record.put("id", id);
    record.put("name", id.substring(slash + 1));
    record.put("folder", id.substring(0, Math.max(slash, 0)));
    record.put("link", at.toString());
    record.put("type", one.dav("getcontenttype").orElse(""));
    // RFC 4918 section 15.4: digits, as in the header of that name.
    one.dav("getcontentlength")
        .filter(bytes -> bytes.strip().matches("\\d{1,18}"))
        .ifPresent(bytes -> record.put("bytes", Long.parseLong(bytes.strip())));
    Optional<Instant> changed = one.dav("getlastmodified").flatMap(DocumentSystem::httpDate);
    changed.ifPresent(when -> record.put("changedAt", when.toString()));
    one.dav("creationdate")
        .flatMap(DocumentSystem::isoDate)
        .ifPresent(when -> record.put("createdAt", when.toString()));
    Optional<String> tag = one.dav("getetag").or(() -> changed.map(Instant::toString));
    if (tag.isEmpty()) {
      return Optional.empty();
    }
    record.put("tag", tag.get());
    collection
        .properties()
        .forEach(
            (key, property) -> {
              String value = one.properties().get(property);
              if (value != null) {
                record.put(key.substring(1), value.strip());
              }
            });
    return Optional.of(record);
  }

  private static String decoded(String path) {
    return URLDecoder.decode(path.replace("+", "%2B"), StandardCharsets.UTF_8);
  }

  private static Optional<Instant> httpDate(String text) {
    try {
      return Optional.of(
          ZonedDateTime.parse(text, DateTimeFormatter.RFC_1123_DATE_TIME).toInstant());
    } catch (DateTimeException unreadable) {
      return Optional.empty();
    }
  }

  private static Optional<Instant> isoDate(String text) {
    try {
      return Optional.of(ZonedDateTime.parse(text).toInstant());
    } catch (DateTimeException unreadable) {
      return Optional.empty();
    }
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
    String id = keys.sequencedValues().getFirst();
    return answer(collection, log, record -> record.path("id").asText().equals(id), 1);
  }

  @Override
  public LookupAnswer list(String collection, int most, CallLog log) {
    return answer(collection, log, record -> true, most);
  }

  private LookupAnswer answer(
      String collection, CallLog log, Predicate<ObjectNode> wanted, int most) {
    try {
      return new Found(
          all(collection(collection), new ArrayList<>(), log).stream()
              .filter(wanted)
              .sorted(
                  Comparator.comparing((ObjectNode record) -> record.path("changedAt").asText())
                      .reversed())
              .limit(most)
              .map(JsonNode.class::cast)
              .toList());
    } catch (DavCalls.Failed e) {
      return new Unanswered(e.failure());
    }
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
