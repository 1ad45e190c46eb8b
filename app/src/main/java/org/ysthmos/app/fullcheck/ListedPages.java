package org.ysthmos.app.fullcheck;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.dispatch.DryLook;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.fullcheck.CheckItemMapper.ItemRow;
import org.ysthmos.app.fullcheck.FullCheckMapper.CheckRow;
import org.ysthmos.app.fullcheck.FullCheckMapper.PairRow;
import org.ysthmos.app.fullcheck.FullCheckMapper.Step;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.SideCheck;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.json.StoredText;
import org.ysthmos.core.sync.Side;

/** Keeps what stands out on the pages of a list, and what is missed on it once it was read. */
@Component
class ListedPages {

  /** More are not taken down: nobody goes through them, and one list is not what it should be. */
  static final int MOST_FOUND = 50_000;

  private static final int MISSED_AT_ONCE = 200;

  private static final int LONGEST_PLACE = 4_000;

  /**
   * A page that was read.
   *
   * @param lacks what stands in a task and not in the list, with commas; empty if that is not known
   */
  record Listing(
      CheckRow check,
      Side side,
      CompiledTwoWay.CompiledPlace place,
      Page page,
      DryLook.Listed listed,
      Optional<String> lacks) {}

  /** A task of a page that is in a pair, or stands out. */
  private record Kept(Changed record, DryLook.Held held, boolean standsOut) {}

  /**
   * What is taken down of something that stands out.
   *
   * @param pair null where a task is in none
   * @param missing the side whose list lacks its task
   */
  private record Out(
      @Nullable String pair,
      @Nullable Side missing,
      String title,
      @Nullable String left,
      @Nullable String right) {}

  private final FullChecks checks;
  private final FullCheckMapper mapper;
  private final CheckItemMapper items;
  private final Journal journal;

  ListedPages(FullChecks checks, FullCheckMapper mapper, CheckItemMapper items, Journal journal) {
    this.checks = checks;
    this.mapper = mapper;
    this.items = items;
    this.journal = journal;
  }

  /**
   * Keeps a page in one change.
   *
   * @return false if another carried the check on meanwhile
   */
  boolean keep(Listing listing) {
    boolean tellsLess = listing.lacks().filter(fields -> !fields.isEmpty()).isPresent();
    List<Kept> kept = new ArrayList<>();
    for (Changed one : listing.page().records()) {
      if (one.id().length() > EventRow.LONGEST_RECORD_ID) {
        continue;
      }
      DryLook.Held held = listing.listed().of(one.id(), one.record());
      boolean standsOut =
          held.outcome() instanceof SideCheck.Closer || (tellsLess && mayDiffer(listing, held));
      if (standsOut || held.pair().isPresent()) {
        kept.add(new Kept(one, held, standsOut));
      }
    }
    return journal.now(() -> keepInChange(listing, kept));
  }

  /** What a list does not tell may be what differs, or what lets a task be made across. */
  private static boolean mayDiffer(Listing listing, DryLook.Held held) {
    return held.outcome() instanceof SideCheck.Alike
        || (held.pair().isEmpty() && listing.place().rule().begins());
  }

  private boolean keepInChange(Listing listing, List<Kept> kept) {
    CheckRow check = checks.get(listing.check().id());
    if (check.step() != listing.check().step()) {
      return false;
    }
    int found = add(listing, kept);
    Optional<String> next = listing.page().next();
    Optional<String> obstacle = obstacle(check.found() + found, next);
    if (obstacle.isPresent()) {
      return checks.become(check, CheckState.FAILED, obstacle.get()) == 1;
    }
    int read = listing.page().records().size();
    boolean left = listing.side() == Side.LEFT;
    int unused =
        mapper.goOn(
            new Step(
                check.id(),
                check.step(),
                left ? read : 0,
                left ? 0 : read,
                aside(read, kept),
                found,
                next.orElse(null),
                left ? listing.lacks().orElse(null) : null,
                left ? null : listing.lacks().orElse(null)));
    return next.isPresent() || isThrough(check.id());
  }

