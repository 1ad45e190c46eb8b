package org.ysthmos.app.duplicate;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.likeness.TitleIndex;
import org.ysthmos.core.likeness.TitleIndex.Near;

/**
 * The titles of the tasks that are known, for each collection that tasks are made in. They are held
 * in memory alone, and read anew at each start: what they are for is to point at a task, which is
 * then looked at where it stands.
 */
@Component
class KnownTitles {

  /** How many of a collection are known at the most; of more, the newest. */
  static final int MOST = 50_000;

  private final Map<CollectionRef, TitleIndex<KnownTask>> titles = new ConcurrentHashMap<>();

  void put(CollectionRef at, KnownTask task, String title) {
    titles.computeIfAbsent(at, any -> new TitleIndex<>(MOST)).put(task, title);
  }

  /** The same, unless it is known or there is no room: what came later counts more. */
  void putIfNew(CollectionRef at, KnownTask task, String title) {
    titles.computeIfAbsent(at, any -> new TitleIndex<>(MOST)).putIfNew(task, title);
  }

  void forget(CollectionRef at, KnownTask task) {
    TitleIndex<KnownTask> known = titles.get(at);
    if (known != null) {
      known.remove(task);
    }
  }

  /** The tasks whose titles are nearly equal, the most alike first, but for the task itself. */
  List<Near<KnownTask>> near(CollectionRef at, KnownTask itself, String title, int limit) {
    TitleIndex<KnownTask> known = titles.get(at);
    if (known == null) {
      return List.of();
    }
    return known.near(title, limit + 1).stream()
        .filter(near -> !near.key().equals(itself))
        .limit(limit)
        .toList();
  }
}
