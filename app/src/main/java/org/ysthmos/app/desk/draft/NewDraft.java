package org.ysthmos.app.desk.draft;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.Settings;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.bridge.TimeSource;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.value.ValueType;

/** Drafts of new bridges between two places, with what is required in them first. */
@Component
class NewDraft {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  /** In the morning, as people begin. */
  private static final LocalTime BEGINS_AT = LocalTime.of(8, 0);

  /** A starter, and why it does not suit two places; empty if it does. */
  record StarterView(String id, String name, String about, String hindrance) {}

  private final Systems systems;
  private final Tables tables;
  private final Settings settings;
  private final AppClock clock;

  NewDraft(Systems systems, Tables tables, Settings settings, AppClock clock) {
    this.systems = systems;
    this.tables = tables;
    this.settings = settings;
    this.clock = clock;
  }

  /** The starters, each with whether it suits these places. */
  List<StarterView> starters(
      String sourceSystem, String sourceCollection, String targetSystem, String targetCollection) {
    StarterPlaces places =
        places(
            collection(sourceSystem, sourceCollection), collection(targetSystem, targetCollection));
    return Stream.of(Starter.values())
        .map(
            starter ->
                new StarterView(
                    starter.id(),
                    starter.title(),
                    starter.about(),
                    starter.hindrance(places).orElse("")))
        .toList();
  }

  private SystemCollection collection(String system, String collection) {
    return systems
        .collection(system, collection)
        .orElseThrow(() -> ApiProblem.notFound("collection", system + "/" + collection));
  }

  private StarterPlaces places(SystemCollection source, SystemCollection target) {
    String root = looksUpById(source) ? lookupName(source) : "";
    List<FieldShape> fields =
        looksUpById(source) ? source.shape().readFields() : source.shape().eventFields();
    return new StarterPlaces(
        fields.stream()
            .map(field -> new StarterPlaces.StartField(root + field.key(), field))
            .toList(),
        target.shape().written(),
        tables.all().values().stream()
            .map(ReferenceTable::definition)
            .sorted(Comparator.comparing(TableDefinition::id))
            .toList(),
        tables.calendars().keySet().stream().sorted().toList(),
        settings.zone());
  }

  /** An event that only names its record; what is asked for is the whole record already. */
  private static boolean looksUpById(SystemCollection source) {
    return source.push().isPresent() && source.findsBy().contains(List.of("id"));
  }

  private static String lookupName(SystemCollection source) {
    return source.shape().recordWord().replace(' ', '-');
  }

  /**
   * The document of a bridge under another id and name.
   *
   * @param document YAML or JSON
   */
  String copy(String document, String id, String name) {
    requireId(id);
    ObjectNode copy = DraftJson.parse(DraftJson.of(document));
    copy.put("bridge", id).put("name", name.isBlank() ? id : name);
    return copy.toString();
  }

  private static void requireId(String id) {
    if (!DocumentNode.isId(id)) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY,
          "No id",
          "“" + id + "” is no id: lower case with hyphens, at most 64 characters.");
    }
  }

  /**
   * The document of a new bridge. Where events carry only a key by which the whole record can be
   * read, the lookup that reads it is there already.
   */
  String document(DeskController.NewBridge wish) {
    requireId(wish.id());
    if (wish.sourceSystem().equals(TimeSource.SYSTEM)) {
      return ofTimes(wish);
    }
    SystemCollection source = collection(wish.sourceSystem(), wish.sourceCollection());
    boolean ofRecord = wish.targetSystem().isEmpty();
    SystemCollection target =
        ofRecord ? source : collection(wish.targetSystem(), wish.targetCollection());
    ObjectNode draft = JSON.objectNode();
    draft.put("bridge", wish.id()).put("name", wish.name().isBlank() ? wish.id() : wish.name());
    draft.put(
        "purpose",
        ofRecord
            ? "A %s of %s is changed"
                .formatted(source.shape().recordWord(), source.shape().systemName())
            : "A %s of %s becomes a %s"
                .formatted(
                    source.shape().recordWord(),
                    source.shape().systemName(),
                    target.shape().recordWord()));
    ObjectNode from = draft.putObject("from");
    from.put("system", wish.sourceSystem()).put("collection", wish.sourceCollection());
    ArrayNode kinds = from.putArray("event");
    (wish.kinds().isEmpty() ? source.kinds() : wish.kinds()).forEach(kinds::add);
    if (ofRecord) {
      draft.put("to", "record");
    } else {
      draft
          .putObject("to")
          .put("system", wish.targetSystem())
          .put("collection", wish.targetCollection());
    }
    String record = source.recordInEvent().toString();
    if (looksUpById(source)) {
      ObjectNode lookup = draft.putObject("lookups").putObject(lookupName(source));
      lookup.put("in", wish.sourceSystem() + "/" + wish.sourceCollection());
      lookup.putObject("by").put("id", record);
      lookup.put("none", "fail");
    }
    draft.putArray("match").add(record);
    ObjectNode fields = draft.putObject("fields");
    if (ofRecord) {
      // What the record needs it has already.
      return draft.toString();
    }
    target.shape().written().fields().stream()
        .filter(FieldShape::required)
        .forEach(field -> fields.set(field.key(), start(field)));
    Starter.find(wish.starter()).ifPresent(starter -> starter.fill(draft, places(source, target)));
    return draft.toString();
  }

  /** The document of a bridge that begins every week from tomorrow on, until somebody says when. */
  private String ofTimes(DeskController.NewBridge wish) {
    SystemCollection target = collection(wish.targetSystem(), wish.targetCollection());
    String name = wish.name().isBlank() ? wish.id() : wish.name();
    ObjectNode draft = JSON.objectNode();
    draft.put("bridge", wish.id()).put("name", name);
    draft.put(
        "purpose", "A %s for each time that comes round".formatted(target.shape().recordWord()));
    LocalDate tomorrow = LocalDate.ofInstant(clock.instant(), settings.zone()).plusDays(1);
    ObjectNode times = draft.putObject("from").putObject("times");
    times
        .put("rule", "FREQ=WEEKLY;BYDAY=" + tomorrow.getDayOfWeek().name().substring(0, 2))
        .put("zone", settings.zone().getId())
        .put("start", tomorrow.atTime(BEGINS_AT).toString());
    draft
        .putObject("to")
        .put("system", wish.targetSystem())
        .put("collection", wish.targetCollection());
    draft.putArray("match").add("event/id");
    ObjectNode fields = draft.putObject("fields");
    CollectionShape made = target.shape().written();
    made.fields().stream()
        .filter(FieldShape::required)
        .forEach(field -> fields.set(field.key(), start(field)));
    fields.putObject(made.titleField()).put("text", name);
    new StarterPlaces(List.of(), made, List.of(), List.of(), settings.zone())
        .due()
        .ifPresent(
            due ->
                fields.put(
                    due.key(),
                    due.type().equals(ValueType.DAY) ? "/occurrence/day" : "/occurrence/at"));
    return draft.toString();
  }

  /** A rule to begin with: the first known choice, or a text to be filled. */
  private static ObjectNode start(FieldShape field) {
    ObjectNode rule = JSON.objectNode();
    if (field.type().equals(ValueType.TEXT)) {
      return rule.put("text", "");
    }
    String first = field.names().keySet().stream().findFirst().orElse("");
    if (field.type().isList()) {
      rule.putArray("always").add(first);
      return rule;
    }
    return rule.put("always", first);
  }
}
