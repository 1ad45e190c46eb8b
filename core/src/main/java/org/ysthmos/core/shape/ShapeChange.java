package org.ysthmos.core.shape;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.value.Problem;

/**
 * How records differ from the shape they are said to have.
 *
 * @param field the field that is not as described
 * @param kind what is the matter with it
 * @param likely the address of a field that nobody described and that it may be called now
 */
public record ShapeChange(FieldShape field, Kind kind, Optional<String> likely) {

  /** What is the matter with a field. */
  public enum Kind {
    /** No record has it. */
    GONE,
    /** Every record that has it holds something else than its type. */
    OTHER_TYPE
  }

  /** What is the matter, as people say it. */
  public String words() {
    String name = field.name() + " (" + field.key() + ")";
    return switch (kind) {
      case GONE ->
          "No record has the field "
              + name
              + likely.map(at -> "; perhaps it is called " + at).orElse("");
      case OTHER_TYPE -> name + " is no " + field.type() + " in any record";
    };
  }

  /**
   * Compares records with a shape.
   *
   * @param fields those whose keys are addresses in a record
   * @param seen the keys of optional fields that records were seen to have before; one that no
   *     record has is missing only if it is among them, or required
   */
  public static List<ShapeChange> between(
      List<FieldShape> fields, List<JsonNode> records, Set<String> seen) {
    if (records.isEmpty()) {
      return List.of();
    }
    Set<String> unknown = unknown(fields, records);
    List<ShapeChange> changes = new ArrayList<>();
    for (FieldShape field : fields) {
      if (!field.key().startsWith("/")) {
        continue;
      }
      Pointer at = Pointer.parse(field.key());
      List<JsonNode> found =
          records.stream().map(at::in).filter(node -> !node.isMissingNode()).toList();
      if (found.isEmpty()) {
        if (field.required() || seen.contains(field.key())) {
          changes.add(new ShapeChange(field, Kind.GONE, likely(field, unknown)));
        }
      } else if (found.stream().noneMatch(JsonNode::isNull)
          && found.stream().allMatch(node -> field.read(node) instanceof Problem)) {
        changes.add(new ShapeChange(field, Kind.OTHER_TYPE, Optional.empty()));
      }
    }
    return changes;
  }

  /** The keys of those fields that some record has. */
  public static Set<String> present(List<FieldShape> fields, List<JsonNode> records) {
    Set<String> present = new LinkedHashSet<>();
    for (FieldShape field : fields) {
      if (field.key().startsWith("/")) {
        Pointer at = Pointer.parse(field.key());
        if (records.stream().anyMatch(record -> !at.in(record).isMissingNode())) {
          present.add(field.key());
        }
      }
    }
    return present;
  }

  /** Fields that records have and nobody described, in groups as deep as described ones stand. */
  private static Set<String> unknown(List<FieldShape> fields, List<JsonNode> records) {
    Set<String> groups = new TreeSet<>();
    Set<String> known = new TreeSet<>();
    for (FieldShape field : fields) {
      known.add(field.key());
      groups.add(field.key().substring(0, Math.max(0, field.key().lastIndexOf('/'))));
    }
    Set<String> unknown = new TreeSet<>();
    for (String group : groups) {
      for (JsonNode record : records) {
        JsonNode holder = Pointer.parse(group).in(record);
        holder
            .fieldNames()
            .forEachRemaining(
                name -> {
                  String at = group + "/" + name.replace("~", "~0").replace("/", "~1");
                  if (!known.contains(at) && groups.stream().noneMatch(at::equals)) {
                    unknown.add(at);
                  }
                });
      }
    }
    return unknown;
  }

  private static Optional<String> likely(FieldShape field, Set<String> unknown) {
    String group = field.key().substring(0, field.key().lastIndexOf('/') + 1);
    List<String> there = unknown.stream().filter(at -> at.startsWith(group)).toList();
    // A single stranger in the place of the one that is missed is most likely the same field.
    return there.size() == 1 ? Optional.of(there.getFirst()) : Nearest.to(field.key(), there);
  }
}
