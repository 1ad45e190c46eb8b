package org.ysthmos.adapters.drop;

import java.util.List;
import org.ysthmos.core.shape.FieldShape;

/** The fields of what files hold that have fields of their own. */
public final class FileFields {

  private FileFields() {}

  /** Of the events and tasks of a calendar. */
  public static List<FieldShape> ofCalendars() {
    return CalendarFile.FIELDS;
  }
}
