package org.ysthmos.app.recall;

import java.util.List;
import java.util.function.Predicate;
import org.ysthmos.app.recall.RecallMapper.CountRow;
import org.ysthmos.core.recall.RecallWay;

/**
 * How many records of a recall stand how.
 *
 * @param chosen how many wait that are to go
 * @param puts how many of those were there before and hold again what they held
 * @param leftOut how many wait that are not
 * @param changed how many of all that wait somebody changed since
 * @param unseen how many that are to go nobody looked at yet
 * @param named how many can only be named
 * @param stays how many stay as somebody changed them, or what stands under them stays
 */
record RecallCounts(
    int chosen,
    int puts,
    int leftOut,
    int changed,
    int unseen,
    int underWay,
    int takenBack,
    int goneBefore,
    int stays,
    int failed,
    int named,
    int madeAgain) {

  static RecallCounts of(List<CountRow> rows) {
    return new RecallCounts(
        sum(rows, row -> row.state() == ItemState.WAITING && row.chosen()),
        sum(
            rows,
            row ->
                row.state() == ItemState.WAITING
                    && row.chosen()
                    && row.way() == RecallWay.PUT_BACK),
        sum(rows, row -> row.state() == ItemState.WAITING && !row.chosen()),
        sum(rows, row -> row.state() == ItemState.WAITING && row.looked() == Looked.CHANGED),
        sum(rows, row -> row.state() == ItemState.WAITING && row.chosen() && row.looked() == null),
        sum(rows, row -> row.state() == ItemState.UNDER_WAY),
        sum(rows, row -> row.state() == ItemState.TAKEN_BACK),
        sum(rows, row -> row.state() == ItemState.GONE_BEFORE),
        sum(rows, row -> row.state() == ItemState.STAYS),
        sum(rows, row -> row.state() == ItemState.FAILED),
        sum(rows, row -> row.state() == ItemState.NAMED),
        sum(rows, row -> row.state() == ItemState.MADE_AGAIN));
  }

  private static int sum(List<CountRow> rows, Predicate<CountRow> which) {
    return rows.stream().filter(which).mapToInt(CountRow::items).sum();
  }

  /** What came of it, as a sentence without a full stop. */
  String words() {
    StringBuilder words = new StringBuilder("Taken back: %,d".formatted(takenBack));
    add(words, goneBefore, "were gone already");
    add(words, stays, "stay, as somebody changed them");
    add(words, failed, "could not be taken back");
    return words.toString();
  }

  private static void add(StringBuilder words, int many, String what) {
    if (many > 0) {
      words.append("; %,d %s".formatted(many, what));
    }
  }
}
