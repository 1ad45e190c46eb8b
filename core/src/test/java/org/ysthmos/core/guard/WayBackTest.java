package org.ysthmos.core.guard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.guard.WayBack.Carries;

class WayBackTest {

  private static final Carries FORM = new Carries("form", "form", "board");
  private static final Carries OVER = new Carries("over", "board", "ledger");
  private static final Carries BACK = new Carries("back", "ledger", "board");
  private static final Carries ROUND = new Carries("round", "ledger", "chat");
  private static final Carries SELF = new Carries("self", "mail", "mail");

  @Test
  void goesByOtherBridges() {
    assertThat(WayBack.of(OVER, List.of(FORM, OVER, ROUND, BACK)).places())
        .containsExactly("board", "ledger", "board");
    assertThat(WayBack.of(BACK, List.of(FORM, OVER, ROUND, BACK)).places())
        .containsExactly("ledger", "board", "ledger");
  }

  @Test
  void goesByItself() {
    assertThat(WayBack.of(SELF, List.of(SELF)).places())
        .containsExactly("mail", "mail");
  }

  @Test
  void namesTheBridgesThatCarryAlongIt() {
    assertThat(WayBack.of(OVER, List.of(FORM, OVER, ROUND, BACK)).bridges())
        .containsExactly("over", "back");
    assertThat(WayBack.of(SELF, List.of(SELF)).bridges()).containsExactly("self");
    assertThat(WayBack.of(FORM, List.of(FORM, OVER, BACK)).bridges()).isEmpty();
  }

  @Test
  void isTheShortest() {
    Carries longer = new Carries("longer", "ledger", "chat");
    Carries home = new Carries("home", "chat", "board");
    assertThat(WayBack.of(OVER, List.of(longer, home, BACK, OVER)).places())
        .containsExactly("board", "ledger", "board");
    assertThat(WayBack.of(OVER, List.of(longer, home, OVER)).places())
        .containsExactly("board", "ledger", "chat", "board");
  }

  @Test
  void isNoneWhereNothingLeadsBack() {
    assertThat(WayBack.of(FORM, List.of(FORM, OVER, BACK)).places()).isEmpty();
    assertThat(WayBack.of(OVER, List.of(FORM, OVER, ROUND)).places()).isEmpty();
  }
}
