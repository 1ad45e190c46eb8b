package org.ysthmos.adapters.connect;

import java.net.URI;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.adapters.dav.CalDavReader;
import org.ysthmos.adapters.dav.WebDavReader;
import org.ysthmos.adapters.drop.DropReader;
import org.ysthmos.adapters.http.HttpReader;
import org.ysthmos.adapters.mail.MailReader;
import org.ysthmos.adapters.system.Collected;
import org.ysthmos.adapters.system.ManyPlaces;
import org.ysthmos.adapters.system.Parts;
import org.ysthmos.adapters.system.ProtocolReader;
import org.ysthmos.adapters.system.Push;
import org.ysthmos.adapters.system.SignIn;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.adapters.system.Trust;
import org.ysthmos.core.bridge.TimeSource;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.load.RateLimit;

/** Reads a system document. What it does not know it refuses, with line and column. */
public final class SystemReader {

  private static final Duration USUAL_TIMEOUT = Duration.ofSeconds(10);
  private static final List<String> COMMON_KEYS =
      List.of(
          "system",
          "name",
          "speaks",
          "address",
          "sign-in",
          "timeout",
          "rate-limit",
          "trust",
          "collections");

  private SystemReader() {}

  /**
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used
   */
  public static SystemDescription read(String yaml) {
    DocumentNode root = DocumentNode.parse(yaml);
    URI address = address(root.need("address"));
    ProtocolReader protocol = protocol(root, address);
    List<String> keys = new ArrayList<>(COMMON_KEYS);
    keys.addAll(protocol.keys());
    root.only(keys.toArray(String[]::new));
    String id = root.need("system").text();
    if (id.equals(TimeSource.SYSTEM)) {
      throw root.need("system")
          .refuse("“time” is where bridges begin by themselves; call it otherwise");
    }
    String name = root.need("name").text();
    Map<String, SystemCollection> collections = new LinkedHashMap<>();
    Map<String, ManyPlaces> many = new LinkedHashMap<>();
    root.need("collections")
        .group()
        .forEach(
            (key, node) -> {
              Collected of = new Collected(id, name, key);
              if (node.isGroup() && node.get("places").isPresent()) {
                many.put(key, ManyPlaces.read(of, node, protocol::collection));
              } else {
                collections.put(key, single(protocol.collection(of, node), node));
              }
            });
    requireDirectories(root, collections);
    requirePlaces(root, many);
    return new SystemDescription(
        id,
        name,
        address,
        root.get("sign-in").map(SignIn::read),
        root.get("timeout").map(Parts::duration).orElse(USUAL_TIMEOUT),
        root.get("rate-limit").map(SystemReader::rateLimit),
        root.get("trust").map(Trust::read).orElse(Trust.usual()),
        protocol.protocol(root),
        collections,
        many,
        Optional.empty());
  }

  private static SystemCollection single(SystemCollection collection, DocumentNode node) {
    if (collection.push().flatMap(Push::place).isPresent()) {
      throw node.need("push")
          .need("place")
          .refuse("this is one place; only what describes many (places) says which tells");
    }
    return collection;
  }

  /** A field takes its names from a directory that is described. */
  private static void requireDirectories(
      DocumentNode root, Map<String, SystemCollection> collections) {
    Set<String> known = root.get("directories").map(node -> node.group().keySet()).orElse(Set.of());
    collections.forEach(
        (id, collection) ->
            collection.shape().fields().stream()
                .filter(field -> !field.directory().isEmpty())
                .filter(field -> !known.contains(field.directory()))
                .findFirst()
                .ifPresent(
                    field -> {
                      throw root.need("collections")
                          .need(id)
                          .need("fields")
                          .need(field.key())
                          .need("names-from")
                          .refuse(Nearest.unknown("directory", field.directory(), known));
                    }));
  }

  /** Which places there are is read from a directory that is described. */
  private static void requirePlaces(DocumentNode root, Map<String, ManyPlaces> many) {
    Map<String, SystemCollection> samples = new LinkedHashMap<>();
    Set<String> known = root.get("directories").map(node -> node.group().keySet()).orElse(Set.of());
    many.forEach(
        (id, places) -> {
          samples.put(id, places.any());
          if (!known.contains(places.directory())) {
            throw root.need("collections")
                .need(id)
                .need("places")
                .refuse(Nearest.unknown("directory", places.directory(), known));
          }
        });
    requireDirectories(root, samples);
  }

  private static URI address(DocumentNode node) {
    try {
      return URI.create(node.text());
    } catch (IllegalArgumentException notAnAddress) {
      throw node.refuse("“" + node.text() + "” is no address: " + notAnAddress.getMessage());
    }
  }

  /** The scheme of the address says what is spoken, or over HTTP the word {@code speaks}. */
  private static ProtocolReader protocol(DocumentNode root, URI address) {
    return switch (String.valueOf(address.getScheme()).toLowerCase(Locale.ROOT)) {
      case "http", "https" -> root.get("speaks").map(SystemReader::over).orElseGet(HttpReader::new);
      case "imap", "imaps" -> new MailReader();
      case "drop" -> new DropReader();
      default ->
          throw root.need("address")
              .refuse("an address starts with https://, http://, imaps://, imap:// or drop:");
    };
  }

  private static ProtocolReader over(DocumentNode speaks) {
    return switch (speaks.text()) {
      case "json" -> new HttpReader();
      case "webdav" -> new WebDavReader();
      case "caldav" -> new CalDavReader();
      default -> throw speaks.refuse("a system speaks json, webdav or caldav");
    };
  }

  private static RateLimit rateLimit(DocumentNode node) {
    node.only("calls", "per");
    int calls = node.need("calls").wholeNumber();
    Duration per = Parts.duration(node.need("per"));
    if (calls < 1 || per.isNegative() || per.isZero()) {
      throw node.refuse("a rate limit is at least one call in a span of time");
    }
    return new RateLimit(calls, per);
  }
}
