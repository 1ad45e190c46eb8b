package org.ysthmos.app.event;

import org.ysthmos.core.event.Event;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.json.StoredText;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.value.ValueType;

/** What people know a record by, as far as an event of it tells. */
public final class RecordName {

  private RecordName() {}

  /** Its first field that holds a text and not its id; that if there is none. */
  public static String of(CollectionShape collection, Event event) {
    return collection.eventFields().stream()
        .filter(field -> field.type().equals(ValueType.TEXT) && field.key().startsWith("/"))
        .map(field -> StoredText.of(Pointer.parse(field.key()).in(event.data())))
        .filter(text -> !text.isBlank() && !text.equals(event.record()))
        .findFirst()
        .orElse(event.record());
  }
}
