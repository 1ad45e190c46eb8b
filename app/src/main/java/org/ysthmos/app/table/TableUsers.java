package org.ysthmos.app.table;

import org.ysthmos.core.table.ReferenceTable;

/** What is made of tables, and must go on to fit when one is changed. */
public interface TableUsers {

  /**
   * @throws org.ysthmos.app.problem.ApiProblem if a live bridge could not be used with the table as
   *     it would be
   */
  void requireUsable(ReferenceTable table);

  /** What is made of tables is made anew. */
  void refresh();
}
