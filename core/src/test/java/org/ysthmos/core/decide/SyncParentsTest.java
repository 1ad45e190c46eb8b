package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.FieldOutcome;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.testkit.Shores;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** Tasks that belong to others: what names one on a side names its other one on the other. */
class SyncParentsTest {

  private static final String BRIDGE =
      Shores.BRIDGE + "  part-of: { left: parent, right: parent, to-right: its-pair }\n";

  private final Shores shores = new Shores();

  private static SyncedPair pair(String left, Optional<String> right, Agreed agreed) {
    return new SyncedPair(
        Synced.key("shores", Side.LEFT, left),
        new Both<>(Optional.of(left), right),
        agreed,
        Map.of(),
        Optional.empty());
  }

  private static SyncedPair parent(Optional<String> right) {
    return pair("b0", right, new Agreed(Map.of(), Map.of()));
  }

  private static Map<String, Value> held(String status, String parent) {
    Map<String, Value> held = new HashMap<>();
    held.put("title", Text.of("Mend"));
    held.put("status", new Choice(status));
    if (!parent.isEmpty()) {
      held.put("part-of", Text.of(parent));
    }
    return held;
  }

  private static SyncedPair child(String left, String right) {
    return pair("b1", Optional.of("l1"), new Agreed(held("doing", left), held("in-work", right)));
  }

  private Shores part(String left, String right) {
    return shores
        .holding("b1", "title", "Mend", "lane", "doing", "parent", left)
        .holding("l1", "title", "Mend", "status", "in-work", "parent", right);
  }

  private Decision decide(Side side, String record) {
    return shores.decide(BRIDGE, side, "changed", record, "{}");
  }

  private static Map<String, Value> to(Side side, Decision decision) {
    return PairOfShores.to(side, decision)
        .<Map<String, Value>>map(PlannedDelivery::fields)
        .orElse(Map.of());
  }

  @Test
  void taskIsMadeUnderTheOneThatStandsForItsParent() {
    shores.besides(parent(Optional.of("l0"))).holding("b1", "title", "Mend", "parent", "b0");
    Decision made = decide(Side.LEFT, "b1");
    assertThat(made.verdict()).isEqualTo(Verdict.CREATE);
    assertThat(to(Side.RIGHT, made)).containsEntry("parent", Text.of("l0"));
    assertThat(made.synced().orElseThrow().awaits()).isEmpty();
  }

  @Test
  void parentThatIsNotCarriedIsNoReasonNotToMakeIt() {
    shores.waiting().holding("b1", "title", "Mend", "parent", "b0");
    Decision made = decide(Side.LEFT, "b1");
    assertThat(made.verdict()).isEqualTo(Verdict.CREATE);
    assertThat(to(Side.RIGHT, made)).doesNotContainKey("parent");
    Synced synced = made.synced().orElseThrow();
    assertThat(synced.awaits()).containsExactly(new Synced.Awaited(Side.LEFT, "b0"));
    // It is not agreed on, so that it comes up again.
    assertThat(synced.onceWritten().held().left()).doesNotContainKey("part-of");
    assertThat(synced.onceWritten().asMade()).doesNotContain("part-of");
    assertThat(synced.outcomes()).singleElement().isInstanceOf(FieldOutcome.Waiting.class);
  }

  @Test
  void parentThatIsBeingMadeIsWaitedForAWhile() {
    shores
        .besides(parent(Optional.empty()))
        .waiting()
        .holding("b1", "title", "Mend", "parent", "b0");
    Decision waits = decide(Side.LEFT, "b1");
    assertThat(waits.verdict()).isEqualTo(Verdict.FAILED);
    assertThat(waits.failures().getFirst().kind()).isEqualTo(FailureKind.NOT_YET_THERE);
    assertThat(waits.failures().getFirst().message())
        .isEqualTo("“b0” is being made on the other side, and is waited for");

    Decision late =
        new Shores()
            .besides(parent(Optional.empty()))
            .holding("b1", "title", "Mend", "parent", "b0")
            .decide(BRIDGE, Side.LEFT, "changed", "b1", "{}");
    assertThat(late.verdict()).isEqualTo(Verdict.CREATE);
    assertThat(late.synced().orElseThrow().awaits()).hasSize(1);
  }

