package org.ysthmos.adapters.dav;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.ysthmos.adapters.system.Asked;
import org.ysthmos.adapters.system.SystemCollection;
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
    implements SystemCollection {

  static final String REMOVED = "removed";

  private static final Pointer ID = Pointer.parse("/id");

  @Override
  public List<List<String>> findsBy() {
    return List.of(List.of("id"));
  }

  @Override
  public Optional<Pointer> lists() {
    return Optional.of(ID);
  }

  @Override
  public Optional<Asked> asked() {
    return Optional.of(
        new Asked(
            every,
            ID,
            Pointer.parse("/tag"),
            false,
            false,
            List.of("created", "changed", REMOVED)));
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
