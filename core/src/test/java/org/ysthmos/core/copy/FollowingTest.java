package org.ysthmos.core.copy;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.ysthmos.core.copy.Following.Kind;
import org.ysthmos.core.copy.Following.Part;
import org.ysthmos.core.document.DocumentJson;
import org.ysthmos.core.document.DocumentNode;

class FollowingTest {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private static JsonNode tree(String yaml) throws Exception {
    return new JsonMapper().readTree(DocumentJson.of(DocumentNode.parse(yaml)).toString());
  }

  private static final String ORIGINAL =
      """
      bridge: first
      name: First
      to: { system: board, collection: north }
      when: { value: /a, is: present }
      fields:
        title: { text: "{/a}", steps: [trim] }
        due: /day
        notes: /b
      """;

  @Test
  void whatTheCopyNeverChangedFollowsAndItsOwnStays() throws Exception {
    JsonNode copy =
        tree(
            ORIGINAL
                .replace("first", "second")
                .replace("First", "Second")
                .replace("north", "south")
                .replace("notes: /b", "notes: /c"));
    JsonNode now =
        tree(
            ORIGINAL
                .replace("[trim]", "[trim, shorten: 9]")
                .replace("due: /day", "start: /day")
                .replace("notes: /b", "notes: /d"));
    Following following = Following.of(tree(ORIGINAL), now, copy, Set.of());
    assertThat(following.parts())
        .containsExactlyInAnyOrder(
            new Part("to/collection", Kind.OWN),
            new Part("fields/title", Kind.TAKEN),
            new Part("fields/start", Kind.TAKEN),
            new Part("fields/due", Kind.TAKEN),
            new Part("fields/notes", Kind.BOTH));
    assertThat(following.merged())
        .isEqualTo(
            tree(
                """
                bridge: second
                name: Second
                to: { system: board, collection: south }
                when: { value: /a, is: present }
                fields:
                  title: { text: "{/a}", steps: [trim, shorten: 9] }
                  start: /day
                  notes: /c
                """));
    assertThat(Following.of(tree(ORIGINAL), now, copy, Set.of("fields/notes")).merged())
        .isEqualTo(now.deepCopy() instanceof ObjectNode all ? own(all) : now);
  }

  private static ObjectNode own(ObjectNode all) {
    all.put("bridge", "second").put("name", "Second");
    all.putObject("to").put("system", "board").put("collection", "south");
    return all;
  }

  /** Half of one rule and half of another are none: a rule is followed as a whole or not. */
  @Test
  void aRuleIsAPartAsAWhole() throws Exception {
    JsonNode base = tree("fields: { t: { text: a, steps: [trim] } }");
    JsonNode now = tree("fields: { t: { text: a, steps: [upper] } }");
    JsonNode copy = tree("fields: { t: { text: b, steps: [trim] } }");
    Following following = Following.of(base, now, copy, Set.of());
    assertThat(following.parts()).containsExactly(new Part("fields/t", Kind.BOTH));
    assertThat(following.merged()).isEqualTo(copy);
  }

  @Test
  void whatTheOriginalTookOutGoesUnlessTheCopyMadeItItsOwn() throws Exception {
    JsonNode base = tree("lookups: { a: { in: x/y }, b: { in: x/z } }\nmatch: [/id]");
    JsonNode now = tree("match: [/id]");
    JsonNode copy = tree("lookups: { a: { in: x/y }, b: { in: own/z } }\nmatch: [/id]");
    Following following = Following.of(base, now, copy, Set.of());
    // Without its group on one side it is a part as a whole.
    assertThat(following.parts()).containsExactly(new Part("lookups", Kind.BOTH));
    assertThat(Following.of(base, now, base, Set.of()).merged()).isEqualTo(now);
  }

  /** Documents of a seed, as bridges have them: groups of parts, some of them changed. */
  private static ObjectNode any(Random random) {
    ObjectNode document = JSON.objectNode().put("bridge", "b").put("name", "n");
    for (String group : List.of("fields", "lookups", "values")) {
      ObjectNode parts = document.putObject(group);
      parts.put("always", "x");
      for (int i = 0; i < 5; i++) {
        if (random.nextBoolean()) {
          parts.put("p" + i, "v" + random.nextInt(3));
        }
      }
    }
    document.put("when", "w" + random.nextInt(3));
    return document;
  }

  private static ObjectNode called(ObjectNode document, String id) {
    return document.deepCopy().put("bridge", id).put("name", id);
  }

  @TestFactory
  Stream<DynamicTest> lawsOfFollowing() {
    return IntStream.range(0, 500)
        .mapToObj(
            seed ->
                DynamicTest.dynamicTest(
                    "seed " + seed,
                    () -> {
                      Random random = new Random(seed);
                      ObjectNode base = any(random);
                      ObjectNode now = any(random);
                      ObjectNode copy = called(any(random), "c");
                      // Nothing to follow changes nothing.
                      assertThat(Following.of(base, base, copy, Set.of()).merged()).isEqualTo(copy);
                      // A copy with nothing of its own becomes the original, under its name.
                      assertThat(Following.of(base, now, called(base, "c"), Set.of()).merged())
                          .isEqualTo(called(now, "c"));
                      Following following = Following.of(base, now, copy, Set.of());
                      ObjectNode merged = following.merged();
                      // Its own is never lost, and what it takes is the original's.
                      for (Part part : following.parts()) {
                        JsonNode expected =
                            (part.kind() == Kind.TAKEN ? now : copy).at("/" + part.path());
                        assertThat(merged.at("/" + part.path())).isEqualTo(expected);
                      }
                      // Once it followed there is nothing more to take.
                      Following again = Following.of(now, now, merged, Set.of());
                      assertThat(again.anyTaken()).isFalse();
                      assertThat(again.merged()).isEqualTo(merged);
                    }));
  }
}
