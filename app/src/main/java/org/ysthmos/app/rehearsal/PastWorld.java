package org.ysthmos.app.rehearsal;

import java.util.Collection;
import java.util.Optional;
import org.ysthmos.adapters.system.Push;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.decide.WorldOver;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.pair.MatchKey;

/** The world as it is now, but for what was there before an event of the past came. */
abstract class PastWorld implements WorldOver {

  private final AskedNow.Sources sources;
  private Optional<EventRow> event = Optional.empty();

  PastWorld(AskedNow.Sources sources) {
    this.sources = sources;
  }

  /** The event that is decided next. */
  void at(EventRow row) {
    event = Optional.of(row);
  }

  @Override
  public World under() {
    return sources.sample();
  }

  /** A pair of which nothing is kept from then; it counts if it was there before the event. */
  @Override
  public Optional<PairState> pair(String bridge, MatchKey key) {
    return event.flatMap(row -> sources.pairs().thereBefore(bridge, key.hash(), row));
  }

  @Override
  public Optional<Overtaken> overtaken(Event event, Collection<String> kinds) {
    return sources
        .systems()
        .collection(event.system(), event.collection())
        .flatMap(SystemCollection::push)
        .flatMap(Push::version)
        .flatMap(version -> sources.received().overtaken(event, version, kinds));
  }
}
