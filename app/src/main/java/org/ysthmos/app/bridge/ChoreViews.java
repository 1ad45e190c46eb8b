package org.ysthmos.app.bridge;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.ysthmos.core.bridge.ChoreRules;
import org.ysthmos.core.bridge.CompiledChores;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.guard.CeilingWords;
import org.ysthmos.core.recurrence.OffDays;
import org.ysthmos.core.rule.CompiledValue;

/** How the rows of a bridge come round, in sentences. */
final class ChoreViews {

  private ChoreViews() {}

  static List<String> sentences(CompiledChores chores) {
    ChoreRules rules = chores.rules();
    List<String> said = new ArrayList<>();
    said.add("each comes round as its row says in " + source(chores.every()));
    said.add("its zone is " + source(chores.zone()));
    add(said, "its time of day is ", chores.at());
    add(said, "it counts from the day in ", chores.start());
    add(said, "when it was done stands in ", chores.done());
    add(said, "its task is made before it is due, by ", chores.lead());
    if (rules.offDays() != OffDays.KEEP) {
      said.add(
          "on a day off %s, by the calendar %s"
              .formatted(
                  switch (rules.offDays()) {
                    case NEXT -> "it goes to the next working day";
                    case BEFORE -> "it goes to the working day before";
                    default -> "it is left out";
                  },
                  chores.calendar().map(WorkingCalendar::name).orElse("")));
    }
    if (!rules.spread().isZero()) {
      said.add("those of one moment are spread over " + CeilingWords.span(rules.spread()));
    }
    said.add(
        "of times that were missed "
            + switch (rules.catchUp()) {
              case EACH -> "each is made up for";
              case LATEST -> "the latest alone is made up for";
              case NONE -> "none is made up for";
            });
    return said;
  }

  private static void add(List<String> said, String words, Optional<CompiledValue> value) {
    value.ifPresent(one -> said.add(words + source(one)));
  }

  private static String source(CompiledValue value) {
    List<BridgeViews.Piece> pieces =
        BridgeViews.source(value, UnaryOperator.identity()).stream()
            .map(ChoreViews::quoted)
            .toList();
    return RuleDifferences.sentence(pieces, value.chain().sentences());
  }

  private static BridgeViews.Piece quoted(BridgeViews.Piece piece) {
    return piece.kind().equals("field")
        ? new BridgeViews.Piece(piece.kind(), "“" + piece.text() + "”", piece.address())
        : piece;
  }
}
