package org.ysthmos.app.rehearsal;

import java.util.ArrayList;
import java.util.List;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.rehearsal.Tally;

/** What a rehearsal comes to, as people read it. */
public final class TallyWords {

  private TallyWords() {}

  /** The same of the last few events, with how many were left out. */
  public static List<String> of(LatelyRehearsed.Lately lately) {
    List<String> words = of(lately.tally());
    if (lately.notLookedAt() > 0) {
      words.add("%d more not looked at, as they ask too much".formatted(lately.notLookedAt()));
    }
    return words;
  }

  /** What is otherwise: verdicts first, for example {@code 3 failed → create}, then fields. */
  private static List<String> of(Tally tally) {
    List<String> words = new ArrayList<>();
    for (Tally.Cell cell : tally.cells()) {
      String then = cell.then().map(Verdict::words).orElse("not heard");
      if (!then.equals(cell.now().words())) {
        words.add("%d %s → %s".formatted(cell.events(), then, cell.now().words()));
      }
    }
    for (Tally.OfField field : tally.fields()) {
      String name = field.member().isEmpty() ? field.field() : field.member() + "/" + field.field();
      words.add("%s otherwise in %d".formatted(name, field.events()));
    }
    return words;
  }
}
