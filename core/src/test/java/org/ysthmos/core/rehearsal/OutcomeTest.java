package org.ysthmos.core.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.rehearsal.Rehearsed.FieldDifference;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

class OutcomeTest {

  private static Outcome.Task task(Map<String, Value> fields) {
    return new Outcome.Task(
        "", Verdict.CREATE, "key", Optional.empty(), WrittenFields.of(fields), WrittenFields.NONE);
  }

  /** Some of six fields, in any order. */
  private static SequencedMap<String, Value> fields(Seeds seeds) {
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    for (int i = 0; i < 4; i++) {
      fields.put("\u00dcber " + seeds.below(6), seeds.value());
    }
    return fields;
  }

  @Test
  void keptAndReadAgainItIsTheSame() {
    Seeds.forSeeds(
        500,
        seeds -> {
          Outcome outcome =
              new Outcome(
                  Verdict.UPDATE,
                  "because \u201cof\u201d it",
                  List.of(
                      task(fields(seeds)),
                      new Outcome.Task(
                          "two",
                          Verdict.UPDATE,
                          "other",
                          Optional.of("T-7"),
                          WrittenFields.of(fields(seeds)),
                          WrittenFields.of(fields(seeds)))));
          Outcome read = Outcome.read(outcome.write());
          assertThat(read).isEqualTo(outcome);
          assertThat(read.write()).isEqualTo(outcome.write());
        });
  }

  @Test
  void twoDecisionsDifferInTheFieldsWhoseValuesDo() {
    Seeds.forSeeds(
        2000,
        seeds -> {
          Map<String, Value> then = fields(seeds);
          Map<String, Value> now = fields(seeds);
          then.forEach(
              (name, value) -> now.computeIfPresent(name, (n, v) -> seeds.oneOf(v, value)));
          Map<String, List<Value>> expected = new TreeMap<>();
          for (int i = 0; i < 6; i++) {
            String name = "\u00dcber " + i;
            Value before = then.getOrDefault(name, Nothing.NOTHING);
            Value after = now.getOrDefault(name, Nothing.NOTHING);
            if (!before.equals(after)) {
              expected.put(name, List.of(before, after));
            }
          }
          Map<String, List<Value>> found = new TreeMap<>();
          Outcome.Task kept = Outcome.read(outcome(task(then)).write()).tasks().getFirst();
          for (FieldDifference field : kept.differences(task(now))) {
            found.put(field.field(), List.of(field.then(), field.now()));
          }
          assertThat(found).isEqualTo(expected);
        });
  }

  private static Outcome outcome(Outcome.Task task) {
    return new Outcome(task.verdict(), "", List.of(task));
  }

  @Test
  void whatAnEarlierVersionWroteOtherwiseIsNoDifference() {
    byte[] kept =
        """
        { "verdict" : "CREATE", "tasks" : [ { "verdict" : "CREATE", "key" : "key",
          "fields" : { "Title" : { "text" : "caf\\u00e9" } } } ] }
        """
            .getBytes(StandardCharsets.UTF_8);
    Outcome.Task then = Outcome.read(kept).tasks().getFirst();
    assertThat(then.differences(task(Map.of("Title", new Text("café"))))).isEmpty();
    assertThat(then.differences(task(Map.of("Title", new Text("cafe"))))).hasSize(1);
  }

  @Test
  void whatIsNoOutcomeIsRefused() {
    for (String wrong : List.of("{}", "{\"verdict\":\"CREATE\",\"colour\":1}", "{\"verdict\":")) {
      assertThatThrownBy(() -> Outcome.read(wrong.getBytes(StandardCharsets.UTF_8)))
          .as(wrong)
          .isInstanceOfAny(IllegalArgumentException.class, NullPointerException.class);
    }
  }
}
