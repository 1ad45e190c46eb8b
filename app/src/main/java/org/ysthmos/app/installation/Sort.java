package org.ysthmos.app.installation;

import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import org.ysthmos.app.who.By;

/**
 * A sort of documents that describe an installation, such as its calendars. Each document has a
 * path in the folder, for example {@code calendars/garden.yaml}.
 */
interface Sort {

  /** Whether a file of the folder is of this sort. */
  boolean owns(String path);

  /** The documents that are here, by path, as they are exported. */
  SortedMap<String, String> here();

  /**
   * A document as it would be exported once it is here, so that both can be held against each
   * other.
   *
   * @throws org.ysthmos.core.document.DocumentException if it cannot be read
   * @throws IllegalArgumentException if its name does not fit what it says
   */
  String asExported(String path, String text);

  /** What becomes another between two documents of a path, as people read it. */
  default List<String> differences(String path, String before, String after) {
    return Paths.lines(before, after);
  }

  /** Why a document that is here cannot be taken away just now; empty if it can. */
  default Optional<String> obstacle(String path) {
    return Optional.empty();
  }

  /** Keeps a document, a new one or in place of the one that is here; inside a change. */
  void put(String path, String text, By by);

  /** Takes one away; inside a change. */
  void remove(String path, By by);
}
