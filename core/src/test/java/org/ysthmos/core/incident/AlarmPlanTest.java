package org.ysthmos.core.incident;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;

class AlarmPlanTest {

  private static final Shapes SHAPES =
      new Shapes() {
        @Override
        public Optional<CollectionShape> find(String system, String collection) {
          return system.equals("chat") && collections(system).contains(collection)
              ? Optional.of(shape(collection))
              : Optional.empty();
        }

        @Override
        public Set<String> systems() {
          return Set.of("chat");
        }

        @Override
        public Set<String> collections(String system) {
          return system.equals("chat") ? Set.of("messages", "reactions") : Set.of();
        }
      };

  private static CollectionShape shape(String collection) {
    List<FieldShape> fields =
        List.of(
            FieldShape.of("channel", "Channel", ValueType.CHOICE)
                .withRequired(true)
                .withNames(Map.of("works", "Works")),
            FieldShape.of("text", "Text", ValueType.TEXT).withRequired(true),
            FieldShape.of("to", "To", ValueType.listOf(ValueType.TEXT)),
            FieldShape.of("pinned", "Pinned", ValueType.FLAG));
    boolean makes = collection.equals("messages");
    return new CollectionShape(
            "chat", "Chat", collection, collection, "message", "", "", fields, List.of())
        .with(new CollectionShape.Abilities(List.of(), makes, false, false, true));
  }

  @Test
  void fillsWhatIsToldIntoTheFieldsOfAMessage() {
    AlarmPlan plan =
        AlarmPlan.read(
            """
            quiet: PT30M
            ways:
              - in: chat/messages
                fields: { channel: works, text: "{headline}!\\n{text}", to: "a, b" }
            """,
            SHAPES);
    assertThat(plan.quiet()).isEqualTo(Duration.ofMinutes(30));
    assertThat(plan.ways().getFirst().filled("Board is full", "Costs $1 \\ {text}"))
        .containsExactly(
            Map.entry("channel", new Choice("works")),
            Map.entry("text", new Text("Board is full!\nCosts $1 \\ {text}")),
            Map.entry("to", new ListValue(ValueType.TEXT, List.of(new Text("a"), new Text("b")))));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "ways: [{ in: chats/messages, fields: {} }] | did you mean “chat”?",
        "ways: [{ in: chat/mesages, fields: {} }] | did you mean “messages”?",
        "ways: [{ in: chat, fields: {} }] | write a system and its collection",
        "ways: [{ in: chat/reactions, fields: {} }] | nothing can be made in",
        "ways: [{ in: chat/messages, fields: { text: hello } }] | “channel” is missing here",
        "ways: [{ in: chat/messages, fields: { channel: work, text: x } }] | did you mean “works”?",
        "ways: [{ in: chat/messages, fields: { channel: works, txt: x } }] | did you mean “text”?",
        "ways: [{ in: chat/messages, fields: { channel: works, text: '{headlin}' } }] | did you mean “headline”?",
        "ways: [{ in: chat/messages, fields: { channel: works, text: x, pinned: y } }] | is a text, a choice or a list",
        "{ quiet: soon, ways: [] } | is no span of time",
        "{ quiet: PT-1S, ways: [] } | shorter than none",
        "{ ways: [], who: me } | no key is called “who”",
      })
  void saysWhatIsWrong(String document, String says) {
    assertThatThrownBy(() -> AlarmPlan.read(document, SHAPES))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining(says)
        .hasMessageContaining("line 1");
  }

  @Test
  void mayTellNobody() {
    assertThat(AlarmPlan.read("ways: []", SHAPES).ways()).isEmpty();
  }

  private static AlarmText.Told told(int number) {
    return new AlarmText.Told(
        "Board " + number + " is full",
        "sure",
        "It holds 9 of 9.",
        "3 events wait",
        "Make room.",
        "http://here/incidents/" + number);
  }

  @Test
  void saysAllOfOne() {
    List<AlarmText.Told> one = List.of(told(1));
    assertThat(AlarmText.headline(one)).isEqualTo("Board 1 is full");
    assertThat(AlarmText.text(one))
        .isEqualTo(
            """
            Board 1 is full (sure): 3 events wait.
            It holds 9 of 9.
            What to do: Make room.
            http://here/incidents/1""");
  }

  @Test
  void saysSeveralTogetherAndCountsWhatIsTooMuch() {
    List<AlarmText.Told> many = IntStream.rangeClosed(1, 14).mapToObj(AlarmPlanTest::told).toList();
    assertThat(AlarmText.headline(many))
        .startsWith("14 incidents: Board 1 is full; Board 2 is full")
        .endsWith("Board 10 is full; …");
    assertThat(AlarmText.text(many)).contains("Board 10 is full").doesNotContain("Board 11");
    assertThat(AlarmText.text(many)).endsWith("And 4 more; Watch shows them all.");
  }

  private static AlarmPlan withDigest(String digest) {
    return AlarmPlan.read(
        "digest: %s\nways: [ { in: chat/messages, fields: { channel: works, text: a } } ]"
            .formatted(digest),
        SHAPES);
  }

  /** The clocks of Lisbon went forward on 29 March 2026 at one and back on 25 October at two. */
  @ParameterizedTest
  @CsvSource({
    "08:00,2026-11-27T07:59:59Z,2026-11-26T08:00:00Z,2026-11-27T08:00:00Z",
    "08:00,2026-11-27T08:00:00Z,2026-11-27T08:00:00Z,2026-11-28T08:00:00Z",
    "08:00,2026-10-25T07:00:00Z,2026-10-24T07:00:00Z,2026-10-25T08:00:00Z",
    "01:30,2026-03-29T12:00:00Z,2026-03-29T01:30:00Z,2026-03-30T00:30:00Z",
  })
  void digestIsDueOnceADay(String at, Instant now, Instant before, Instant after) {
    AlarmPlan.Digest digest =
        withDigest("{ at: \"%s\", zone: Europe/Lisbon }".formatted(at)).digest().orElseThrow();
    assertThat(digest.before(now)).isEqualTo(before);
    assertThat(digest.after(now)).isEqualTo(after);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "{ at: \"8 o'clock\", zone: Europe/Lisbon } | is no time of day",
        "{ at: \"08:00\", zone: Lisbon } | is no time zone",
        "{ at: \"08:00\" } | zone",
      })
  void badDigestsAreRefused(String digest, String words) {
    assertThatThrownBy(() -> withDigest(digest))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining(words);
  }

  @Test
  void digestTellsWhatIsOpenAndWhatClosed() {
    AlarmText.Told one =
        new AlarmText.Told("It is full", "likely", "", "3 wait", "Make room.", "p");
    assertThat(AlarmText.digestHeadline(1, 0)).isEqualTo("One incident is open");
    assertThat(AlarmText.digestHeadline(0, 2))
        .isEqualTo("No incident is open, 2 closed since the last digest");
    assertThat(AlarmText.digest(List.of(one), List.of("It was away")))
        .contains("It is full (likely): 3 wait.")
        .endsWith("Closed since:\nIt was away");
    List<String> many = IntStream.range(0, 12).mapToObj(i -> "Closed " + i).toList();
    assertThat(AlarmText.digest(List.of(), many)).endsWith("Closed 9\nAnd 2 more.");
  }
}
