package org.ysthmos.adapters.openapi;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import org.ysthmos.adapters.openapi.SystemDraft.Remark;

/**
 * How a list may be asked what changed.
 *
 * @param collection the id of the collection
 * @param read the fields of a record
 * @param idAt where a record holds its id
 */
record PollDraft(String collection, ListDraft list, List<FieldDraft> read, String idAt) {

  private static final Pattern SINCE =
      Pattern.compile(
          "(?i)(changed|updated|modified|edited)[-_]?(since|after|from)|since|.*[-_]?since");
  private static final Pattern CHANGED =
      Pattern.compile(
          "(?i)/(last[-_]?)?(changed|updated|modified|edited)([-_]?(at|on|date|time))?");
  private static final Pattern CREATED =
      Pattern.compile("(?i)/(created|opened|made|added)([-_]?(at|on|date|time))?");
  private static final Pattern VERSION =
      Pattern.compile("(?i)/(version|revision|rev|etag|ordinal|sequence|edit)");
  private static final Pattern NEXT =
      Pattern.compile("(?i)next([-_]?(cursor|page|token|page[-_]?token))?|more");
  private static final Pattern CURSOR =
      Pattern.compile("(?i)cursor|sync[-_]?token|checkpoint|mark");
  private static final Pattern AFTER =
      Pattern.compile("(?i)after|cursor|page[-_]?token|starting[-_]?after|from|offset");
  private static final Pattern PAGE = Pattern.compile("(?i)page|page[-_]?(number|no)");

  /** Empty if nothing tells one change of a record from the next. */
  Optional<Map<String, Object>> document(List<Remark> remarks) {
    Optional<String> changed =
        field(CHANGED, field -> field.type().equals("moment"))
            .or(() -> field(CHANGED, field -> field.type().equals("text")));
    Optional<String> version = field(VERSION, field -> true).or(() -> changed);
    if (version.isEmpty()) {
      return Optional.empty();
    }
    Map<String, Object> poll = new LinkedHashMap<>();
    poll.put("call", "GET " + list.call());
    poll.put("items", list.pointer());
    poll.put("id", idAt);
    poll.put("version", version.get());
    changed.ifPresent(at -> poll.put("changed", at));
    field(CREATED, field -> field.type().equals("moment")).ifPresent(at -> poll.put("created", at));
    since(changed).ifPresent(since -> poll.put("since", since));
    next().ifPresent(next -> poll.put("next", next));
    poll.put("every", "PT5M");
    remark(remarks, poll);
    return Optional.of(poll);
  }

  private void remark(List<Remark> remarks, Map<String, Object> poll) {
    String by =
        poll.containsKey("since")
            ? "It is asked only for what changed since the last time."
            : "No parameter was found for what changed since, so all of it is read each time.";
    String paged =
        poll.containsKey("next")
            ? ""
            : " No sign of further pages was found; if there are some, describe them as next.";
    remarks.add(
        new Remark(
            collection,
            "One change of a record is told from the next by “"
                + poll.get("version")
                + "”. "
                + by
                + paged));
  }

  private Optional<String> field(Pattern name, Predicate<FieldDraft> fits) {
    return read.stream()
        .filter(field -> name.matcher(field.pointer()).matches())
        .filter(fits)
        .map(FieldDraft::pointer)
        .findFirst();
  }

  private Optional<String> query(Pattern name) {
    return list.query().stream().filter(one -> name.matcher(one).matches()).findFirst();
  }

  private Optional<String> other(Pattern name) {
    return list.others().stream().filter(one -> name.matcher(one).matches()).findFirst();
  }

  private Optional<Map<String, Object>> since(Optional<String> changed) {
    Optional<String> cursor = other(CURSOR);
    Optional<String> after = query(AFTER);
    if (cursor.isPresent() && after.isPresent()) {
      Map<String, Object> since = new LinkedHashMap<>();
      since.put("parameter", after.get());
      since.put("cursor", "/" + cursor.get());
      return Optional.of(since);
    }
    return changed.isEmpty()
        ? Optional.empty()
        : query(SINCE).map(parameter -> Map.of("parameter", parameter));
  }

  private Optional<Map<String, Object>> next() {
    if (list.linked()) {
      return Optional.of(Map.of("link", "next"));
    }
    Optional<String> next = other(NEXT);
    Optional<String> after = query(AFTER);
    if (next.isPresent() && after.isPresent()) {
      Map<String, Object> by = new LinkedHashMap<>();
      by.put("cursor", "/" + next.get());
      by.put("parameter", after.get());
      return Optional.of(by);
    }
    return query(PAGE).map(parameter -> Map.of("page-number", parameter));
  }
}