  @Test
  void taskFollowsItsParentOnceThatIsThere() {
    part("b0", "").paired(child("", "")).besides(parent(Optional.of("l0")));
    Decision decision = decide(Side.LEFT, "b1");
    assertThat(decision.verdict()).isEqualTo(Verdict.UPDATE);
    assertThat(to(Side.RIGHT, decision)).containsOnly(Map.entry("parent", Text.of("l0")));
    assertThat(to(Side.LEFT, decision)).isEmpty();
  }

  @Test
  void otherFieldsGoOnWhileItWaits() {
    part("b0", "")
        .paired(child("", ""))
        .holding("b1", "title", "Mend it", "lane", "doing", "parent", "b0");
    Decision decision = decide(Side.LEFT, "b1");
    assertThat(to(Side.RIGHT, decision)).containsOnlyKeys("title");
    assertThat(decision.synced().orElseThrow().awaits())
        .containsExactly(new Synced.Awaited(Side.LEFT, "b0"));
    Synced synced = decision.synced().orElseThrow();
    assertThat(synced.agreed().of(Side.LEFT, "part-of")).isEqualTo(Nothing.NOTHING);
  }

  @ParameterizedTest(name = "on the ledger from “{0}” to “{1}” it is “{2}” on the board")
  @CsvSource({"l0,l9,b9", "'',l0,b0", "l0,'',''"})
  void changeOfParentGoesTheOtherWayToo(String before, String now, String board) {
    SyncedPair nine = pair("b9", Optional.of("l9"), new Agreed(Map.of(), Map.of()));
    String was = before.isEmpty() ? "" : "b0";
    part(was, now).paired(child(was, before)).besides(parent(Optional.of("l0"))).besides(nine);
    Decision decision = decide(Side.RIGHT, "l1");
    assertThat(to(Side.LEFT, decision))
        .containsOnly(Map.entry("parent", board.isEmpty() ? Nothing.NOTHING : Text.of(board)));
  }

  @Test
  void parentsThatStandForEachOtherAreNotTouched() {
    part("b0", "l0").paired(child("", "")).besides(parent(Optional.of("l0")));
    Decision decision = decide(Side.LEFT, "b1");
    assertThat(decision.verdict()).isEqualTo(Verdict.UNCHANGED);
    assertThat(decision.synced().orElseThrow().agreed().of(Side.RIGHT, "part-of"))
        .isEqualTo(Text.of("l0"));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "to-right: its-pair|to-right: its-pair, to-left: same|write its-pair on either",
        "to-right: its-pair|to-right: its-pair, both-changed: merge|cannot be brought together",
        "left: parent, right: parent|left: lane, right: parent|“Lane” is a choice",
        "left: parent, right: parent|left: parent, right: due|“Due” is a day",
        "to-right: its-pair|to-right: its-par|write same, its-pair"
      })
  void mistakeIsNamed(String right, String wrong, String says) {
    assertThat(BRIDGE).contains(right);
    assertThatThrownBy(() -> Shores.bridge(BRIDGE.replace(right, wrong)))
        .hasMessageContaining(says)
        .hasMessageContaining("line ");
  }

  @Test
  void documentGoesRound() {
    String written = BridgeWriter.write(BridgeReader.read(DocumentNode.parse(BRIDGE)));
    assertThat(written).contains("its-pair");
    assertThat(BridgeReader.read(DocumentNode.parse(written)))
        .isEqualTo(BridgeReader.read(DocumentNode.parse(BRIDGE)));
  }
}
