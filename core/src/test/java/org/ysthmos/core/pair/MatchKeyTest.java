package org.ysthmos.core.pair;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

class MatchKeyTest {

  @Test
  void neighbouringValuesNeverRunTogether() {
    assertThat(key("ab", "c").hash()).isNotEqualTo(key("a", "bc").hash());
    assertThat(key("a", "").hash()).isNotEqualTo(key("", "a").hash());
    assertThat(MatchKey.of("b", List.of(Text.of("7"))).hash())
        .isNotEqualTo(MatchKey.of("b", List.of(Decimal.of(7))).hash());
  }

  private static MatchKey key(String first, String second) {
    return MatchKey.of("b", List.of(Text.of(first), Text.of(second)));
  }

  @Test
  void differentValuesHaveDifferentHashesAndTheSameHaveTheSame() {
    Map<String, List<Value>> seen = new HashMap<>();
    Seeds.forSeeds(
        3000,
        seeds -> {
          List<Value> values = List.of(Text.of(seeds.text()), Text.of(seeds.text()));
          String hash = MatchKey.of("bridge", values).hash();
          List<Value> before = seen.putIfAbsent(hash, values);
          assertThat(before == null || before.equals(values)).isTrue();
        });
  }

  @Test
  void effectsOfOneKeyAreToldApartByPurposeAndBridge() {
    MatchKey key = key("a", "b");
    assertThat(key.effect("task")).isEqualTo(key("a", "b").effect("task")).startsWith("ys-");
    assertThat(key.effect("task")).isNotEqualTo(key.effect("change:1"));
    assertThat(MatchKey.of("other", List.of(Text.of("a"), Text.of("b"))).effect("task"))
        .isNotEqualTo(key.effect("task"));
  }
}
