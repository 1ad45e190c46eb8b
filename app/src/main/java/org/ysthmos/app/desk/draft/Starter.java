package org.ysthmos.app.desk.draft;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Optional;
import org.ysthmos.app.desk.draft.StarterPlaces.StartField;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.value.ValueType;

/**
 * A ready-made draft for a common job, filled in for two places as far as their fields allow. What
 * it cannot know, a person says at the desk; what it needs and does not find, it names.
 */
enum Starter {
  EACH_RECORD(
      "A task for each record", "Each new record becomes a task, and a change changes it.") {
    @Override
    void fill(ObjectNode draft, StarterPlaces places) {
      fillTitle(draft, places);
    }
  },

  CHOSEN("A task for chosen records", "Only records that pass a condition become tasks.") {
    @Override
    Optional<String> hindrance(StarterPlaces places) {
      return places.tellingTexts().isEmpty()
          ? Optional.of("The source has no field to put a condition on.")
          : Optional.empty();
    }

    @Override
    void fill(ObjectNode draft, StarterPlaces places) {
      fillTitle(draft, places);
      draft
          .putObject("when")
          .putArray("all")
          .addObject()
          .put("value", places.tellingTexts().getFirst().address())
          .put("is", "present");
    }
  },

  DUE("A task with a deadline", "The task is due two working days after the event.") {
    @Override
    Optional<String> hindrance(StarterPlaces places) {
      if (places.due().isEmpty()) {
        return Optional.of("The target keeps no day or moment.");
      }
      return places.calendars().isEmpty()
          ? Optional.of("There is no working calendar yet.")
          : Optional.empty();
    }

    @Override
    void fill(ObjectNode draft, StarterPlaces places) {
      fillTitle(draft, places);
      FieldShape due = places.due().orElseThrow();
      String zone = due.shownIn().orElse(places.zone()).getId();
      ObjectNode rule = rules(draft).putObject(due.key()).put("value", "event/time");
      ArrayNode steps = rule.putArray("steps");
      steps.addObject().put("day-in", zone);
      steps
          .addObject()
          .putObject("move-working-days")
          .put("days", "2")
          .put("calendar", places.calendars().getFirst());
      if (due.type().equals(ValueType.MOMENT)) {
        steps.addObject().putObject("at").put("time", "17:00").put("zone", zone);
      }
    }
  },

  BY_TABLE("A task given by a table", "A reference table says from the record who gets the task.") {
    @Override
    Optional<String> hindrance(StarterPlaces places) {
      if (person(places).isEmpty()) {
        return Optional.of("The target keeps no person.");
      }
      if (places.tellingTexts().isEmpty()) {
        return Optional.of("The source has no field to look up.");
      }
      return table(places).isEmpty()
          ? Optional.of("There is no reference table that gives a person yet.")
          : Optional.empty();
    }

    @Override
    void fill(ObjectNode draft, StarterPlaces places) {
      fillTitle(draft, places);
      FieldShape person = person(places).orElseThrow();
      ObjectNode rule = rules(draft).putObject(person.key());
      rule.put("value", places.tellingTexts().getFirst().address());
      ArrayNode steps = rule.putArray("steps");
      steps.addObject().put("by-table", table(places).orElseThrow().id());
      if (person.type().isList()) {
        steps.add("in-list");
      }
    }

    private Optional<FieldShape> person(StarterPlaces places) {
      return places
          .targetOf(ValueType.PERSON)
          .or(() -> places.targetOf(ValueType.listOf(ValueType.PERSON)));
    }

    private Optional<TableDefinition> table(StarterPlaces places) {
      return places.tables().stream()
          .filter(table -> table.keys().size() == 1)
          .filter(table -> table.values().values().contains(ValueType.PERSON))
          .findFirst();
    }
  },

