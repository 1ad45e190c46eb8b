package org.ysthmos.app.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.EventMapper.Origin;
import org.ysthmos.app.rehearsal.Past.PastEvent;
import org.ysthmos.app.rehearsal.PastMapper.Which;

class PagesAheadTest {

  private static final Which ALL =
      new Which("desk", List.of("tickets"), List.of("opened"), 0, Long.MAX_VALUE);

  private static EventRow row(long seq) {
    return new EventRow(
        seq,
        "desk",
        "e-" + seq,
        "tickets",
        "opened",
        "CD-" + seq,
        Instant.EPOCH,
        Instant.EPOCH,
        Origin.TOLD,
        new byte[0]);
  }

  /** Only every third order number is one of the events that are asked for. */
  private static Past past(int events) {
    Past past = mock(Past.class);
    when(past.rows(any(), anyInt()))
        .thenAnswer(
            asked -> {
              long first = asked.<Which>getArgument(0).first();
              return LongStream.range(0, events)
                  .map(number -> 3 * number + 1)
                  .filter(seq -> seq >= first)
                  .limit(asked.<Integer>getArgument(1))
                  .mapToObj(PagesAheadTest::row)
                  .toList();
            });
    when(past.whole(eq("bridge"), any()))
        .thenAnswer(
            asked ->
                asked.<List<EventRow>>getArgument(1).stream()
                    .map(row -> new PastEvent(row, Optional.empty(), Optional.empty()))
                    .toList());
    return past;
  }

  @ParameterizedTest
  @ValueSource(ints = {0, 1, 49, 50, 51, 149, 299, 300, 301, 350, 600, 725})
  void eachEventIsGivenOnceAndInOrder(int events) {
    List<Long> given = new ArrayList<>();
    try (PagesAhead pages = new PagesAhead(past(events), "bridge", ALL)) {
      for (List<PastEvent> some = pages.next(); !some.isEmpty(); some = pages.next()) {
        some.forEach(one -> given.add(one.row().seq()));
      }
      assertThat(pages.next()).as("once all were given").isEmpty();
    }
    assertThat(given)
        .containsExactlyElementsOf(
            LongStream.range(0, events).map(number -> 3 * number + 1).boxed().toList());
  }

  @Test
  void whatWentWrongWhileReadingIsThrownToWhoAsks() {
    Past past = past(400);
    when(past.whole(eq("bridge"), any()))
        .thenAnswer(
            asked -> {
              List<EventRow> rows = asked.getArgument(1);
              if (rows.getFirst().seq() > 300) {
                throw new IllegalStateException("no room");
              }
              return rows.stream()
                  .map(row -> new PastEvent(row, Optional.empty(), Optional.empty()))
                  .toList();
            });
    try (PagesAhead pages = new PagesAhead(past, "bridge", ALL)) {
      assertThat(pages.next()).isNotEmpty();
      assertThatThrownBy(
              () -> {
                while (true) {
                  assertThat(pages.next()).isNotEmpty();
                }
              })
          .isInstanceOf(IllegalStateException.class)
          .hasMessage("no room");
    }
  }
}
