package org.ysthmos.app.duplicate;

import java.util.List;
import org.springframework.stereotype.Component;
import org.ysthmos.app.duplicate.DuplicateMapper.MadeRow;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.value.Value;

/**
 * Reads the titles of the tasks that were made before this start, the last first and some at a
 * time, so that nothing waits for it.
 */
@Component
class TitlesAtStart {

  private static final int AT_ONCE = 1_000;

  /** How many deliveries are gone through at the most. */
  private static final int MOST = 2 * KnownTitles.MOST;

  private final DuplicateMapper mapper;
  private final KnownTitles titles;
  private final Sides sides;
  private long before = Long.MAX_VALUE;
  private int read;
  private boolean done;

  TitlesAtStart(DuplicateMapper mapper, KnownTitles titles, Sides sides) {
    this.mapper = mapper;
    this.titles = titles;
    this.sides = sides;
  }

  boolean isDone() {
    return done;
  }

  /** Reads the next of them; by one thread. */
  void readSome() {
    if (done) {
      return;
    }
    List<MadeRow> some = mapper.made(before, AT_ONCE);
    for (MadeRow row : some) {
      before = row.seq();
      CollectionRef at = new CollectionRef(row.systemId(), row.collectionId());
      Value title = KeptFields.read(row.fields()).get(sides.titleField(at));
      if (title != null) {
        titles.putIfNew(at, new KnownTask.OfPair(row.bridgeId(), row.matchHash()), title.display());
      }
    }
    read += some.size();
    done = some.size() < AT_ONCE || read >= MOST;
  }
}
