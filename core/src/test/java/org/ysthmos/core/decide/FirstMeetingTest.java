package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.ysthmos.core.decide.FirstMeeting.Met;
import org.ysthmos.core.decide.FirstMeeting.Stray;

class FirstMeetingTest {

  private static Stray stray(String record, String title, String... tells) {
    return new Stray(record, title, Set.of(tells));
  }

  private static List<String> pairs(List<Stray> lefts, List<Stray> rights) {
    return FirstMeeting.of(lefts, rights, FirstMeeting.ToldApart.NONE).stream()
        .map(met -> met.left().record() + "=" + met.right().record())
        .toList();
  }

  @Test
  void taskThatTellsThePageOfTheOtherIsTheSameHoweverItIsCalled() {
    List<Stray> lefts =
        List.of(stray("b1", "Mend the sluice", "page /b1"), stray("b2", "Oil", "page /b2"));
    List<Stray> rights = List.of(stray("l1", "Mend the sluice"), stray("l2", "Repair", "page /b1"));
    assertThat(pairs(lefts, rights)).containsExactly("b1=l2");
  }

  @Test
  void whatTwoTasksTellIsNoKey() {
    List<Stray> lefts = List.of(stray("b1", "Mend", "page /b1"));
    List<Stray> rights =
        List.of(stray("l1", "Repair it", "page /b1"), stray("l2", "Replace", "page /b1"));
    assertThat(pairs(lefts, rights)).isEmpty();
  }

  @Test
  void nearTitlesMeetAndSayHowNear() {
    List<Met> met =
        FirstMeeting.of(
            List.of(stray("b1", "Mend the sluice gate")),
            List.of(stray("l1", "Mend the sluice gates"), stray("l2", "Paint the boat shed")),
            FirstMeeting.ToldApart.NONE);
    assertThat(met).hasSize(1);
    assertThat(met.getFirst().right().record()).isEqualTo("l1");
    assertThat(met.getFirst().because()).isEqualTo("One character of the title differs");
  }

  @Test
  void thoseOfWhichAPersonSaidThatTheyAreTwoDoNotMeetAgainAndTheNextNearestDo() {
    List<Stray> lefts =
        List.of(stray("b1", "Mend the sluice gate"), stray("b2", "Oil", "page /b2"));
    List<Stray> rights =
        List.of(
            stray("l1", "Mend the sluice gates"),
            stray("l2", "Mend the sluice gated"),
            stray("l3", "Repair", "page /b2"));
    Set<String> said = Set.of("b1 l1", "b2 l3");
    assertThat(FirstMeeting.of(lefts, rights, (left, right) -> said.contains(left + " " + right)))
        .extracting(met -> met.left().record() + "=" + met.right().record())
        .containsExactly("b1=l2");
  }

  /** What comes round each week is called the same each time; nobody can tell which is which. */
  @Test
  void taskOfWhichSeveralMayBeTheSameIsLeftAlone() {
    List<Stray> lefts = List.of(stray("b1", "Water the ferns"), stray("b2", "Water the ferns"));
    List<Stray> rights = List.of(stray("l1", "Water the ferns"));
    assertThat(pairs(lefts, rights)).isEmpty();
    assertThat(pairs(rights, lefts)).isEmpty();
  }

  @Test
  void nearestIsTakenWhereOthersAreLessNear() {
    List<Stray> lefts =
        List.of(stray("b1", "Mend the old sluice gate"), stray("b2", "Mend the old sluice gates"));
    List<Stray> rights = List.of(stray("l1", "Mend the old sluice gates"));
    assertThat(pairs(lefts, rights)).containsExactly("b2=l1");
  }

  static LongStream seeds() {
    return LongStream.range(0, 20);
  }

  /** Lists that hold the same tasks in any order meet whole, and no task is met twice. */
  @ParameterizedTest
  @MethodSource("seeds")
  void everyTaskIsMetOnceAtTheMost(long seed) {
    Random random = new Random(seed);
    List<Stray> lefts = new ArrayList<>();
    List<Stray> rights = new ArrayList<>();
    IntStream.range(0, 120)
        .forEach(
            i -> {
              String title = title(random) + " " + i;
              lefts.add(stray("b" + i, title));
              if (random.nextInt(4) > 0) {
                rights.add(stray("l" + i, title));
              }
            });
    Collections.shuffle(rights, random);
    List<Met> met = FirstMeeting.of(lefts, rights, FirstMeeting.ToldApart.NONE);
    assertThat(met).hasSameSizeAs(rights);
    Set<String> once = new HashSet<>();
    assertThat(met)
        .allSatisfy(
            one -> {
              assertThat(one.left().record().substring(1))
                  .isEqualTo(one.right().record().substring(1));
              assertThat(once.add(one.left().record())).isTrue();
            });
  }

  private static String title(Random random) {
    List<String> words = List.of("mend", "paint", "oil", "the", "gate", "wall", "boat", "shed");
    StringBuilder title = new StringBuilder("Please");
    for (int i = 0; i < 4; i++) {
      title.append(' ').append(words.get(random.nextInt(words.size())));
    }
    return title.toString();
  }
}
