package org.ysthmos.core.suggest;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.rule.RuleDocument;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.ValueType;

class FieldPairsTest {

  private static final FieldShape DUE =
      FieldShape.of("due", "Due", ValueType.MOMENT)
          .withShownIn(Optional.of(ZoneId.of("Europe/Lisbon")));
  private static final FieldShape PRIORITY =
      FieldShape.of("priority", "Priority", ValueType.NUMBER);
  private static final FieldShape LANE =
      FieldShape.of("lane", "Lane", ValueType.CHOICE)
          .withNames(Map.of("reported", "Reported", "finished", "Finished"));
  private static final FieldShape TITLE = FieldShape.of("title", "Title", ValueType.TEXT);

  private static SourceField text(String address, String name, String... samples) {
    return field(address, name, ValueType.TEXT, samples);
  }

  private static SourceField field(String address, String name, ValueType type, String... samples) {
    return new SourceField(
        Address.parse(address),
        FieldShape.of(Address.parse(address).pointer().toString(), name, type),
        Arrays.stream(samples)
            .<JsonNode>map(s -> s.isEmpty() ? MissingNode.getInstance() : TextNode.valueOf(s))
            .toList());
  }

  private static List<String> suggested(SourceField source, FieldShape target) {
    return FieldPairs.of(List.of(source), List.of(target)).stream()
        .map(pair -> String.valueOf(RuleDocument.written(pair.rule().value())))
        .toList();
  }

  @Test
  void aTextThatReadsAsADayInOneWayIsOfferedAsADueTime() {
    SourceField seen = text("report/seenOn", "seen on", "23 November 2026", "4 May 2026", "");
    assertThat(suggested(seen, DUE))
        .singleElement()
        .asString()
        .contains("report/seenOn", "d MMMM uuuu", "17:00", "Europe/Lisbon");
    assertThat(FieldPairs.of(List.of(seen), List.of(DUE)).getFirst().because())
        .isEqualTo("all 2 values fit");
  }

  @Test
  void whereDayAndMonthCanBeSwappedNothingIsOffered() {
    assertThat(suggested(text("/on", "on", "3/4/2026", "5/6/2026"), DUE)).isEmpty();
    // One value past the twelfth tells which is which.
    assertThat(suggested(text("/on", "on", "3/4/2026", "25/6/2026"), DUE))
        .singleElement()
        .asString()
        .contains("d/M/uuuu");
  }

  @Test
  void numbersWrittenAsTextsAreOfferedForANumberAndWordsAreNot() {
    assertThat(suggested(text("/danger", "how dangerous", "7", "10", "2"), PRIORITY))
        .containsExactly("{value=/danger, steps=[read-number]}");
    assertThat(suggested(text("/danger", "how dangerous", "high", "low"), PRIORITY)).isEmpty();
  }

  @Test
  void aKeyIsOfferedOnlyIfTheTargetKnowsItsValues() {
    assertThat(suggested(text("/state", "state", "reported", "finished"), LANE))
        .containsExactly("{value=/state, steps=[{as=choice}]}");
    assertThat(suggested(text("/state", "state", "open", "closed"), LANE)).isEmpty();
  }

  @Test
  void textsArePairedByTheirNames() {
    assertThat(suggested(text("/title", "Title", "A", "B"), TITLE)).containsExactly("/title");
    assertThat(suggested(text("/mail", "mail address", "a@b.example"), TITLE)).isEmpty();
  }

  @Test
  void aListOfTextsIsNotOfferedForEveryText() {
    FieldShape checklist =
        FieldShape.of("checklist", "Checklist", ValueType.listOf(ValueType.TEXT));
    assertThat(suggested(text("/place", "place", "Palm walk"), checklist)).isEmpty();
    assertThat(suggested(text("/checklist", "checklist", "Palm walk"), checklist))
        .containsExactly("{value=/checklist, steps=[in-list]}");
  }

  @Test
  void theLikeliestStandsFirstAndNoFieldGetsMoreThanTwo() {
    List<SourceField> sources =
        List.of(
            text("/a", "number of guests", "7", "8"),
            text("/priority", "priority", "3", "1"),
            text("/c", "children", "1", "2"));
    List<FieldPair> pairs = FieldPairs.of(sources, List.of(PRIORITY));
    assertThat(pairs).hasSize(2);
    assertThat(pairs.getFirst().rule().value().source().toString()).contains("priority");
    assertThat(pairs.getFirst().because()).isEqualTo("the names are alike, and all 2 values fit");
  }

  @Test
  void withoutSamplesOnlyOneTypeIsTrustedAndItsName() {
    SourceField opens = field("/due", "due", ValueType.MOMENT);
    assertThat(suggested(opens, DUE)).containsExactly("/due");
    assertThat(suggested(text("/due", "due"), DUE)).isEmpty();
  }
}
