package org.ysthmos.core.reading;

import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.table.TableDefinition;

/** What a rule can name when it is compiled. */
public interface Scope {

  /**
   * @throws Misfit if nothing stands at the address; the message names the nearest that does
   */
  BoundField bind(Address address);

  /**
   * @throws Misfit if there is no such table
   */
  TableDefinition table(String id);

  /**
   * @throws Misfit if there is no such calendar
   */
  WorkingCalendar calendar(String id);

  /**
   * The scope of a rule that goes through a list of records: it can name the fields of the record
   * in hand, too.
   *
   * @throws Misfit if the field is no list of records, or a list is in hand already
   */
  Scope inItemsOf(BoundField list);
}
