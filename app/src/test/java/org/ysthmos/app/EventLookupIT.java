package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.decide.World;

/** Lookups among the events that came are answered by an index of the values asked for. */
class EventLookupIT extends AppTestBase {

  @Autowired private IntakeWriter intake;
  @Autowired private ReceivedEvents received;
  @Autowired private EventMapper events;
  @Autowired private JdbcTemplate jdbc;

  private void keep(String collection, int from, int count) {
    List<EventRow> rows =
        IntStream.range(from, from + count)
            .mapToObj(
                i ->
                    new EventRow(
                        0,
                        "nursery",
                        collection + "-" + i,
                        collection,
                        "grown",
                        "plant-" + i,
                        Instant.now(),
                        Instant.now(),
                        EventMapper.Origin.TOLD,
                        body(i).getBytes(StandardCharsets.UTF_8)))
            .toList();
    intake.keepPage(rows, kept -> {});
  }

  private static String body(int i) {
    return i % 7 == 6
        ? "{\"bed\":null,\"row\":" + i + "}"
        : "{\"bed\":\"b%d\",\"row\":%d,\"who\":\"plant %d\"}".formatted(i % 3, i % 10, i);
  }

  private List<String> find(String collection, Map<String, String> keys) {
    World.LookupAnswer answer =
        received.find(
            new World.Question(
                "nursery", collection, LookupRule.Origin.EVENTS, new java.util.TreeMap<>(keys)));
    assertThat(answer).isInstanceOf(World.Found.class);
    return ((World.Found) answer).records().stream().map(r -> r.path("who").asText()).toList();
  }

  private static List<String> expected(int count, String bed, int row) {
    return IntStream.range(0, count)
        .filter(i -> i % 7 != 6 && ("b" + i % 3).equals(bed) && i % 10 == row)
        .boxed()
        .sorted(java.util.Comparator.reverseOrder())
        .map(i -> "plant " + i)
        .toList();
  }

  @Test
  void indexAnswersAsReadingEverythingWouldAndReachesBackAndOn() {
    keep("seedlings", 0, 1200);
    Map<String, String> keys = Map.of("/row", "4", "/bed", "b1");
    // Nothing is indexed yet: what came before is read.
    assertThat(find("seedlings", keys)).isEqualTo(expected(1200, "b1", 4));
    await().until(() -> entries("seedlings") > 900);
    await().until(() -> reaching("seedlings") == 0);
    assertThat(find("seedlings", keys)).isEqualTo(expected(1200, "b1", 4));
    keep("seedlings", 1200, 300);
    assertThat(find("seedlings", keys)).isEqualTo(expected(1500, "b1", 4));
    assertThat(find("seedlings", Map.of("/bed", "b1", "/row", "44"))).isEmpty();
    assertThat(find("seedlings", Map.of("/who", "plant 1499"))).isEqualTo(List.of("plant 1499"));
  }

  /** A made-up event takes its number from ahead of those that intake has in hand. */
  @Test
  void madeUpEventHidesNoneThatComesAfterIt() {
    keep("rows", 0, 1);
    long ahead = events.numbers(1).getFirst();
    events.add(
        List.of(
            new EventRow(
                ahead,
                "nursery",
                "made-up",
                "rows",
                "grown",
                "plant-x",
                Instant.now(),
                Instant.now(),
                EventMapper.Origin.MADE_UP,
                body(0).getBytes(StandardCharsets.UTF_8))));
    Map<String, String> keys = Map.of("/who", "plant 2");
    assertThat(find("rows", keys)).isEmpty();
    await().until(() -> reaching("rows") == 0);
    keep("rows", 1, 2);
    assertThat(find("rows", keys)).isEqualTo(List.of("plant 2"));
  }

  @Test
  void valuesThatHaveOneHashAreToldApartByWhatTheyAre() {
    keep("twins", 0, 3);
    Map<String, String> keys = Map.of("/who", "plant 1");
    assertThat(find("twins", keys)).isEqualTo(List.of("plant 1"));
    await().until(() -> reaching("twins") == 0);
    // Every entry gets the hash of the one that is asked for.
    Long hash =
        jdbc.queryForObject(
            "SELECT e.hash FROM event_index_entry e JOIN event v ON v.seq = e.event_seq"
                + " WHERE v.source_id = 'twins-1'",
            Long.class);
    jdbc.update(
        "UPDATE event_index_entry SET hash = ? WHERE event_seq IN"
            + " (SELECT seq FROM event WHERE collection_id = 'twins')",
        hash);
    assertThat(find("twins", keys)).isEqualTo(List.of("plant 1"));
  }

  private long entries(String collection) {
    return jdbc.queryForObject(
        "SELECT COUNT(*) FROM event_index_entry e JOIN event_index i ON i.id = e.index_id"
            + " WHERE i.collection_id = ?",
        Long.class,
        collection);
  }

  private long reaching(String collection) {
    return jdbc.queryForObject(
        "SELECT MAX(from_seq) FROM event_index WHERE collection_id = ?", Long.class, collection);
  }
}
