package org.ysthmos.standins.friendsregister;

import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.ysthmos.standins.http.Refusal;
import org.ysthmos.standins.http.Reply;
import org.ysthmos.standins.http.Request;
import org.ysthmos.standins.store.RecordLog;

/**
 * Records of one kind, listed page by page in the order in which they changed; each page names the
 * next in its Link header (RFC 8288).
 */
final class PagedLog {

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final int MOST_ON_A_PAGE = 50;

  /** Always with milliseconds, so that the order of the texts is the order in time. */
  private static final DateTimeFormatter MOMENT =
      DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH:mm:ss.SSS'Z'").withZone(ZoneOffset.UTC);

  private final String kind;
  private final String numbers;
  private final int firstNumber;
  private final RecordLog records;
  private final InstantSource clock;

  /**
   * @param kind what the records are called, in the plural, as in their address
   * @param numbers what their ids begin with
   */
  PagedLog(String kind, String numbers, int firstNumber, Path file, InstantSource clock) {
    this.kind = kind;
    this.numbers = numbers;
    this.firstNumber = firstNumber;
    this.records = new RecordLog(file);
    this.clock = clock;
  }

  synchronized ObjectNode make(List<String> questions, Map<String, String> answers) {
    ObjectNode record = JSON.createObjectNode();
    record.put("id", numbers + (firstNumber + records.everKept()));
    questions.forEach(question -> record.put(question, answers.getOrDefault(question, "").strip()));
    String now = MOMENT.format(clock.instant());
    record.put("createdAt", now).put("changedAt", now);
    records.keep(record);
    return record;
  }

  synchronized ObjectNode find(Request request) {
    String id = request.slot("id");
    return records
        .get(id)
        .orElseThrow(() -> new Refusal(404, "there is nothing “" + id + "” among the " + kind));
  }

  synchronized Optional<ObjectNode> first(Predicate<ObjectNode> fits) {
    return records.all().stream().filter(fits).findFirst();
  }

  synchronized ObjectNode edit(Request request, List<String> questions) {
    ObjectNode changed = find(request).deepCopy();
    request
        .json()
        .properties()
        .forEach(
            entry -> {
              if (!questions.contains(entry.getKey())) {
                throw Refusal.ofField(entry.getKey(), "there is no such field");
              }
              changed.set(entry.getKey(), entry.getValue());
            });
    changed.put("changedAt", MOMENT.format(clock.instant()));
    records.keep(changed);
    return changed;
  }

  /** A page: those that changed since a moment and after the last of the page before. */
  synchronized Reply list(Request request) {
    int limit =
        Math.clamp(request.query("limit").map(PagedLog::number).orElse(20), 1, MOST_ON_A_PAGE);
    Optional<String> after = request.query("after");
    Optional<String> mail = request.query("mail");
    List<ObjectNode> fitting =
        records.all().stream()
            .filter(one -> request.query("changedSince").stream().allMatch(t -> since(one, t)))
            .filter(one -> mail.stream().allMatch(one.path("mail").asText()::equalsIgnoreCase))
            .filter(one -> after.stream().allMatch(seen -> place(one).compareTo(seen) > 0))
            .sorted(Comparator.comparing(PagedLog::place))
            .toList();
    List<ObjectNode> page = fitting.subList(0, Math.min(limit, fitting.size()));
    ArrayNode items = JSON.createArrayNode();
    page.forEach(items::add);
    Reply reply = Reply.json(200, JSON.createObjectNode().set(kind, items));
    return fitting.size() > page.size()
        ? reply.with("Link", "<" + next(request, limit, place(page.getLast())) + ">; rel=\"next\"")
        : reply;
  }

  private static int number(String text) {
    try {
      return Integer.parseInt(text);
    } catch (NumberFormatException e) {
      throw new Refusal(400, "limit is a number");
    }
  }

  private static boolean since(ObjectNode record, String since) {
    try {
      return !Instant.parse(record.path("changedAt").asText()).isBefore(Instant.parse(since));
    } catch (DateTimeParseException e) {
      throw new Refusal(400, "changedSince is a moment such as 2026-11-24T13:58:07Z");
    }
  }

  /** The place of a record in the listing: what changed first, and of the same moment by id. */
  private static String place(ObjectNode record) {
    return record.path("changedAt").asText() + " " + record.path("id").asText();
  }

  private String next(Request request, int limit, String last) {
    StringBuilder next = new StringBuilder("/api/" + kind + "?limit=" + limit);
    for (String kept : List.of("changedSince", "mail")) {
      request
          .query(kept)
          .ifPresent(text -> next.append('&').append(kept).append('=').append(encoded(text)));
    }
    return next.append("&after=").append(encoded(last)).toString();
  }

  private static String encoded(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8);
  }
}