  /** How many have no part in it: what is not kept, and what is of a pair that was parted. */
  private static int aside(int read, List<Kept> kept) {
    long parted =
        kept.stream()
            .filter(one -> !one.standsOut() && one.held().outcome() instanceof SideCheck.Aside)
            .count();
    return read - kept.size() + (int) parted;
  }

  private boolean isThrough(long id) {
    CheckRow now = checks.get(id);
    return checks.become(now, now.state().next(), null) == 1;
  }

  private static Optional<String> obstacle(int found, Optional<String> next) {
    if (found > MOST_FOUND) {
      return Optional.of(
          "More than %,d stand out. One of both lists may not be the right one."
              .formatted(MOST_FOUND));
    }
    return next.filter(place -> place.length() > LONGEST_PLACE)
        .map(place -> "The address of the next page is too long to be kept.");
  }

  /** How many stand out that did not before. Pages that shift show a task twice. */
  private int add(Listing listing, List<Kept> kept) {
    CheckRow check = listing.check();
    Set<String> met = new LinkedHashSet<>();
    int found = 0;
    for (Kept one : kept) {
      String record = one.record().id();
      boolean known = mapper.met(check.id(), listing.side(), record) > 0 || !met.add(record);
      Optional<String> pair = one.held().pair();
      if (known
          || !one.standsOut()
          || pair.filter(hash -> items.ofPair(check.id(), hash) > 0).isPresent()) {
        continue;
      }
      found++;
      items.add(item(check, check.found() + found, out(listing, one)));
    }
    if (!met.isEmpty()) {
      mapper.meet(check.id(), listing.side(), met);
    }
    return found;
  }

  private Out out(Listing listing, Kept one) {
    PairRow pair =
        one.held().pair().map(hash -> mapper.pair(listing.check().bridgeId(), hash)).orElse(null);
    if (pair != null) {
      return out(pair, null);
    }
    String record = one.record().id();
    String title =
        Optional.of(StoredText.of(one.record().record().path(listing.place().shape().titleField())))
            .filter(text -> !text.isBlank())
            .orElse(record);
    boolean left = listing.side() == Side.LEFT;
    return new Out(null, null, title, left ? record : null, left ? null : record);
  }

  private static Out out(PairRow pair, @Nullable Side missing) {
    return new Out(pair.pairHash(), missing, pair.title(), pair.leftRecord(), pair.rightRecord());
  }

  private static ItemRow item(CheckRow check, int number, Out out) {
    return new ItemRow(
        check.id(),
        number,
        CheckItemState.TO_LOOK,
        null,
        out.pair(),
        out.missing(),
        null,
        out.left(),
        out.right(),
        Words.limited(out.title(), 300),
        "",
        "",
        "",
        0,
        null,
        null);
  }

  /**
   * Of the pairs whose task was not met on the list, some in each change. They are looked for
   * outside of it, as that goes through all pairs.
   *
   * @return false if another carried the check on meanwhile
   */
  boolean findMissed(CheckRow check) {
    Side side = check.state().side().orElseThrow();
    String after = check.place() == null ? "" : check.place();
    List<PairRow> missed = mapper.missed(check.id(), check.bridgeId(), side, after, MISSED_AT_ONCE);
    return journal.now(() -> keepMissed(check, side, missed));
  }

  private boolean keepMissed(CheckRow check, Side side, List<PairRow> missed) {
    if (missed.isEmpty()) {
      return checks.become(check, check.state().next(), null) == 1;
    }
    List<PairRow> more =
        missed.stream().filter(one -> items.ofPair(check.id(), one.pairHash()) == 0).toList();
    String last = missed.getLast().pairHash();
    Step step = new Step(check.id(), check.step(), 0, 0, 0, more.size(), last, null, null);
    if (mapper.goOn(step) == 0) {
      return false;
    }
    missed.forEach(one -> items.missing(check.id(), one.pairHash(), side));
    for (int i = 0; i < more.size(); i++) {
      items.add(item(check, check.found() + i + 1, out(more.get(i), side)));
    }
    return true;
  }
}
