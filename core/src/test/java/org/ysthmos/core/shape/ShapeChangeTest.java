package org.ysthmos.core.shape;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.value.ValueType;

class ShapeChangeTest {

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final List<FieldShape> FIELDS =
      List.of(
          FieldShape.of("/id", "number", ValueType.TEXT).withRequired(true),
          FieldShape.of("/owner/mail", "mail of the owner", ValueType.TEXT),
          FieldShape.of("/due", "due", ValueType.DAY),
          FieldShape.of("title", "Title", ValueType.TEXT).withRequired(true));

  private static List<JsonNode> records(String... texts) throws Exception {
    List<JsonNode> records = new ArrayList<>();
    for (String text : texts) {
      records.add(JSON.readTree(text));
    }
    return records;
  }

  private static List<String> words(List<JsonNode> records, String... seen) {
    return ShapeChange.between(FIELDS, records, Set.of(seen)).stream()
        .map(ShapeChange::words)
        .toList();
  }

  @Test
  void recordsAsDescribedDifferInNothing() throws Exception {
    assertThat(
            words(
                records(
                    "{\"id\":\"1\",\"owner\":{\"mail\":\"a@b.example\"},\"due\":\"2026-11-30\"}"),
                "/owner/mail",
                "/due"))
        .isEmpty();
    assertThat(words(List.of(), "/due")).isEmpty();
  }

  @Test
  void requiredFieldThatNoRecordHasIsNamedWithTheOnlyStrangerInItsPlace() throws Exception {
    assertThat(words(records("{\"number\":\"1\"}", "{\"number\":\"2\"}")))
        .containsExactly("No record has the field number (/id); perhaps it is called /number");
  }

  @Test
  void ofSeveralStrangersTheOneWithTheNearestNameIsOffered() throws Exception {
    assertThat(
            words(
                records("{\"id\":\"1\",\"owner\":{\"mails\":\"a\",\"street\":\"b\"}}"),
                "/owner/mail"))
        .containsExactly(
            "No record has the field mail of the owner (/owner/mail);"
                + " perhaps it is called /owner/mails");
  }

  @Test
  void optionalFieldIsMissedOnlyWhereItWasSeenBefore() throws Exception {
    List<JsonNode> records = records("{\"id\":\"1\"}");
    assertThat(words(records)).isEmpty();
    assertThat(words(records, "/due")).containsExactly("No record has the field due (/due)");
  }

  @Test
  void oneRecordWithTheFieldIsEnough() throws Exception {
    assertThat(words(records("{\"id\":\"1\"}", "{\"id\":\"2\",\"due\":null}"), "/due")).isEmpty();
  }

  @Test
  void fieldThatHoldsAnotherTypeInEveryRecordIsNamedButNotAnOddOne() throws Exception {
    assertThat(
            words(records("{\"id\":\"1\",\"due\":\"soon\"}", "{\"id\":\"2\",\"due\":\"later\"}")))
        .containsExactly("due (/due) is no day in any record");
    assertThat(
            words(
                records(
                    "{\"id\":\"1\",\"due\":\"soon\"}", "{\"id\":\"2\",\"due\":\"2026-11-30\"}")))
        .isEmpty();
  }

  @Test
  void fieldsThatAreWrittenOnlyAreNotLookedFor() throws Exception {
    assertThat(words(records("{\"id\":\"1\"}"), "title")).isEmpty();
    assertThat(ShapeChange.present(FIELDS, records("{\"id\":\"1\",\"title\":\"x\"}")))
        .containsExactly("/id");
  }

  /** The law: whatever is renamed, it is missed exactly if nobody has it, and offered if alone. */
  @ParameterizedTest
  @ValueSource(longs = {2, 11, 20261126})
  void renamedFieldIsMissedAndFoundAgain(long seed) {
    Random random = new Random(seed);
    for (int round = 0; round < 200; round++) {
      int count = 1 + random.nextInt(6);
      List<FieldShape> fields =
          Stream.iterate(0, i -> i + 1)
              .limit(count)
              .map(i -> FieldShape.of("/f" + i, "f" + i, ValueType.TEXT).withRequired(true))
              .toList();
      int renamed = random.nextInt(count);
      List<JsonNode> records = new ArrayList<>();
      boolean everywhere = random.nextBoolean();
      int size = 2 + random.nextInt(4);
      for (int r = 0; r < size; r++) {
        ObjectNode record = JSON.createObjectNode();
        for (int f = 0; f < count; f++) {
          record.put(f == renamed && (everywhere || r > 0) ? "other" : "f" + f, "x");
        }
        records.add(record);
      }
      List<ShapeChange> changes = ShapeChange.between(fields, records, Set.of());
      if (everywhere) {
        assertThat(changes).as("seed %s, round %s", seed, round).hasSize(1);
        assertThat(changes.getFirst().field().key()).isEqualTo("/f" + renamed);
        assertThat(changes.getFirst().likely()).contains("/other");
      } else {
        assertThat(changes).as("seed %s, round %s", seed, round).isEmpty();
      }
    }
  }
}
