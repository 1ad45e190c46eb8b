package org.ysthmos.adapters.dav;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.Page;

class DocumentChangesTest {

  private final Map<String, String> seen = new HashMap<>();
  private Optional<String> since = Optional.empty();

  private static ObjectNode document(String id, String tag) {
    return JsonNodeFactory.instance
        .objectNode()
        .put("id", id)
        .put("tag", tag)
        .put("changedAt", Instant.parse("2019-01-01T00:00:00Z").toString());
  }

  private List<Changed> pass(ObjectNode... listed) {
    Cursor cursor = new Cursor(since, Optional.empty(), () -> Map.copyOf(seen));
    Page page =
        DocumentChanges.since(
            cursor,
            List.of(listed),
            Stream.of(listed).map(one -> one.path("id").asText()).collect(Collectors.toSet()));
    page.met()
        .forEach(
            (item, state) -> {
              if (state.isEmpty()) {
                seen.remove(item);
              } else {
                seen.put(item, state);
              }
            });
    since = page.since();
    return page.records();
  }

  private List<String> told(ObjectNode... listed) {
    return pass(listed).stream()
        .map(one -> one.kind().orElse("") + " " + one.id())
        .sorted()
        .toList();
  }

  /** RFC 9110 section 8.8.3.2: compared weakly, {@code W/"1"} and {@code "1"} are the same. */
  @Test
  void weakTagThatTurnsStrongIsNoChange() {
    pass(document("a", "W/\"1\""));
    assertThat(told(document("a", "\"1\""))).isEmpty();
    assertThat(told(document("a", "\"2\""))).containsExactly("revised a");
  }

  @Test
  void oldDocumentThatIsMovedInIsToldAndWhatStoodThereAtFirstIsLeftToItsDate() {
    assertThat(pass(document("a", "1"))).allMatch(change -> change.changed().isPresent());
    assertThat(pass(document("a", "1"), document("old", "7")))
        .singleElement()
        .satisfies(change -> assertThat(change.changed()).isEmpty());
  }

  @Test
  void contentThatComesBackIsAnotherChange() {
    pass(document("a", "1"));
    String first = pass(document("a", "2")).getFirst().version();
    String back = pass(document("a", "1")).getFirst().version();
    String again = pass(document("a", "2")).getFirst().version();
    assertThat(Set.of(first, back, again)).hasSize(3);
    assertThat(told()).containsExactly("removed a");
    assertThat(told(document("a", "2"))).containsExactly("added a");
  }

  @Test
  void whereTwoWentWithOneTagNobodyGuessesWhichWasRenamed() {
    pass(document("a", "1"), document("b", "1"));
    assertThat(told(document("c", "1"))).containsExactly("added c", "removed a", "removed b");
  }

  /** The law: whoever carries out what is told has what is listed, whatever happens in between. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 20261126})
  void whatIsToldLeadsToWhatIsListed(long seed) {
    Random random = new Random(seed);
    Map<String, String> there = new TreeMap<>();
    pass();
    Map<String, String> carried = new TreeMap<>();
    for (int round = 0; round < 200; round++) {
      for (int i = random.nextInt(4); i > 0; i--) {
        String id = "d" + random.nextInt(8);
        switch (random.nextInt(3)) {
          case 0 -> there.put(id, "t" + random.nextInt(1_000));
          case 1 -> there.remove(id);
          default -> {
            String tag = there.remove(id);
            if (tag != null) {
              there.put("d" + random.nextInt(8), tag);
            }
          }
        }
      }
      ObjectNode[] listed =
          there.entrySet().stream()
              .map(one -> document(one.getKey(), one.getValue()))
              .toArray(ObjectNode[]::new);
      Set<String> versions = new HashSet<>();
      for (Changed change : pass(listed)) {
        assertThat(versions.add(change.id() + change.version())).isTrue();
        if (change.kind().orElse("").equals("removed")) {
          carried.remove(change.id());
        } else {
          if (change.kind().orElse("").equals("renamed")) {
            carried.remove(change.record().path("was").asText());
          }
          carried.put(change.id(), change.record().path("tag").asText());
        }
      }
      assertThat(carried).as("seed %s, round %s", seed, round).isEqualTo(there);
    }
  }
}
