package org.ysthmos.adapters.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * How a system tells of the records of a collection by the webhooks that it describes ({@code
 * webhooks} of OpenAPI 3.1 section 4.8.1). What is guessed from names is common practice, no
 * source.
 *
 * @param name what the system calls the webhook
 * @param body the schema of what it sends
 * @param recordAt where that holds the id of the record
 * @param kindAt where it says what happened
 * @param kinds what it says to what an event of ours is called
 * @param headers the headers that come with it
 */
record PushDraft(
    String name,
    ObjectNode body,
    String recordAt,
    String kindAt,
    Map<String, String> kinds,
    List<JsonNode> headers) {

  private static final Pattern KIND = Pattern.compile("(?i)type|event|kind|action|what|topic");
  private static final Pattern SIGNATURE = Pattern.compile("(?i).*(signature|hmac).*");
  private static final Pattern SHARED = Pattern.compile("(?i).*(secret|token).*");
  private static final Pattern EVENT_ID =
      Pattern.compile("(?i).*(delivery|event|message|webhook)([-_]?id)?");
  private static final Map<Pattern, String> WORDS = new LinkedHashMap<>();

  static {
    WORDS.put(Pattern.compile(".*(delet|remov).*"), "removed");
    WORDS.put(Pattern.compile(".*(updat|chang|edit|modif|revis).*"), "changed");
    WORDS.put(Pattern.compile(".*(creat|made|add|new|open|post|submit|receiv).*"), "created");
  }

  /**
   * The webhooks about a kind of record; those of one shape are one.
   *
   * @param word what one record is called
   * @param record its schema
   * @param idAt where it holds its id
   */
  static Optional<PushDraft> of(
      OpenApiTree api, String word, ObjectNode record, Optional<String> idAt) {
    PushDraft all = null;
    for (var webhook : api.root().path("webhooks").properties()) {
      JsonNode item = api.follow(webhook.getValue());
      Optional<PushDraft> one =
          api.body(item.path("post"))
              .flatMap(
                  body ->
                      recordAt(api, body, word, record, idAt)
                          .flatMap(
                              at ->
                                  kind(
                                      webhook.getKey(),
                                      api,
                                      body,
                                      at,
                                      api.parameters(item, item.path("post")))));
      if (one.isPresent() && (all == null || all.isLike(one.get()))) {
        all = all == null ? one.get() : all.and(one.get());
      }
    }
    return Optional.ofNullable(all);
  }

  private boolean isLike(PushDraft other) {
    return recordAt.equals(other.recordAt) && kindAt.equals(other.kindAt);
  }

  private PushDraft and(PushDraft other) {
    Map<String, String> both = new LinkedHashMap<>(kinds);
    both.putAll(other.kinds);
    return new PushDraft(name + "”, “" + other.name, body, recordAt, kindAt, both, headers);
  }

  private static Optional<String> recordAt(
      OpenApiTree api, ObjectNode body, String word, ObjectNode record, Optional<String> idAt) {
    JsonNode known = record.path("properties");
    for (var property : body.path("properties").properties()) {
      ObjectNode inner = api.schema(property.getValue());
      if (idAt.isPresent() && !known.isEmpty() && inner.path("properties").equals(known)) {
        return Optional.of(pointer(property.getKey()) + idAt.get());
      }
    }
    if (idAt.isPresent() && !known.isEmpty() && holdsAll(body.path("properties"), known)) {
      return idAt;
    }
    for (var property : body.path("properties").properties()) {
      String name = FieldDraft.words(property.getKey());
      if (name.matches(Pattern.quote(word) + "( (id|number|key))?")
          && !OpenApiTree.type(api.schema(property.getValue())).equals("object")) {
        return Optional.of(pointer(property.getKey()));
      }
    }
    return Optional.empty();
  }

  private static boolean holdsAll(JsonNode properties, JsonNode wanted) {
    return wanted.properties().stream().allMatch(one -> properties.has(one.getKey()));
  }

  private static Optional<PushDraft> kind(
      String name, OpenApiTree api, ObjectNode body, String recordAt, List<JsonNode> parameters) {
    for (var property : body.path("properties").properties()) {
      ObjectNode schema = api.schema(property.getValue());
      Map<String, String> kinds = new LinkedHashMap<>();
      schema.path("enum").forEach(value -> kinds.put(value.asText(), ours(value.asText())));
      if (schema.has("const")) {
        kinds.put(schema.path("const").asText(), ours(schema.path("const").asText()));
      }
      if (KIND.matcher(property.getKey()).matches() && !kinds.isEmpty()) {
        List<JsonNode> headers =
            parameters.stream().filter(one -> one.path("in").asText().equals("header")).toList();
        return Optional.of(
            new PushDraft(name, body, recordAt, pointer(property.getKey()), kinds, headers));
      }
    }
    return Optional.empty();
  }

  private static String ours(String theirs) {
    String lower = theirs.toLowerCase(Locale.ROOT);
    return WORDS.entrySet().stream()
        .filter(word -> word.getKey().matcher(lower).matches())
        .map(Map.Entry::getValue)
        .findFirst()
        .orElseGet(() -> lower.replaceAll(".*[^a-z0-9]", ""));
  }

  private static String pointer(String key) {
    return "/" + key.replace("~", "~0").replace("/", "~1");
  }

  List<FieldDraft> fields(OpenApiTree api) {
    return FieldDraft.of(api, body, FieldDraft.Use.READ);
  }

  /** The entry {@code push} of a collection. */
  Map<String, Object> document(String system) {
    Map<String, Object> push = new LinkedHashMap<>();
    push.put("verify", verify(system + "-hook"));
    header(EVENT_ID)
        .filter(found -> !isStandard())
        .ifPresent(found -> push.put("event", Map.of("header", found.path("name").asText())));
    push.put("record", recordAt);
    push.put("kind", kindAt);
    push.put("kinds", kinds);
    return push;
  }

  /** What a person should do and look at. */
  List<String> remarks(String system, String collection) {
    List<String> remarks = new ArrayList<>();
    remarks.add(
        "It tells by its webhook “%s”. Give it our address with /hooks/%s/%s at the end, and keep the secret it signs with as “%s-hook”."
            .formatted(name, system, collection, system));
    if (!isStandard() && header(SIGNATURE).isEmpty() && header(SHARED).isEmpty()) {
      remarks.add(
          "No header was found by which its webhooks are known to be its own, so a secret is the last part of the address.");
    } else if (!isStandard() && header(SIGNATURE).isPresent()) {
      remarks.add(
          "How it writes its signature is guessed: HMAC-SHA256 of the body. Compare it with what it says, under verify.");
    }
    return remarks;
  }

  private boolean isStandard() {
    return headers.stream()
        .anyMatch(one -> one.path("name").asText().equalsIgnoreCase("webhook-signature"));
  }

  private Optional<JsonNode> header(Pattern named) {
    return headers.stream()
        .filter(one -> named.matcher(one.path("name").asText()).matches())
        .findFirst();
  }

  private Map<String, Object> verify(String secret) {
    if (isStandard()) {
      return Map.of("standard-webhooks", Map.of("secret", secret));
    }
    Optional<JsonNode> signature = header(SIGNATURE);
    Map<String, Object> how = new LinkedHashMap<>();
    if (signature.isPresent()) {
      String said = signature.get().toString();
      how.put("header", signature.get().path("name").asText());
      how.put("secret", secret);
      if (said.contains("sha256=")) {
        how.put("before", "sha256=");
      }
      if (said.toLowerCase(Locale.ROOT).contains("base64")) {
        how.put("written-in", "base64");
      }
      return Map.of("signature", how);
    }
    Optional<JsonNode> shared = header(SHARED);
    if (shared.isPresent()) {
      how.put("header", shared.get().path("name").asText());
      how.put("secret", secret);
      return Map.of("shared-secret", how);
    }
    return Map.of("path", Map.of("secret", secret));
  }
}
