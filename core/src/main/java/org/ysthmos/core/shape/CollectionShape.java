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
 * @param abilities what its system can do with it; empty where that is not known
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
    List<FieldShape> eventFields,
    Optional<Abilities> abilities) {

  public CollectionShape {
    fields = List.copyOf(fields);
    eventFields = List.copyOf(eventFields);
  }

  /**
   * What a system can do with a collection.
   *
   * @param kinds the kinds of event that come from it
   * @param makes whether records can be made
   * @param changes whether records can be changed
   * @param pages whether people see a record on a page that has an address
   * @param reads whether a record can be read by its id
   */
  public record Abilities(
      List<String> kinds, boolean makes, boolean changes, boolean pages, boolean reads) {
    public Abilities {
      kinds = List.copyOf(kinds);
    }
  }

  /** A collection of which is not known what its system can do with it. */
  public CollectionShape(
      String system,
      String systemName,
      String collection,
      String name,
      String recordWord,
      String titleField,
      String parentField,
      List<FieldShape> fields,
      List<FieldShape> eventFields) {
    this(
        system,
        systemName,
        collection,
        name,
        recordWord,
        titleField,
        parentField,
        fields,
        eventFields,
        Optional.empty());
  }

  /** The same with other fields of its records. */
  public CollectionShape withFields(List<FieldShape> other) {
    return new CollectionShape(
        system,
        systemName,
        collection,
        name,
        recordWord,
        titleField,
        parentField,
        other,
        eventFields,
        abilities);
  }

  /** The same with other fields that come with its events. */
  public CollectionShape withEventFields(List<FieldShape> other) {
    return new CollectionShape(
        system,
        systemName,
        collection,
        name,
        recordWord,
        titleField,
        parentField,
        fields,
        other,
        abilities);
  }

  public CollectionShape with(Abilities known) {
    return new CollectionShape(
        system,
        systemName,
        collection,
        name,
        recordWord,
        titleField,
        parentField,
        fields,
        eventFields,
        Optional.of(known));
  }

  /**
   * The shape of what can be written. A field whose key is an address in a record can be read only;
   * a collection that is both read and written may have fields of both sorts.
   */
  public CollectionShape written() {
    List<FieldShape> written =
        fields.stream().filter(field -> !field.key().startsWith("/")).toList();
    return withFields(written);
  }

  /** The fields that can be read in its records, each under its address. */
  public List<FieldShape> readFields() {
    return fields.stream().filter(field -> field.key().startsWith("/")).toList();
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
