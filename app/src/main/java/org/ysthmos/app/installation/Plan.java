package org.ysthmos.app.installation;

import java.util.List;

/**
 * What applying a folder would do, before anything is done.
 *
 * @param id tells this plan from every other: of other documents, or over an installation that
 *     differs from what it was
 * @param lines what would be made, changed or removed, in the order in which it is done
 * @param results how the results of bridges over the last events would differ
 * @param problems why it cannot be applied; none if it can
 */
record Plan(
    String id, List<PlannedDocument> lines, List<PlannedResult> results, List<String> problems) {

  Plan {
    lines = List.copyOf(lines);
    results = List.copyOf(results);
    problems = List.copyOf(problems);
  }

  /** What is done with a document. */
  enum Does {
    MADE,
    CHANGED,
    REMOVED
  }

  /**
   * A document.
   *
   * @param path in the folder
   * @param differences what becomes another, as people read it
   */
  record PlannedDocument(Does does, String path, List<String> differences) {
    PlannedDocument {
      differences = List.copyOf(differences);
    }
  }

  /**
   * A bridge that would decide by other rules, or read other tables or calendars.
   *
   * @param events how many of the last events were gone over
   * @param differing how many of them would come to something else than they did
   * @param differences what would be otherwise, counted; or why nothing can be said
   */
  record PlannedResult(
      String bridge, String name, int events, int differing, List<String> differences) {
    PlannedResult {
      differences = List.copyOf(differences);
    }
  }
}
