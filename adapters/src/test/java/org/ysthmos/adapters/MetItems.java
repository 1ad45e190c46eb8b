package org.ysthmos.adapters;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.ChangeGateway;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.ChangeGateway.SetAside;
import org.ysthmos.core.gateway.Seen;

/** Follows a collection as the application does, keeping what was met and where it goes on. */
public final class MetItems implements Seen {

  private final ChangeGateway system;
  private final String collection;
  private final Map<String, String> items = new HashMap<>();
  private Optional<String> since = Optional.empty();

  /** What was set aside in the last pass. */
  public final List<SetAside> aside = new ArrayList<>();

  /** What was wrong in the last pass while the rest was read. */
  public final List<Failure> troubles = new ArrayList<>();

  public MetItems(ChangeGateway system, String collection) {
    this.system = system;
    this.collection = collection;
  }

  @Override
  public Map<String, String> items() {
    return items;
  }

  public Cursor cursor() {
    return new Cursor(since, Optional.empty(), this);
  }

  /** Goes on as if it had ended with this cursor. */
  public void goOnFrom(String cursor) {
    since = Optional.of(cursor);
  }

  /** A page that is not kept. */
  public Page look() {
    return (Page) system.changes(collection, cursor(), call -> {});
  }

  /** Reads to the end of a pass. */
  public List<Changed> pass() {
    List<Changed> all = new ArrayList<>();
    aside.clear();
    troubles.clear();
    Optional<String> page = Optional.empty();
    for (int pages = 0; pages < 10_000; pages++) {
      Page read = (Page) system.changes(collection, new Cursor(since, page, this), call -> {});
      all.addAll(read.records());
      aside.addAll(read.aside());
      troubles.addAll(read.troubles());
      read.aside().forEach(one -> items.put(one.id(), one.version()));
      read.met()
          .forEach(
              (item, state) -> {
                if (state.isEmpty()) {
                  items.remove(item);
                } else {
                  items.put(item, state);
                }
              });
      if (read.next().isEmpty()) {
        since = read.since().or(() -> since);
        return all;
      }
      page = read.next();
    }
    throw new IllegalStateException("a pass without end");
  }
}
