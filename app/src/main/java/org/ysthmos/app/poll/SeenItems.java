package org.ysthmos.app.poll;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.ysthmos.app.poll.PollMapper.SeenRow;
import org.ysthmos.app.store.Chunks;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.ChangeGateway.SetAside;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.gateway.Seen;

/**
 * What was met of one collection, read when it is first asked for and kept up while it is polled.
 */
final class SeenItems implements Seen {

  private static final int LONGEST_ITEM = 4_000;

  private final PollMapper polls;
  private final CollectionRef of;
  private @Nullable Map<String, SeenRow> rows;

  SeenItems(PollMapper polls, CollectionRef of) {
    this.polls = polls;
    this.of = of;
  }

  private Map<String, SeenRow> rows() {
    Map<String, SeenRow> known = rows;
    if (known == null) {
      known =
          polls.seen(of.system(), of.collection()).stream()
              .collect(Collectors.toMap(SeenRow::item, row -> row, (a, b) -> a, HashMap::new));
      rows = known;
    }
    return known;
  }

  @Override
  public Map<String, String> items() {
    Map<String, String> items = new HashMap<>();
    rows().forEach((item, row) -> items.put(item, row.state()));
    return items;
  }

  @Override
  public java.util.Optional<String> state(String item) {
    return java.util.Optional.ofNullable(rows().get(item)).map(SeenRow::state);
  }

  /**
   * Notes what was met on a page; inside the change that keeps the page.
   *
   * @return the names of what was set aside before, and can be read now or is gone
   */
  List<String> meet(Page page) {
    Map<String, SeenRow> change = new HashMap<>();
    page.met()
        .forEach(
            (item, state) -> {
              // What has a longer name cannot be kept, and is set aside for it.
              if (item.length() <= LONGEST_ITEM) {
                change.put(item, new SeenRow(item, state, null));
              }
            });
    for (SetAside aside : page.aside()) {
      SeenRow met = change.get(aside.id());
      String state = met == null || met.state().isEmpty() ? aside.version() : met.state();
      change.put(aside.id(), new SeenRow(aside.id(), state, PageRows.shortened(aside.what())));
    }
    if (change.isEmpty()) {
      return List.of();
    }
    List<String> readable = new ArrayList<>();
    List<SeenRow> kept = new ArrayList<>();
    for (SeenRow row : change.values()) {
      SeenRow before = rows().get(row.item());
      String name = before == null ? null : before.aside();
      if (name != null && row.aside() == null) {
        readable.add(name);
      }
      if (row.state().isEmpty()) {
        polls.gone(of.system(), of.collection(), row.item());
        rows().remove(row.item());
      } else if (!row.equals(before)) {
        kept.add(row);
        rows().put(row.item(), row);
      }
    }
    Chunks.each(kept, some -> polls.meet(of.system(), of.collection(), some));
    return readable;
  }
}
