package org.ysthmos.core.gateway;

import java.util.Map;
import java.util.Optional;

/**
 * What was met of a collection before: each item (a file, a document, a mail) with the state in
 * which it was met. It is kept item by item, beside the cursor, so that no cursor grows with what
 * it watches, and so that what is new or changed is known by us and not by a server's dates.
 */
@FunctionalInterface
public interface Seen {

  /** How the state of an item begins that could not be read and is to be read again. */
  String AGAIN = "again ";

  /** Nothing was met yet. */
  Seen NOTHING = Map::of;

  /** The items with their states; not to be changed. */
  Map<String, String> items();

  /** The state in which an item was met; empty if it was not. */
  default Optional<String> state(String item) {
    return Optional.ofNullable(items().get(item));
  }
}
