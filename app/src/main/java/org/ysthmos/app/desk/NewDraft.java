package org.ysthmos.app.desk;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.ValueType;

/** Drafts of new bridges between two places, with what is required in them first. */
@Component
class NewDraft {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private final Systems systems;

  NewDraft(Systems systems) {
    this.systems = systems;
  }

  /**
   * The document of a new bridge. Where events carry only a key by which the whole record can be
   * read, the lookup that reads it is there already.
   */
  String document(DeskController.NewBridge wish) {
    if (!DocumentNode.isId(wish.id())) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY,
          "No id",
          "“" + wish.id() + "” is no id: lower case with hyphens, at most 64 characters.");
    }
    SystemDescription.Collection source =
        systems
            .collection(wish.sourceSystem(), wish.sourceCollection())
            .orElseThrow(() -> ApiProblem.notFound("collection", wish.sourceCollection()));
    SystemDescription.Collection target =
        systems
            .collection(wish.targetSystem(), wish.targetCollection())
            .orElseThrow(() -> ApiProblem.notFound("collection", wish.targetCollection()));
    ObjectNode draft = JSON.objectNode();
    draft.put("bridge", wish.id()).put("name", wish.name().isBlank() ? wish.id() : wish.name());
    draft.put(
        "purpose",
        "A %s of %s becomes a %s"
            .formatted(
                source.shape().recordWord(),
                source.shape().systemName(),
                target.shape().recordWord()));
    ObjectNode from = draft.putObject("from");
    from.put("system", wish.sourceSystem()).put("collection", wish.sourceCollection());
    ArrayNode kinds = from.putArray("event");
    source.push().ifPresent(push -> push.kinds().values().stream().distinct().forEach(kinds::add));
    draft
        .putObject("to")
        .put("system", wish.targetSystem())
        .put("collection", wish.targetCollection());
    String record = source.push().map(push -> push.record().toString()).orElse("/id");
    if (source.finds().stream().anyMatch(find -> find.by().equals(List.of("id")))) {
      ObjectNode lookup =
          draft.putObject("lookups").putObject(source.shape().recordWord().replace(' ', '-'));
      lookup.put("in", wish.sourceSystem() + "/" + wish.sourceCollection());
      lookup.putObject("by").put("id", record);
      lookup.put("none", "fail");
    }
    draft.putArray("match").add(record);
    ObjectNode fields = draft.putObject("fields");
    target.shape().fields().stream()
        .filter(FieldShape::required)
        .forEach(field -> fields.set(field.key(), start(field)));
    draft.putObject("ceiling").put("creates", "60").put("per", "PT1H");
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
