package org.ysthmos.adapters.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.function.Predicate;
import org.ysthmos.core.document.DocumentText;

/**
 * The draft of a system document.
 *
 * @param document YAML
 * @param remarks what a person should look at, and why
 */
public record SystemDraft(String document, List<Remark> remarks) {

  /**
   * @param about the collection; empty for the system itself
   */
  public record Remark(String about, String text) {}

  /** The description cannot be used; the message says why. */
  public static final class Unusable extends Exception {
    Unusable(String message) {
      super(message);
    }
  }

  /** More collections than these are not drafted all at once: a person says which. */
  public static final int MOST_UNASKED = 20;

  /**
   * A collection that can be drafted.
   *
   * @param id its name in the document
   * @param path where its calls are
   * @param can what can be done there, in a few words
   */
  public record Offer(String id, String path, String can) {}

  /** The collections that a description hints at, in its order. */
  public static List<Offer> offers(JsonNode description) throws Unusable {
    return CollectionPaths.all(tree(description)).stream()
        .map(draft -> new Offer(draft.id(), draft.path(), draft.can()))
        .toList();
  }

  private static OpenApiTree tree(JsonNode description) throws Unusable {
    JsonNode read = Swagger2.isOne(description) ? Swagger2.converted(description) : description;
    String version = read.path("openapi").asText();
    if (!version.startsWith("3.")) {
      throw new Unusable(
          version.isEmpty()
              ? "This is no OpenAPI description: it does not say “openapi: 3…”."
              : "It is written in OpenAPI "
                  + version
                  + "; Swagger 2.0 and OpenAPI 3.0 and 3.1 are read.");
    }
    return new OpenApiTree(read);
  }

  /**
   * Drafts a document of all collections.
   *
   * @see #of(JsonNode, Optional, Predicate)
   */
  public static SystemDraft of(JsonNode description, Optional<URI> from) throws Unusable {
    return of(description, from, id -> true);
  }

  /**
   * Drafts a document.
   *
   * @param description an OpenAPI 3 or Swagger 2.0 description
   * @param from where it was read, to which a server without a host is relative; empty if it was
   *     given by hand
   * @param wanted which collections are drafted, by their ids
   * @throws Unusable if it is no such description, or names nothing that could be a collection
   */
  public static SystemDraft of(JsonNode description, Optional<URI> from, Predicate<String> wanted)
      throws Unusable {
    OpenApiTree api = tree(description);
    String title = api.root().path("info").path("title").asText("System").strip();
    List<Remark> remarks = new ArrayList<>();
    Map<String, Object> collections = new LinkedHashMap<>();
    for (CollectionDraft draft : CollectionPaths.all(api)) {
      if (wanted.test(draft.id())) {
        Map<String, Object> document = draft.document(id(title), remarks);
        if (!document.isEmpty()) {
          collections.put(draft.id(), document);
        }
      }
    }
    if (collections.isEmpty()) {
      throw new Unusable(
          "It describes no records that can be listed, found or made: no call answers with an object or a list of objects.");
    }
    SequencedMap<String, Object> document = new LinkedHashMap<>();
    document.put("system", id(title));
    document.put("name", title);
    document.put("address", address(api.root(), from, remarks));
    signIn(api, id(title), remarks).ifPresent(how -> document.put("sign-in", how));
    document.put("timeout", "PT10S");
    if (names(api, "429")) {
      remarks.add(
          new Remark(
              "",
              "It may answer 429. Find out how many calls it takes and write it as rate-limit, for"
                  + " example { calls: 90, per: PT1M }."));
    }
    problem(api).ifPresent(shape -> document.put("problem", shape));
    document.put("collections", collections);
    return new SystemDraft(DocumentText.write(document), List.copyOf(remarks));
  }

  static String id(String title) {
    String id =
        title.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
    return id.isEmpty() ? "system" : id.substring(0, Math.min(60, id.length()));
  }

  private static String address(JsonNode description, Optional<URI> from, List<Remark> remarks) {
    String server = description.path("servers").path(0).path("url").asText("/");
    if (server.matches("https?://[^{}]+")) {
      return server.replaceFirst("/+$", "");
    }
    if (from.isPresent() && !server.contains("{")) {
      return from.get().resolve(server).toString().replaceFirst("/+$", "");
    }
    remarks.add(
        new Remark(
            "", "It does not say where it is reached. Put its address in place of this one."));
    return "https://system.example";
  }

  private static Optional<Map<String, Object>> signIn(
      OpenApiTree api, String id, List<Remark> remarks) {
    String secret = id + "-token";
    JsonNode schemes = api.root().path("components").path("securitySchemes");
    for (var entry : schemes.properties()) {
      JsonNode scheme = api.follow(entry.getValue());
      String type =
          scheme.path("type").asText()
              + " "
              + scheme.path("scheme").asText().toLowerCase(Locale.ROOT);
      if (type.equals("http bearer")
          || type.startsWith("oauth2")
          || type.startsWith("openIdConnect")) {
        if (!type.startsWith("http")) {
          remarks.add(
              new Remark(
                  "",
                  "It signs in by "
                      + scheme.path("type").asText()
                      + ". Ask for a token that lasts; it goes as a bearer token."));
        }
        return Optional.of(Map.of("bearer", Map.of("secret", secret)));
      }
      if (type.equals("http basic")) {
        remarks.add(new Remark("", "It signs in by user and password. Name the user."));
        Map<String, Object> basic = new LinkedHashMap<>();
        basic.put("user", "user");
        basic.put("secret", id + "-password");
        return Optional.of(Map.of("basic", basic));
      }
      if (scheme.path("type").asText().equals("apiKey")
          && scheme.path("in").asText().equals("header")) {
        Map<String, Object> header = new LinkedHashMap<>();
        header.put("name", scheme.path("name").asText());
        header.put("secret", id + "-key");
        return Optional.of(Map.of("header", header));
      }
    }
    if (schemes.isEmpty()) {
      remarks.add(new Remark("", "It names no sign-in. Add one if it wants one."));
    } else {
      remarks.add(
          new Remark(
              "",
              "None of its sign-ins is one that we know: a bearer token, user and password, or a key"
                  + " in a header."));
    }
    return Optional.empty();
  }

  private static boolean names(OpenApiTree api, String status) {
    return operations(api).stream().anyMatch(one -> one.path("responses").has(status));
  }

  private static List<JsonNode> operations(OpenApiTree api) {
    List<JsonNode> operations = new ArrayList<>();
    for (JsonNode item : api.paths().values()) {
      for (String method : OpenApiTree.METHODS) {
        if (item.has(method)) {
          operations.add(item.path(method));
        }
      }
    }
    return operations;
  }

  /** Where its refusals say what is wrong, and with which field. */
  private static Optional<Map<String, Object>> problem(OpenApiTree api) {
    for (JsonNode operation : operations(api)) {
      Optional<ObjectNode> refusal = api.refusal(operation);
      if (refusal.isPresent()) {
        List<String> names = new ArrayList<>();
        refusal.get().path("properties").fieldNames().forEachRemaining(names::add);
        Optional<String> message =
            List.of("detail", "message", "error", "title", "description").stream()
                .filter(names::contains)
                .findFirst();
        if (message.isPresent()) {
          Map<String, Object> shape = new LinkedHashMap<>();
          shape.put("message", "/" + message.get());
          shape.put(
              "field",
              List.of("field", "property", "param", "pointer").stream()
                  .filter(names::contains)
                  .findFirst()
                  .map(name -> "/" + name)
                  .orElse("/field"));
          return Optional.of(shape);
        }
      }
    }
    return Optional.empty();
  }
}
