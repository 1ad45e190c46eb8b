package org.ysthmos.adapters.dav;

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
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiPredicate;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CallLog;

/**
 * Lists all documents of a folder and of the folders below it, each read as it comes. Only of those
 * that are wanted more is held than their path.
 */
final class DocumentListing {

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

  private final DavCalls calls;
  private final DocumentCollection collection;
  private final URI home;
  private final BiPredicate<String, String> wanted;
  private final Deque<URI> folders = new ArrayDeque<>();
  private final List<ObjectNode> records = new ArrayList<>();
  private final Set<String> there = new HashSet<>();
  private final List<String> untagged = new ArrayList<>();
  private final URI root;
  private DavCalls.@Nullable Failed failed;

  /**
   * @param home the address of the system, below which paths are counted
   * @param wanted whether the record of a document is held, by its path and its state
   */
  DocumentListing(
      DavCalls calls, DocumentCollection collection, URI home, BiPredicate<String, String> wanted) {
    this.calls = calls;
    this.collection = collection;
    this.home = home;
    this.wanted = wanted;
    this.root = URI.create(home + collection.folder());
  }

  /** The records that are wanted. */
  List<ObjectNode> records() {
    return records;
  }

  /** The paths of all that are there. */
  Set<String> there() {
    return there;
  }

  /** The paths of those of which nothing tells one state from another. */
  List<String> untagged() {
    return untagged;
  }

  void read(CallLog log) throws DavCalls.Failed {
    List<String> properties = new ArrayList<>(ALWAYS);
    properties.addAll(collection.properties().values());
    Set<String> seen = new HashSet<>();
    folders.add(root);
    while (!folders.isEmpty()) {
      URI folder = folders.removeFirst();
      if (!seen.add(folder.getPath())) {
        continue;
      }
      if (seen.size() > MOST_FOLDERS) {
        throw calls.refused(
            FailureKind.VALUE_REFUSED,
            "There are more than " + MOST_FOLDERS + " folders",
            "Name a folder with fewer below it");
      }
      calls.list(folder, properties, this::take, log);
      if (failed != null) {
        throw failed;
      }
    }
  }

  private void take(Multistatus.Response one) {
    if (failed != null) {
      return;
    }
    try {
      URI at = calls.resolve(one.href());
      if (!one.collection()) {
        document(one, at);
      } else if (at.getPath().startsWith(root.getPath())) {
        // Nobody is led out of the folder that was named.
        folders.addLast(at);
      }
    } catch (DavCalls.Failed e) {
      failed = e;
    }
  }

  private void document(Multistatus.Response one, URI at) {
    String id = id(at);
    there.add(id);
    Optional<Instant> changed = one.dav("getlastmodified").flatMap(DocumentListing::httpDate);
    Optional<String> tag = one.dav("getetag").or(() -> changed.map(Instant::toString));
    if (tag.isEmpty()) {
      untagged.add(id);
    } else if (wanted.test(id, DavCalls.strong(tag.get()))) {
      records.add(record(one, at, id, tag.get(), changed));
    }
  }

  private String id(URI at) {
    String path = at.getRawPath();
    String before = Optional.ofNullable(home.getRawPath()).orElse("");
    return decoded(path.startsWith(before) ? path.substring(before.length()) : path);
  }

  private ObjectNode record(
      Multistatus.Response one, URI at, String id, String tag, Optional<Instant> changed) {
    ObjectNode record = JsonNodeFactory.instance.objectNode();
    int slash = id.lastIndexOf('/');
    record.put("id", id);
    record.put("name", id.substring(slash + 1));
    record.put("folder", id.substring(0, Math.max(slash, 0)));
    record.put("link", at.toString());
    record.put("type", one.dav("getcontenttype").orElse(""));
    // RFC 4918 section 15.4: digits, as in the header of that name.
    one.dav("getcontentlength")
        .filter(bytes -> bytes.matches("\\d{1,18}"))
        .ifPresent(bytes -> record.put("bytes", Long.parseLong(bytes)));
    changed.ifPresent(when -> record.put("changedAt", when.toString()));
    one.dav("creationdate")
        .flatMap(DocumentListing::isoDate)
        .ifPresent(when -> record.put("createdAt", when.toString()));
    record.put("tag", tag);
    collection
        .properties()
        .forEach(
            (key, property) -> {
              String value = one.properties().get(property);
              if (value != null) {
                record.put(key.substring(1), value.strip());
              }
            });
    return record;
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
}
