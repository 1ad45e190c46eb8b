package org.ysthmos.app.check;

import java.util.List;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.trial.PinnedExample;

/** Where the results of a check are told, in order. */
interface CheckReport {

  void bridge(BridgeVersion bridge);

  void decided(Event event, Decision decision);

  /**
   * An event that the bridge does not hear of, and that was not decided.
   *
   * @param because why it does not
   */
  void notHeard(Event event, String because);

  /**
   * @param differences what is not as expected; none if the example holds
   */
  void example(PinnedExample example, List<PinnedExample.Difference> differences);

  void end();
}
