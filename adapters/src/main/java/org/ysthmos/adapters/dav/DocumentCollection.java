package org.ysthmos.adapters.dav;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.ysthmos.adapters.system.FollowedCollection;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.CollectionShape;

/**
 * The documents in a folder and in the folders below it. A document that appears is {@code added},
 * one whose tag changes is {@code revised}, one that is found elsewhere with the same tag is {@code
 * renamed}, one that is gone is {@code removed}.
 *
 * @param folder its path below the address of the system, ending in a slash
 * @param properties the key of a field to the property that it holds, in braces-namespace form
 * @param every how often it is asked, where a bridge says nothing else
 */
record DocumentCollection(
    CollectionShape shape, String folder, Map<String, String> properties, Duration every)
    implements FollowedCollection {

  static final String ADDED = "added";
  static final String REVISED = "revised";
  static final String RENAMED = "renamed";
  static final String REMOVED = "removed";

  private static final Pointer VERSION = Pointer.parse("/tag");

  @Override
  public Pointer versionAt() {
    return VERSION;
  }

  @Override
  public List<String> changeKinds() {
    return List.of(ADDED, REVISED, RENAMED, REMOVED);
  }
}
