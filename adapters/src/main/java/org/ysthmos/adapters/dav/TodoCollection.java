package org.ysthmos.adapters.dav;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.time.Duration;
import java.util.List;
import org.ysthmos.adapters.system.FollowedCollection;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.CollectionShape;

/**
 * The tasks of one calendar.
 *
 * @param folder its path below the address of the system, ending in a slash
 * @param dueOnDays whether tasks are due on whole days; otherwise at moments
 * @param every how often it is asked, where a bridge says nothing else
 */
record TodoCollection(CollectionShape shape, String folder, boolean dueOnDays, Duration every)
    implements FollowedCollection {

  static final String REMOVED = "removed";

  private static final Pointer VERSION = Pointer.parse("/tag");

  @Override
  public Pointer versionAt() {
    return VERSION;
  }

  /** A tag that is weak for a while is the same as when it is strong. */
  @Override
  public List<String> marks(JsonNode record) {
    return VERSION.in(record) instanceof TextNode tag
        ? List.of(DavCalls.strong(tag.asText()))
        : List.of();
  }

  @Override
  public List<String> changeKinds() {
    return List.of("created", "changed", REMOVED);
  }

  @Override
  public boolean findsByKey() {
    return true;
  }

  @Override
  public boolean makes() {
    return true;
  }

  @Override
  public boolean changes() {
    return true;
  }

  @Override
  public boolean removes() {
    return true;
  }

  @Override
  public int mostCalls() {
    return 2;
  }
}
