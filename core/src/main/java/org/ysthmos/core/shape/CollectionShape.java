package org.ysthmos.core.shape;

import java.util.List;
import java.util.Optional;

/**
 * One collection of a system.
 *
 * @param recordWord what people call one record, for example {@code report} or {@code task}
 * @param titleField the key of the field people know a record by; empty where there is none
 * @param parentField the key of the field that holds the id of a record's parent; empty where
 *     records have none
 * @param fields the fields of a whole record
 * @param eventFields the fields that come with an event, which may be only an id
 */
public record CollectionShape(
    String system,
    String systemName,
    String collection,
    String name,
    String recordWord,
    String titleField,
    String parentField,
    List<FieldShape> fields,
    List<FieldShape> eventFields) {

  public CollectionShape {
    fields = List.copyOf(fields);
    eventFields = List.copyOf(eventFields);
  }

  /**
   * The shape of what can be written. A field whose key is an address in a record can be read only;
   * a collection that is both read and written may have fields of both sorts.
   */
  public CollectionShape written() {
    List<FieldShape> written =
        fields.stream().filter(field -> !field.key().startsWith("/")).toList();
    return new CollectionShape(
        system,
        systemName,
        collection,
        name,
        recordWord,
        titleField,
        parentField,
        written,
        eventFields);
  }

  public Optional<FieldShape> field(String key) {
    return find(fields, key);
  }

  public Optional<FieldShape> eventField(String key) {
    return find(eventFields, key);
  }

  private static Optional<FieldShape> find(List<FieldShape> in, String key) {
    return in.stream().filter(field -> field.key().equals(key)).findFirst();
  }
}