  CHECKLIST("A task with all it needs", "Notes hold every answer, and a checklist the steps.") {
    @Override
    Optional<String> hindrance(StarterPlaces places) {
      return places.targetOf(ValueType.listOf(ValueType.TEXT)).isEmpty()
          ? Optional.of("The target keeps no checklist.")
          : Optional.empty();
    }

    @Override
    void fill(ObjectNode draft, StarterPlaces places) {
      fillTitle(draft, places);
      FieldShape checklist = places.targetOf(ValueType.listOf(ValueType.TEXT)).orElseThrow();
      ArrayNode items = rules(draft).putObject(checklist.key()).putArray("texts");
      items.add("Look at it").add("Do it").add("Tell who asked");
      places
          .target(
              f ->
                  f.type().equals(ValueType.TEXT)
                      && !f.key().equals(places.target().titleField())
                      && !f.required())
          .ifPresent(
              notes -> {
                ObjectNode rule = rules(draft).putObject(notes.key());
                ArrayNode lines = rule.putArray("texts");
                places.tellingTexts().forEach(f -> lines.add(f.shape().name() + ": " + f.slot()));
                rule.putArray("steps").addObject().put("join", "\n");
              });
    }
  },

  SET("Tasks around a day", "One event makes several tasks, before and after a day it names.") {
    @Override
    Optional<String> hindrance(StarterPlaces places) {
      return places.due().isEmpty()
          ? Optional.of("The target keeps no day or moment.")
          : Optional.empty();
    }

    @Override
    void fill(ObjectNode draft, StarterPlaces places) {
      FieldShape due = places.due().orElseThrow();
      String zone = due.shownIn().orElse(places.zone()).getId();
      ObjectNode set = JsonNodeFactory.instance.objectNode();
      Optional<StartField> day = places.source(ValueType.DAY::equals);
      ObjectNode anchor = set.putObject("anchor");
      anchor.put("value", day.map(StartField::address).orElse("event/time"));
      if (day.isEmpty()) {
        anchor.putArray("steps").addObject().put("day-in", zone);
      }
      String about = titleText(places);
      ObjectNode tasks = set.putObject("tasks");
      member(tasks, "prepare", "-P1W", "Prepare " + about, places);
      member(tasks, "day", "P0D", about, places);
      member(tasks, "follow-up", "P1W", "Follow up " + about, places);
      draft.set("set", set);
      ObjectNode rules = rules(draft);
      rules.remove(places.target().titleField());
      ObjectNode dueRule = rules.putObject(due.key()).put("value", "set/day");
      if (due.type().equals(ValueType.MOMENT)) {
        dueRule
            .putArray("steps")
            .addObject()
            .putObject("at")
            .put("time", "17:00")
            .put("zone", zone);
      }
    }

    private void member(
        ObjectNode tasks, String name, String offset, String title, StarterPlaces places) {
      tasks
          .putObject(name)
          .put("offset", offset)
          .putObject("fields")
          .putObject(places.target().titleField())
          .put("text", title);
    }
  };

  private final String title;
  private final String about;

  Starter(String title, String about) {
    this.title = title;
    this.about = about;
  }

  String id() {
    return name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
  }

  /** What people call it. */
  String title() {
    return title;
  }

  /** What it does, in a sentence. */
  String about() {
    return about;
  }

  /** Why it does not suit these places; empty if it does. */
  Optional<String> hindrance(StarterPlaces places) {
    return Optional.empty();
  }

  /**
   * Fills a draft in.
   *
   * @param draft has all that a new draft has
   */
  abstract void fill(ObjectNode draft, StarterPlaces places);

  static Optional<Starter> find(String id) {
    return List.of(values()).stream().filter(one -> one.id().equals(id)).findFirst();
  }

  private static ObjectNode rules(ObjectNode draft) {
    return draft.withObjectProperty("fields");
  }

  private static void fillTitle(ObjectNode draft, StarterPlaces places) {
    String field = places.target().titleField();
    if (!field.isEmpty() && !places.tellingTexts().isEmpty()) {
      rules(draft).putObject(field).put("text", titleText(places)).putArray("steps").add("shorten");
    }
  }

  private static String titleText(StarterPlaces places) {
    return String.join(": ", places.titleTexts().stream().map(StartField::slot).toList());
  }
}
