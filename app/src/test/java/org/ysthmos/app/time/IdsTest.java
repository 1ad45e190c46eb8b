package org.ysthmos.app.time;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.HashSet;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.Test;

class IdsTest {

  /** Source: RFC 9562 section 5.7 (layout) and appendix A.6 (the time of the example). */
  @Test
  void isAUuidOfVersion7WithItsTimeInFront() {
    Instant example = Instant.ofEpochMilli(0x017F22E279B0L);
    String id = Ids.at(example);
    assertThat(id).hasSize(32).startsWith("017f22e279b07");
    UUID uuid =
        UUID.fromString(id.replaceFirst("(.{8})(.{4})(.{4})(.{4})(.{12})", "$1-$2-$3-$4-$5"));
    assertThat(uuid.version()).isEqualTo(7);
    assertThat(uuid.variant()).isEqualTo(2);
  }

  @Test
  void sortsByTimeAndIsNeverTheSame() {
    Set<String> seen = new HashSet<>();
    Instant now = Instant.parse("2026-11-24T13:58:07Z");
    for (int i = 0; i < 10_000; i++) {
      assertThat(seen.add(Ids.at(now))).isTrue();
    }
    assertThat(Ids.at(now)).isLessThan(Ids.at(now.plusMillis(1)));
  }
}
