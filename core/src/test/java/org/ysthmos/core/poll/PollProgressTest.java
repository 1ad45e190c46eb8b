package org.ysthmos.core.poll;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.node.MissingNode;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Page;

class PollProgressTest {

  private static final Instant NOON = Instant.parse("2026-11-24T12:00:00Z");

  private static Changed record(int id, Instant changed) {
    return new Changed(
        "r" + id,
        changed.toString(),
        Optional.of(changed),
        Optional.empty(),
        MissingNode.getInstance());
  }

  private static Page page(Optional<String> next, Changed... records) {
    return new Page(List.of(records), next, Optional.empty());
  }

  @Test
  void theMarkStaysWhereItIsUntilThePassIsThrough() {
    PollProgress first =
        PollProgress.BEGINNING.after(
            page(Optional.of("2"), record(1, NOON.plusSeconds(60))), 1, false);
    assertThat(first.cursor().since()).isEmpty();
    assertThat(first.cursor().page()).contains("2");
    assertThat(first.atRest()).isFalse();
    // The newest is looked for over the whole pass, whatever the order of the records.
    PollProgress through = first.after(page(Optional.empty(), record(2, NOON)), 1, false);
    assertThat(through.atRest()).isTrue();
    assertThat(through.since()).contains("2026-11-24T12:00:58Z");
    assertThat(through.page()).isEmpty();
  }

  @Test
  void aMarkOfTheSystemItselfGoesBeforeTheNewestMoment() {
    Page given = new Page(List.of(record(1, NOON)), Optional.empty(), Optional.of("c-77"));
    assertThat(PollProgress.BEGINNING.after(given, 1, false).since()).contains("c-77");
  }

  @Test
  void aPassWithoutRecordsKeepsTheMark() {
    PollProgress marked =
        PollProgress.BEGINNING.after(page(Optional.empty(), record(1, NOON)), 1, false);
    PollProgress later = marked.after(page(Optional.empty()), 0, false);
    assertThat(later).isEqualTo(marked);
  }

  @Test
  void countedPagesAreReadAgainUntilNothingIsNew() {
    PollProgress onSecond =
        PollProgress.BEGINNING.after(page(Optional.of("2"), record(1, NOON)), 1, true);
    PollProgress again = onSecond.after(page(Optional.empty()), 0, true);
    assertThat(again.atRest()).isFalse();
    assertThat(again.cursor().page()).isEmpty();
    PollProgress through =
        again
            .after(page(Optional.of("2"), record(1, NOON)), 0, true)
            .after(page(Optional.empty()), 0, true);
    assertThat(through.atRest()).isTrue();
    assertThat(through.since()).contains("2026-11-24T11:59:58Z");
  }

  @Test
  void whatStoodThereBeforeStaysUntold() {
    assertThat(PollProgress.counts(record(1, NOON.minusMillis(1)), NOON)).isFalse();
    assertThat(PollProgress.counts(record(1, NOON), NOON)).isTrue();
    Changed unknown =
        new Changed("r", "1", Optional.empty(), Optional.empty(), MissingNode.getInstance());
    assertThat(PollProgress.counts(unknown, NOON)).isTrue();
  }

  @Test
  void aRecordIsCreatedOnceAndChangedFromThenOn() {
    Changed young =
        new Changed("r", "1", Optional.of(NOON), Optional.of(NOON), MissingNode.getInstance());
    assertThat(PollProgress.kind(young, NOON, false)).isEqualTo("created");
    assertThat(PollProgress.kind(young, NOON, true)).isEqualTo("changed");
    assertThat(PollProgress.kind(young, NOON.plusSeconds(1), false)).isEqualTo("changed");
  }

  static IntStream seeds() {
    return IntStream.range(0, 60);
  }

  /**
   * A source whose records change while its counted pages are read, moving to the end of the
   * listing and pushing others forward. Whatever happens meanwhile, once it is quiet every change
   * that was the last of its record has been taken.
   */
  @ParameterizedTest
  @MethodSource("seeds")
  void noLastChangeIsLostHoweverRecordsMoveBetweenPages(int seed) {
    Random random = new Random(seed);
    int[] clock = {0};
    List<Changed> listing = new ArrayList<>();
    for (int id = 0; id < 40; id++) {
      listing.add(record(id, NOON.plusSeconds(clock[0]++)));
    }
    Set<String> taken = new HashSet<>();
    PollProgress progress = PollProgress.BEGINNING;
    int size = 1 + random.nextInt(7);
    for (int read = 0; read < 4000; read++) {
      int quiet = 400;
      if (read < quiet && random.nextInt(3) == 0) {
        Changed old = listing.remove(random.nextInt(listing.size()));
        int id = Integer.parseInt(old.id().substring(1));
        listing.add(record(id, NOON.plusSeconds(clock[0]++)));
      }
      Optional<String> since = progress.since();
      List<Changed> asked =
          listing.stream()
              .filter(
                  one ->
                      since.isEmpty() || !one.changed().get().isBefore(Instant.parse(since.get())))
              .toList();
      int number = progress.page().map(Integer::parseInt).orElse(1);
      int from = Math.min(asked.size(), (number - 1) * size);
      List<Changed> records = asked.subList(from, Math.min(asked.size(), from + size));
      int fresh = 0;
      for (Changed one : records) {
        fresh += taken.add(one.id() + "@" + one.version()) ? 1 : 0;
      }
      Optional<String> next =
          records.isEmpty() ? Optional.empty() : Optional.of(String.valueOf(number + 1));
      progress = progress.after(new Page(records, next, Optional.empty()), fresh, true);
      if (read > quiet && progress.atRest()) {
        break;
      }
    }
    assertThat(progress.atRest()).isTrue();
    assertThat(taken)
        .containsAll(listing.stream().map(one -> one.id() + "@" + one.version()).toList());
  }

  /** A system that tells moments by the second says 12:00:07 of what happened at 12:00:07.9. */
  @Test
  void whatHappensInTheSecondOfTheBeginningCounts() {
    Instant begun = NOON.plusMillis(7_500);
    Changed same =
        new Changed(
            "r",
            "1",
            Optional.of(NOON.plusSeconds(7)),
            Optional.of(NOON.plusSeconds(7)),
            MissingNode.getInstance());
    assertThat(PollProgress.counts(same, begun)).isTrue();
    assertThat(PollProgress.kind(same, begun, false)).isEqualTo("created");
    Changed before =
        new Changed(
            "r",
            "1",
            Optional.of(NOON.plusSeconds(6)),
            Optional.empty(),
            MissingNode.getInstance());
    assertThat(PollProgress.counts(before, begun)).isFalse();
  }
}
