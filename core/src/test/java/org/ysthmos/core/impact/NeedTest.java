package org.ysthmos.core.impact;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.Shores;
import org.ysthmos.core.uses.Use.How;

class NeedTest {

  private static List<Need> needs(String bridge, String system) {
    return Need.of(Garden.bridge(bridge), system, Garden.CATALOG);
  }

  @Test
  void whatIsHeardAndWhatIsLookedUpAreToldApart() {
    assertThat(needs("seedling-to-ledger", "garden-chat"))
        .satisfiesExactly(
            heard -> {
              assertThat(heard.how()).isEqualTo(How.HEARS);
              assertThat(heard.what()).isEqualTo("something that tells when a reaction is added");
              assertThat(heard.fields())
                  .containsExactlyInAnyOrder(
                      "reaction, a text", "channel, a text", "ts, a text", "author, a text");
            },
            found -> {
              assertThat(found.how()).isEqualTo(How.LOOKS_UP);
              assertThat(found.what())
                  .isEqualTo("something that finds a message by channel and ts and author");
              assertThat(found.fields()).contains("text, a text", "at, a moment");
            });
    assertThat(needs("seedling-to-ledger", "grounds-board")).isEmpty();
  }

  @Test
  void ofOneCollectionWhatComesWithItsEventsIsToldFromWhatIsRead() {
    assertThat(needs("hazard-to-grounds", "visitor-desk"))
        .satisfiesExactly(
            heard -> assertThat(heard.fields()).containsExactly("submission, a text"),
            found ->
                assertThat(found.fields())
                    .isNotEmpty()
                    .noneMatch(words -> words.startsWith("submission")));
  }

  @Test
  void whatIsWrittenSaysWhatItMustTakeAndWhichTablesNameThingsThere() {
    assertThat(needs("pledge-to-follow-up", "works-ledger"))
        .singleElement()
        .satisfies(
            written -> {
              assertThat(written.what()).isEqualTo("a place where a job can be made and changed");
              assertThat(written.fields())
                  .contains(
                      "title, a text of at most 80, without which none is made", "due, a day");
              assertThat(written.tables()).containsExactly("stewards");
            });
  }

  @Test
  void aBridgeThatGoesBothWaysNeedsBothOfEachSide() {
    BridgeVersion shores = Shores.bridge(Shores.BRIDGE);
    assertThat(Need.of(shores, "ledger", Shores.CATALOG))
        .extracting(Need::how)
        .containsExactly(How.HEARS, How.WRITES);
    assertThat(Need.of(shores, "ledger", Shores.CATALOG).getFirst().what())
        .endsWith("is created or changed or removed");
  }
}
