package org.ysthmos.app.desk.draft;

import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.value.ValueType;

/**
 * What a starter can draw on.
 *
 * @param fields the source fields, by the address that rules name them with
 * @param calendars the ids of the working calendars
 * @param zone the zone of the application
 */
record StarterPlaces(
    List<StartField> fields,
    CollectionShape target,
    List<TableDefinition> tables,
    List<String> calendars,
    ZoneId zone) {

  /** What fields are called that hold where somebody is reached, or where something stands. */
  private static final Pattern ADDRESS =
      Pattern.compile(
          "(?i).*(mail|address|url|link|phone|telephone).*|from|to|cc|reply-?to|requester|author");

  /** A source field with the address that rules name it with. */
  record StartField(String address, FieldShape shape) {
    String slot() {
      return "{" + address + "}";
    }
  }

  /** The texts that say something, in the order of the shape: ids and addresses are none. */
  List<StartField> tellingTexts() {
    return fields.stream()
        .filter(field -> field.shape().type().equals(ValueType.TEXT))
        .filter(field -> !field.shape().required())
        .toList();
  }

  /**
   * The texts of a title, at most two: what it is about before whose it is. Two addresses are often
   * one and the same, so that none stands beside anything else.
   */
  List<StartField> titleTexts() {
    List<StartField> about =
        tellingTexts().stream().filter(field -> !isAddress(field)).limit(2).toList();
    return about.isEmpty() ? tellingTexts().stream().limit(1).toList() : about;
  }

  private static boolean isAddress(StartField field) {
    String key = field.address().substring(field.address().lastIndexOf('/') + 1);
    return ADDRESS.matcher(key).matches() || ADDRESS.matcher(field.shape().name()).matches();
  }

  Optional<StartField> source(Predicate<ValueType> type) {
    return fields.stream().filter(field -> type.test(field.shape().type())).findFirst();
  }

  Optional<FieldShape> target(Predicate<FieldShape> wanted) {
    return target.fields().stream().filter(wanted).findFirst();
  }

  Optional<FieldShape> targetOf(ValueType type) {
    return target(field -> field.type().equals(type));
  }

  /** The last moment or day of a task, by which it is to be done. */
  Optional<FieldShape> due() {
    return target.fields().stream()
        .filter(f -> f.type().equals(ValueType.MOMENT) || f.type().equals(ValueType.DAY))
        .reduce((first, last) -> last);
  }
}
