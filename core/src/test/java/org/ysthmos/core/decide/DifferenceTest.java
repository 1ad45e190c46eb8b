package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.testkit.Shores;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Text;

class DifferenceTest {

  private final Shores shores = new Shores();

  @BeforeEach
  void pairThatAgreed() {
    shores
        .paired(
            new SyncedPair(
                Synced.key("shores", Side.LEFT, "b1"),
                new Both<>(Optional.of("b1"), Optional.of("l1")),
                new Agreed(
                    Map.of("title", Text.of("Mend"), "status", new Choice("doing")),
                    Map.of("title", Text.of("Mend"), "status", new Choice("in-work"))),
                Map.of(),
                Optional.empty()))
        .holding("b1", "title", "Mend", "lane", "doing")
        .holding("l1", "title", "Mend", "status", "in-work");
  }

  private Optional<Difference> look(Side side, String record, Look look) {
    return Difference.of(
        look, shores.decide(Shores.BRIDGE, side, Look.KIND, record, look.data().toString()));
  }

  private Difference found(Look look) {
    return look(Side.LEFT, "b1", look).orElseThrow();
  }

  @Test
  void tasksThatAgreeAreNone() {
    assertThat(look(Side.LEFT, "b1", Look.PLAIN)).isEmpty();
  }

  @Test
  void changeOfOneSideIsNamedWithWhereItGoes() {
    shores.holding("l1", "title", "Mend", "status", "done");
    Difference found = found(Look.PLAIN);
    assertThat(found.kind()).isEqualTo(Difference.Kind.NOT_CARRIED);
    assertThat(found.side()).contains(Side.LEFT);
    assertThat(found.fields()).containsExactly("status");
  }

  @Test
  void changesOfBothSidesGoBothWays() {
    shores
        .holding("b1", "title", "Mend it", "lane", "doing")
        .holding("l1", "title", "Mend", "status", "done");
    assertThat(found(Look.PLAIN).side()).isEmpty();
    assertThat(found(Look.PLAIN).fields()).containsExactly("title", "status");
  }

  @Test
  void fieldThatChangedApartIsForAPerson() {
    shores
        .holding("b1", "title", "Mend it", "lane", "doing")
        .holding("l1", "title", "Repair", "status", "in-work");
    assertThat(found(Look.PLAIN))
        .isEqualTo(new Difference(Difference.Kind.APART, Optional.empty(), List.of("title"), ""));
  }

  /** As after a copy of our own data was put back: else the next change would be one of both. */
  @Test
  void whatBothWereChangedToIsToBeNoted() {
    shores
        .holding("b1", "title", "Mend it", "lane", "finished")
        .holding("l1", "title", "Mend it", "status", "done");
    Difference found = found(Look.PLAIN);
    assertThat(found.kind()).isEqualTo(Difference.Kind.NOT_NOTED);
    assertThat(found.fields()).containsExactly("title", "status");
  }

  @Test
  void taskOfNoPairWasNotMade() {
    shores.holding("b2", "title", "New", "lane", "wanted");
    Difference found = look(Side.LEFT, "b2", Look.PLAIN).orElseThrow();
    assertThat(found.kind()).isEqualTo(Difference.Kind.NOT_MADE);
    assertThat(found.side()).contains(Side.RIGHT);
    shores.without("b2");
    assertThat(look(Side.LEFT, "b2", Look.PLAIN)).isEmpty();
  }

  /**
   * What comes with an event of the ledger says whether it is wanted; with a look comes nothing.
   */
  @Test
  void taskOfNoPairIsReadBeforeItIsPassedBy() {
    shores.holding("l2", "title", "New", "status", "open", "label", "x");
    assertThat(look(Side.RIGHT, "l2", Look.PLAIN).orElseThrow().side()).contains(Side.LEFT);
    shores.holding("l2", "title", "New", "status", "open");
    assertThat(look(Side.RIGHT, "l2", Look.PLAIN)).isEmpty();
  }

  /** Who says that a task is gone has been asked: what a document leaves to a person is done. */
  @Test
  void taskThatIsGonePartsTheTwoOnceAPersonSaysSo() {
    shores.without("b1");
    assertThat(found(Look.PLAIN).kind()).isEqualTo(Difference.Kind.GONE);
    assertThat(found(Look.PLAIN).because()).contains("is not there any more");
    Difference said = found(Look.gone(Side.LEFT));
    assertThat(said.side()).contains(Side.LEFT);
    assertThat(said.because()).contains("was removed");
    String asks = Shores.BRIDGE.replace(", if-gone: part }", " }");
    Decision asked =
        shores.decide(asks, Side.LEFT, Look.KIND, "b1", Look.gone(Side.LEFT).data().toString());
    assertThat(asked.synced().orElseThrow().parted()).isPresent();
    assertThat(asked.deliveries()).isEmpty();
  }

  @Test
  void twoThatAreBothGonePartWhicheverIsSaid() {
    shores.without("b1").without("l1");
    assertThat(found(Look.gone(Side.RIGHT)).because()).isEqualTo("both tasks are gone");
  }

  @Test
  void whatAPersonSaysIsGoneAndIsThereStays() {
    assertThat(look(Side.LEFT, "b1", Look.gone(Side.LEFT))).isEmpty();
    assertThat(look(Side.LEFT, "b1", Look.gone(Side.RIGHT))).isEmpty();
  }

  @Test
  void systemThatDoesNotAnswerLeavesItUnclear() {
    shores.silent();
    assertThat(found(Look.PLAIN).kind()).isEqualTo(Difference.Kind.UNCLEAR);
    assertThat(found(Look.PLAIN).because()).isEqualTo("nobody answers");
  }
}
