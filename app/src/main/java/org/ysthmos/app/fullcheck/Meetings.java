package org.ysthmos.app.fullcheck;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.ysthmos.app.fullcheck.CheckItemMapper.ItemRow;
import org.ysthmos.app.fullcheck.FullCheckMapper.CheckRow;
import org.ysthmos.app.fullcheck.FullCheckMapper.Step;
import org.ysthmos.app.store.Journal;
import org.ysthmos.core.decide.FirstMeeting;
import org.ysthmos.core.decide.FirstMeeting.Met;
import org.ysthmos.core.decide.FirstMeeting.Stray;

/**
 * Finds which of the tasks without another one may be the same, so that nothing is made a second
 * time where both lists had it before the bridge came.
 */
@Component
class Meetings {

  private static final int PAGE = 1_000;

  /** So many are kept in one change. */
  private static final int AT_ONCE = 200;

  private final FullChecks checks;
  private final FullCheckMapper mapper;
  private final CheckItemMapper items;
  private final ToldApartMapper apart;
  private final Journal journal;

  Meetings(
      FullChecks checks,
      FullCheckMapper mapper,
      CheckItemMapper items,
      ToldApartMapper apart,
      Journal journal) {
    this.checks = checks;
    this.mapper = mapper;
    this.items = items;
    this.apart = apart;
    this.journal = journal;
  }

  /**
   * Keeps those that meet, some in each change; a kill between two of them leaves the rest to be
   * found again.
   *
   * @return false if another carried the check on meanwhile
   */
  boolean goOn(CheckRow check) {
    Map<String, ItemRow> lefts = new LinkedHashMap<>();
    Map<String, ItemRow> rights = new LinkedHashMap<>();
    for (ItemRow item : strays(check)) {
      String left = item.leftRecord();
      String right = item.rightRecord();
      if (left != null) {
        lefts.put(left, item);
      } else if (right != null) {
        rights.put(right, item);
      }
    }
    Set<ToldApartMapper.Two> two = Set.copyOf(apart.ofBridge(check.bridgeId()));
    List<Met> met =
        FirstMeeting.of(
            strays(lefts),
            strays(rights),
            (left, right) -> two.contains(new ToldApartMapper.Two(left, right)));
    for (int at = 0; at < met.size(); at += AT_ONCE) {
      List<Meeting> some = new ArrayList<>();
      for (Met one : met.subList(at, Math.min(met.size(), at + AT_ONCE))) {
        some.add(
            new Meeting(
                one,
                Objects.requireNonNull(lefts.get(one.left().record())),
                Objects.requireNonNull(rights.get(one.right().record()))));
      }
      if (!journal.now(() -> keep(check.id(), some))) {
        return false;
      }
    }
    return journal.now(() -> isThrough(check.id()));
  }

  private record Meeting(Met met, ItemRow left, ItemRow right) {}

  private boolean isThrough(long id) {
    CheckRow now = checks.get(id);
    return now.state() == CheckState.MEETING && checks.become(now, now.state().next(), null) == 1;
  }

  private boolean keep(long id, List<Meeting> some) {
    CheckRow check = checks.get(id);
    if (check.state() != CheckState.MEETING) {
      return false;
    }
    int number = check.found();
    for (Meeting one : some) {
      number++;
      keep(check, number, one);
    }
    return mapper.goOn(new Step(check.id(), check.step(), 0, 0, 0, some.size(), null, null, null))
        == 1;
  }

  private List<ItemRow> strays(CheckRow check) {
    List<ItemRow> all = new ArrayList<>();
    List<ItemRow> page = items.strays(check.id(), 0, PAGE);
    while (!page.isEmpty()) {
      all.addAll(page);
      page = items.strays(check.id(), page.getLast().number(), PAGE);
    }
    return all;
  }

  private static List<Stray> strays(Map<String, ItemRow> items) {
    List<Stray> strays = new ArrayList<>();
    items.forEach(
        (record, item) ->
            strays.add(
                new Stray(
                    record,
                    item.title(),
                    item.tells()
                        .lines()
                        .filter(line -> !line.isBlank())
                        .collect(Collectors.toSet()))));
    return strays;
  }

  private void keep(CheckRow check, int number, Meeting one) {
    ItemRow left = one.left();
    ItemRow right = one.right();
    int unused = items.meet(check.id(), left.number(), right.number());
    String other = right.title().equals(left.title()) ? "" : ": “%s”".formatted(right.title());
    items.add(
        new ItemRow(
            check.id(),
            number,
            CheckItemState.TO_LOOK,
            null,
            null,
            null,
            null,
            left.leftRecord(),
            right.rightRecord(),
            left.title(),
            "",
            one.met().because() + other,
            "",
            0,
            null,
            null));
  }
}
