package org.ysthmos.app.register;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.register.RegisterMapper.CardRow;
import org.ysthmos.app.register.RegisterMapper.Judged;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;

/** What people say of bridges, for whoever keeps it as a document. */
@Component
public class Cards {

  /**
   * What people say of a bridge; each text is empty if they do not.
   *
   * @param judged the word for how sound they judge it; empty while nobody said
   */
  public record Card(String owner, String standIn, String department, String judged) {
    public static final Card NONE = new Card("", "", "", "");
  }

  private final RegisterMapper mapper;
  private final AppClock clock;

  Cards(RegisterMapper mapper, AppClock clock) {
    this.mapper = mapper;
    this.clock = clock;
  }

  /** Those of which something is said, by bridge. */
  public Map<String, Card> all() {
    return mapper.cards().stream()
        .filter(row -> !card(row).equals(Card.NONE))
        .collect(Collectors.toMap(CardRow::bridgeId, Cards::card));
  }

  private static Card card(CardRow row) {
    return new Card(row.owner(), row.standIn(), row.department(), word(row.judged()));
  }

  private static String word(@Nullable Judged judged) {
    return judged == null ? "" : judged.name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  /** Keeps one in place of what was said before; inside a change. */
  public void keep(String bridge, Card card, By by) {
    int before =
        mapper.cards().stream()
            .filter(row -> row.bridgeId().equals(bridge))
            .map(CardRow::revision)
            .findFirst()
            .orElse(0);
    CardRow row =
        new CardRow(
            bridge,
            card.owner(),
            card.standIn(),
            card.department(),
            judged(card.judged()),
            before + 1,
            clock.instant(),
            by.name());
    if (before == 0) {
      mapper.add(row);
    } else {
      int unused = mapper.change(row);
    }
  }

  private static @Nullable Judged judged(String word) {
    for (Judged one : Judged.values()) {
      if (word(one).equals(word)) {
        return one;
      }
    }
    return null;
  }

  /** The words for how sound a bridge may be judged. */
  public static List<String> judgements() {
    return Arrays.stream(Judged.values()).map(Cards::word).toList();
  }
}
