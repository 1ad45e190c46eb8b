package org.ysthmos.app.timetable;

import java.util.HashMap;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.ysthmos.app.bridge.Bridges;

/** Holds a bridge whose times broke too often in a row, for a person to see. In one thread. */
public final class Breaks {

  private static final Logger LOG = LoggerFactory.getLogger(Breaks.class);

  private static final int MOST = 6;

  private final Bridges bridges;
  private final Map<String, Integer> often = new HashMap<>();

  public Breaks(Bridges bridges) {
    this.bridges = bridges;
  }

  /** Does something for one bridge; that it breaks must not keep the others from theirs. */
  public void guard(Bridges.Live live, Runnable act) {
    String id = live.version().definition().id();
    try {
      act.run();
      often.remove(id);
    } catch (RuntimeException e) {
      int times = often.merge(id, 1, Integer::sum);
      LOG.error("the times of bridge {} could not be looked at", id, e);
      if (times >= MOST) {
        often.remove(id);
        bridges.holdItself(id, "Its times cannot be told: " + e.getMessage(), live.letThrough());
      }
    }
  }
}
