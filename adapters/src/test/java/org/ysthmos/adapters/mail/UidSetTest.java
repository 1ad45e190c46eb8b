package org.ysthmos.adapters.mail;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

class UidSetTest {

  /** RFC 9051 section 9 writes a set so: {@code 2,4:7,9,12:15}. */
  @Test
  void setIsWrittenAsTheStandardWritesIt() {
    assertThat(UidSet.write(Set.of(2L, 4L, 5L, 6L, 7L, 9L, 12L, 13L, 14L, 15L)))
        .isEqualTo("2,4:7,9,12:15");
    assertThat(UidSet.read("2,4:7,9,12:15"))
        .containsExactly(2L, 4L, 5L, 6L, 7L, 9L, 12L, 13L, 14L, 15L);
    assertThat(UidSet.write(Set.of())).isEmpty();
    assertThat(UidSet.read("")).isEmpty();
  }

  @Test
  void whatIsWrittenIsReadBack() {
    Random random = new Random(5);
    for (int round = 0; round < 200; round++) {
      Set<Long> uids = new TreeSet<>();
      for (int i = random.nextInt(60); i > 0; i--) {
        uids.add(1L + random.nextInt(100));
      }
      assertThat(UidSet.read(UidSet.write(uids))).isEqualTo(uids);
    }
  }
}
