package org.ysthmos.core.bridge;

import java.time.Period;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.rule.RuleDocument;

/** How many tasks come of one event, as documents write it. */
final class PlanDocument {

  private static final String NO_ANCHOR = "no-anchor";

  private PlanDocument() {}

  static TaskPlan read(DocumentNode root) {
    Optional<DocumentNode> each = root.get("for-each");
    Optional<DocumentNode> set = root.get("set");
    if (each.isPresent() && set.isPresent()) {
      throw set.get().refuse("a bridge makes a task for each item or a set, not both");
    }
    return each.<TaskPlan>map(PlanDocument::forEach)
        .or(() -> set.map(PlanDocument::set))
        .orElseGet(TaskPlan.One::new);
  }

  private static TaskPlan forEach(DocumentNode node) {
    node.only("list", "key");
    return new TaskPlan.ForEach(
        RuleDocument.read(node.need("list")), node.get("key").map(Address::read));
  }

  private static TaskPlan set(DocumentNode node) {
    node.only("anchor", NO_ANCHOR, "tasks");
    List<TaskPlan.Member> members = new ArrayList<>();
    node.need("tasks").group().forEach((name, task) -> members.add(member(name, task)));
    if (members.isEmpty()) {
      throw node.need("tasks").refuse("a set needs at least one task");
    }
    return new TaskPlan.TaskSet(
        RuleDocument.read(node.need("anchor")),
        node.get(NO_ANCHOR).map(word -> word.word(TaskPlan.NoAnchor.class)),
        members);
  }

  private static TaskPlan.Member member(String name, DocumentNode node) {
    node.only("offset", "parent", "fields");
    if (!DocumentNode.isId(name)) {
      throw node.refuse("a task of a set cannot be called “" + name + "”");
    }
    return new TaskPlan.Member(
        name,
        offset(node.need("offset")),
        node.get("parent").map(DocumentNode::text),
        node.get("fields").map(BridgeReader::fields).orElse(List.of()));
  }

  private static TaskPlan.Offset offset(DocumentNode node) {
    if (node.isGroup()) {
      node.only("working-days", "calendar");
      DocumentNode days = node.need("working-days");
      if (Math.abs((long) days.wholeNumber()) > WorkingCalendar.FARTHEST) {
        throw days.refuse("at most " + WorkingCalendar.FARTHEST + " working days");
      }
      return new TaskPlan.ByWorkingDays(days.wholeNumber(), node.need("calendar").texts());
    }
    try {
      return new TaskPlan.ByPeriod(Period.parse(node.text()));
    } catch (DateTimeParseException e) {
      throw node.refuse(
          "“"
              + node.text()
              + "” is no offset; write P7D, -P2W or { working-days: -10, calendar: … }");
    }
  }

  static void write(TaskPlan plan, SequencedMap<String, Object> into) {
    switch (plan) {
      case TaskPlan.One one -> {}
      case TaskPlan.ForEach each -> {
        SequencedMap<String, Object> written = new LinkedHashMap<>();
        written.put("list", RuleDocument.written(each.list()));
        each.key().ifPresent(key -> written.put("key", key.toString()));
        into.put("for-each", written);
      }
      case TaskPlan.TaskSet set -> {
        SequencedMap<String, Object> tasks = new LinkedHashMap<>();
        set.members().forEach(member -> tasks.put(member.name(), written(member)));
        SequencedMap<String, Object> written = new LinkedHashMap<>();
        written.put("anchor", RuleDocument.written(set.anchor()));
        set.noAnchor().ifPresent(word -> written.put(NO_ANCHOR, DocumentNode.wordOf(word)));
        written.put("tasks", tasks);
        into.put("set", written);
      }
    }
  }

  private static Object written(TaskPlan.Member member) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    written.put("offset", written(member.offset()));
    member.parent().ifPresent(parent -> written.put("parent", parent));
    if (!member.fields().isEmpty()) {
      written.put("fields", BridgeWriter.fields(member.fields()));
    }
    return written;
  }

  private static Object written(TaskPlan.Offset offset) {
    return switch (offset) {
      case TaskPlan.ByPeriod by -> by.period().toString();
      case TaskPlan.ByWorkingDays by -> {
        SequencedMap<String, Object> written = new LinkedHashMap<>();
        written.put("working-days", by.days());
        written.put(
            "calendar", by.calendars().size() == 1 ? by.calendars().getFirst() : by.calendars());
        yield written;
      }
    };
  }
}
